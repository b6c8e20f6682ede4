<script setup lang="ts">
import { computed } from 'vue'
import { useBench } from '@/stores/bench'
import { t } from '@/messages'

const bench = useBench()
const heads = {
  act: t('formula-notice-list-fix-these'),
  note: t('formula-notice-list-good-to-know'),
  caution: t('formula-notice-list-cautions'),
} as const
const groups = computed(() =>
  (['act', 'note', 'caution'] as const)
    .map((severity) => ({ severity, items: bench.analysis?.warnings.filter((w) => w.severity === severity) ?? [] }))
    .filter((group) => group.items.length),
)

const point = (lines: readonly string[]): void => {
  if (lines[0]) bench.selected = lines[0]
}
</script>

<template>
  <section class="notices" :aria-label="$t('formula-notice-list-notes-and-cautions')">
    <template v-for="group in groups" :key="group.severity">
      <h3 :class="`is-${group.severity}`">{{ heads[group.severity] }}</h3>
      <ul class="said-list">
        <li v-for="w in group.items" :key="w.code + w.text" :class="`is-${group.severity}`" :data-code="w.code">
          <v-btn v-if="w.lines?.length" @click="point(w.lines)">{{ w.text }}</v-btn><span v-else>{{ w.text }}</span>
        </li>
      </ul>
    </template>
    <p v-if="groups.some((g) => g.severity === 'caution')" class="note">
      {{ $t('formula-notice-list-general-advice-only-follow-your-clinician') }}
    </p>
  </section>
</template>

<style scoped>
h3 {
  margin-bottom: 3px;
  font-size: 15px;
}

h3.is-act {
  color: var(--act);
}

li.is-act {
  border-left-color: var(--act);
}

li.is-caution {
  border-left-style: double;
}

li button {
  text-align: left;
}

li button:hover {
  text-decoration: underline;
  text-decoration-color: var(--rule-strong);
  text-underline-offset: 3px;
}
</style>
