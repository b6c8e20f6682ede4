<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { nextTick, ref, watch } from 'vue'
import { useCommands } from '@/composables/useCommands'
import { stations } from './stations'

const { keys } = useCommands()
const closer = ref<{ $el: HTMLElement }>()
const all: [string, string][] = [
  ['Ctrl K', 'search or run a command'],
  ['/', 'search for an ingredient, or for a formula in the list'],
  ['↑ ↓ in an amount', 'one step more or less; Shift for ten steps'],
  ['Enter in an amount', 'the next ingredient'],
  ['Alt ↑ Alt ↓', 'move the ingredient'],
  ['Ctrl Z, Ctrl Shift Z', 'undo, redo'],
  ['s', 'balance the formula to its targets'],
  ['w', 'exclude an ingredient'],
  ['v', 'versions'],
  ['Space, t, Backspace', 'during a bake: finish the step, start or stop the timer, go back one step'],
  ['[ ]', 'compare an older or newer version with the one before it'],
  ...stations.map((s): [string, string] => [`g ${s.key}`, s.word]),
  ['?', 'show these shortcuts; on a figure: explain it'],
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
    <section class="sheet" role="dialog" aria-label="Keyboard shortcuts">
      <h2>Keys</h2>
      <dl>
        <template v-for="[key, does] in all" :key="key">
          <dt>{{ key }}</dt>
          <dd>{{ does }}</dd>
        </template>
      </dl>
      <v-btn ref="closer" class="quiet-button" @click="keys = false">Close</v-btn>
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
