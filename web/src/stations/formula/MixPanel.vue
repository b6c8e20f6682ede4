<script setup lang="ts">
/**
 * Several cheeses, or flours, with a kept total. The eye falls on the shares; a move of one takes from the others, and every
 * bracket answers.
 */
import { computed } from 'vue'
import { api, settled } from '@/api/client'
import type { FormulaDocument } from '@/api/types'
import { useDo } from '@/composables/useDo'
import { usePanels } from '@/composables/usePanels'
import { percent, weight, weightUnit } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'

const bench = useBench()
const session = useSession()
const panels = usePanels()
const role = computed(() => {
  const line = bench.lines.find((l) => l.id === bench.selected)
  return line ? line.role || bench.reading(line)?.role : ''
})
const group = computed(() =>
  bench.lines
    .filter((l) => (l.role || bench.reading(l)?.role) === role.value)
    .map((l) => ({ id: l.id, name: bench.reading(l)?.name ?? l.note ?? '', grams: l.grams ?? 0, locked: l.locked ?? false })),
)
const total = computed(() => group.value.reduce((sum, l) => sum + l.grams, 0))
const mixing = useDo(
  ({ line, grams }: { line: string; grams: number }, at) =>
    settled(
      api.POST('/api/kitchens/{kitchen_id}/mix', {
        params: { path: at },
        body: { document: bench.document as FormulaDocument, group: group.value.map((l) => l.id), line, grams },
      }),
    ),
  { then: (made) => bench.edit(() => made.document as FormulaDocument) },
)
/** A step to either end of what tells them apart; pressed again it goes further. */
const STEP = 0.25
const LEANS = [
  { word: 'milder', by: 'strength', towards: -STEP },
  { word: 'stronger in taste', by: 'strength', towards: STEP },
  { word: 'cheaper', by: 'price', towards: -STEP },
  { word: 'dearer', by: 'price', towards: STEP },
] as const
const leaning = useDo(
  ({ by, towards }: { by: 'strength' | 'price'; towards: number }, at) =>
    settled(
      api.POST('/api/kitchens/{kitchen_id}/lean', {
        params: { path: at },
        body: { document: bench.document as FormulaDocument, group: group.value.map((l) => l.id), by, towards },
      }),
    ),
  { here: true, then: (made) => bench.edit(() => made.document as FormulaDocument) },
)
const grams = (g: number): string => `${weight(g, session.units)} ${weightUnit(session.units)}`
</script>

<template>
  <section class="mix" aria-label="Mix">
    <div class="panel-head">
      <h3>Mix, {{ grams(total) }} in all</h3>
      <v-btn class="note" @click="panels.open.value = 'lines'">Back to the lines</v-btn>
    </div>
    <p class="note">Move one: the others give, and their sum stays.</p>
    <p v-if="group.length < 2">One line alone is no mix: there is nothing that could give.</p>
    <label v-for="line in group" v-else :key="line.id" class="row">
      <span>{{ line.name }}</span>
      <input
        type="range"
        min="0"
        :max="Math.round(total)"
        step="1"
        :value="line.grams"
        :disabled="line.locked || !bench.mayEdit || mixing.busy.value"
        :aria-valuetext="grams(line.grams)"
        @change="mixing.run({ line: line.id, grams: Number(($event.target as HTMLInputElement).value) })"
      />
      <b class="figure">{{ grams(line.grams) }}</b>
      <span class="note">{{ percent(total ? line.grams / total : 0) }}</span>
    </label>
    <p v-if="group.length > 1" class="leans" role="group" aria-label="Lean to one end">
      <v-btn
        v-for="l in LEANS"
        :key="l.word"
        class="quiet-button"
        :disabled="!bench.mayEdit || leaning.busy.value"
        @click="leaning.run({ by: l.by, towards: l.towards })"
        >{{ l.word }}</v-btn
      >
    </p>
    <p v-if="leaning.trouble.value" class="act" role="alert">{{ leaning.trouble.value }}</p>
  </section>
</template>

<style scoped>
.leans {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 10px;
}

.row {
  display: grid;
  grid-template-columns: minmax(120px, 220px) 1fr 80px 50px;
  gap: 14px;
  align-items: center;
  min-height: 44px;
}

input {
  width: 100%;
  accent-color: var(--act);
}
</style>
