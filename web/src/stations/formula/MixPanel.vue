<script setup lang="ts">
/**
 * Several cheeses, or flours, with a kept total. The eye falls on the shares; a move of one takes from the others, and every
 * bracket answers.
 */
import { watchDebounced } from '@vueuse/core'
import { computed, reactive, ref, shallowRef, watch } from 'vue'
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
const LEANS = [
  { by: 'strength', from: 'mild', to: 'strong' },
  { by: 'price', from: 'cheap', to: 'pricier' },
] as const
type Quality = (typeof LEANS)[number]['by']
const SETTLED_MS = 250
/** Where the handles stand, counted from the dough as it was when the first was pulled; any other edit begins anew. */
const handles = reactive<Record<Quality, number>>({ strength: 0, price: 0 })
const base = shallowRef<FormulaDocument | null>(null)
const made = shallowRef<FormulaDocument | null>(null)
const leaning = useDo(
  ({ by, towards }: { by: Quality; towards: number }, at) =>
    settled(
      api.POST('/api/kitchens/{kitchen_id}/lean', {
        params: { path: at },
        body: { document: base.value as FormulaDocument, group: group.value.map((l) => l.id), by, towards },
      }),
    ),
  {
    here: true,
    then: (answer) => {
      bench.edit(() => answer.document as FormulaDocument)
      made.value = bench.document
    },
  },
)
const asked = ref<{ by: Quality; towards: number } | null>(null)
function pull(by: Quality, towards: number): void {
  const other = by === 'price' ? 'strength' : 'price'
  if (handles[other] !== 0 || bench.document !== made.value || base.value === null) base.value = bench.document
  handles[other] = 0
  handles[by] = towards
  asked.value = { by, towards }
}
watchDebounced(asked, (now) => now && leaning.run(now), { debounce: SETTLED_MS })
watch(
  () => bench.document,
  (document) => {
    if (document === made.value || leaning.busy.value) return
    base.value = null
    handles.strength = handles.price = 0
  },
)
const grams = (g: number): string => `${weight(g, session.units)} ${weightUnit(session.units)}`
</script>

<template>
  <section class="mix" :aria-label="$t('formula-mix-panel-blend')">
    <div class="panel-head">
      <h3>{{ $t('formula-mix-panel-blend-total', { total: grams(total) }) }}</h3>
      <v-btn class="note" @click="panels.open.value = 'lines'">{{ $t('formula-mix-panel-back-to-ingredients') }}</v-btn>
    </div>
    <p class="note">{{ $t('formula-mix-panel-move-one-slider-the-others-adjust') }}</p>
    <p v-if="group.length < 2">{{ $t('formula-mix-panel-a-blend-needs-at-least-two') }}</p>
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
    <div v-if="group.length > 1" class="leans">
      <label v-for="l in LEANS" :key="l.by" class="lean">
        <span>{{ l.from }}</span>
        <v-slider
          :model-value="handles[l.by]"
          :min="-1"
          :max="1"
          :step="0.125"
          :disabled="!bench.mayEdit"
          :aria-label="$t('formula-mix-panel-from-to', { from: l.from, to: l.to })"
          @update:model-value="(towards: number) => pull(l.by, towards)"
        />
        <span>{{ l.to }}</span>
      </label>
    </div>
    <p v-if="leaning.trouble.value" class="act" role="alert">{{ leaning.trouble.value }}</p>
  </section>
</template>

<style scoped>
.leans {
  display: grid;
  gap: 6px;
  max-width: 440px;
  margin-top: 12px;
}

.lean {
  display: grid;
  grid-template-columns: 52px 1fr 52px;
  gap: 10px;
  align-items: center;
}

.lean span:first-child {
  text-align: right;
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
