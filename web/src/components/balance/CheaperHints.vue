<script setup lang="ts">
/** Packs of the kitchen that would do the same work for less: a hint at the cost, taken as one edit that can be undone. */
import { refDebounced } from '@vueuse/core'
import { computed } from 'vue'
import { api, settled } from '@/api/client'
import type { CheaperPack, FormulaDocument } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { withLine } from '@/domain/edits'
import { useBench } from '@/stores/bench'

const bench = useBench()
const document = refDebounced(
  computed(() => bench.document),
  400,
)
const hints = useAsk(
  () => ['cheaper', document.value],
  (at) => settled(api.POST('/api/kitchens/{kitchen_id}/cheaper', { params: { path: at }, body: document.value as FormulaDocument })),
  { when: () => document.value !== null },
)
const unpriced = computed(
  () =>
    bench.analysis?.lines.filter((l) => bench.analysis?.cost.unpriced.includes(l.id)).map((l) => l.name.split(',')[0]?.toLowerCase()) ?? [],
)

function take(hint: CheaperPack): void {
  bench.edit((doc) => withLine(doc, hint.line, { lot: hint.lot, ingredient: hint.ingredient }))
  bench.selected = hint.line
}
</script>

<template>
  <div class="hints">
    <p v-if="unpriced.length" class="note">
      {{ $t('frame-cheaper-hints-not-compared-because-no-price-is', { unpriced: unpriced.join(', ') }) }}
    </p>
    <p v-for="h in hints.answer.value" :key="h.line">
      {{ h.text }} <v-btn v-if="bench.mayEdit" class="take" @click="take(h)">{{ $t('frame-cheaper-hints-use-this-pack') }}</v-btn>
    </p>
    <p v-if="hints.answer.value && !hints.answer.value.length" class="note">
      {{ $t('frame-cheaper-hints-no-cheaper-pack-in-your-pantry') }}
    </p>
  </div>
</template>

<style scoped>
.hints {
  font-size: 13px;
}

p {
  margin: 4px 0;
}

.take {
  color: var(--act);
  font-size: 12px;
  font-weight: 650;
  border-bottom: 1.5px solid var(--act);
}
</style>
