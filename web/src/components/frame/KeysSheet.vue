<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { nextTick, ref, watch } from 'vue'
import { useCommands } from '@/composables/useCommands'
import { stations } from './stations'
import { t } from '@/messages'

const { keys } = useCommands()
const closer = ref<{ $el: HTMLElement }>()
const all: [string, string][] = [
  [t('frame-keys-sheet-ctrl-k'), t('frame-keys-sheet-search-or-run-a-command')],
  ['/', t('frame-keys-sheet-search-for-an-ingredient-or-for')],
  [t('frame-keys-sheet-in-an-amount'), t('frame-keys-sheet-one-step-more-or-less-shift')],
  [t('frame-keys-sheet-enter-in-an-amount'), t('frame-keys-sheet-the-next-ingredient')],
  [t('frame-keys-sheet-alt-alt'), t('frame-keys-sheet-move-the-ingredient')],
  [t('frame-keys-sheet-ctrl-z-ctrl-shift-z'), t('frame-keys-sheet-undo-redo')],
  ['s', t('frame-keys-sheet-balance-the-formula-to-its-targets')],
  ['w', t('frame-keys-sheet-exclude-an-ingredient')],
  ['v', 'versions'],
  [t('frame-keys-sheet-space-t-backspace'), t('frame-keys-sheet-during-a-bake-finish-the-step')],
  ['[ ]', t('frame-keys-sheet-compare-an-older-or-newer-version')],
  ...stations.map((s): [string, string] => [`g ${s.key}`, s.word]),
  ['?', t('frame-keys-sheet-show-these-shortcuts-on-a-figure')],
]
useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  if (event.key === 'Escape') keys.value = false
})
watch(keys, (on) => {
  if (on) void nextTick(() => closer.value?.$el.focus())
})
</script>

<template>
  <div v-if="keys" class="veil" @click.self="keys = false">
    <section class="sheet" role="dialog" :aria-label="$t('frame-keys-sheet-keyboard-shortcuts')">
      <h2>{{ $t('frame-keys-sheet-keys') }}</h2>
      <dl>
        <template v-for="[key, does] in all" :key="key">
          <dt>{{ key }}</dt>
          <dd>{{ does }}</dd>
        </template>
      </dl>
      <v-btn ref="closer" class="quiet-button" @click="keys = false">{{ $t('frame-keys-sheet-close') }}</v-btn>
    </section>
  </div>
</template>

<style scoped>
.veil {
  display: grid;
  place-items: center;
}

.sheet {
  width: min(520px, 92vw);
  padding: 22px 26px;
  border-radius: 14px;
  background: var(--panel);
  box-shadow: var(--shadow);
}

dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 5px 22px;
  margin: 14px 0 18px;
}

dt {
  font-weight: 650;
}

dd {
  margin: 0;
  color: var(--ink-2);
}
</style>
