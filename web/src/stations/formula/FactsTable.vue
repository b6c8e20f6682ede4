<script setup lang="ts">
/** What the formula brings, by four amounts, with the 90 % range of every figure. */
import { computed, ref } from 'vue'
import type { Analysis } from '@/api/types'
import { figure, inWeight, range, weight, weightUnit } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

type Facts = Analysis['nutrition']['piece']
const bench = useBench()
const session = useSession()
const ranges = ref(false)
const rows: { key: keyof Facts; label: string; unit: string; digits: number }[] = [
  { key: 'net_carbs', label: t('formula-facts-table-net-carbs'), unit: 'g', digits: 1 },
  { key: 'total_carbs', label: t('formula-facts-table-total-carbohydrate'), unit: 'g', digits: 1 },
  { key: 'fibre', label: 'fibre', unit: 'g', digits: 1 },
  { key: 'sugars', label: 'sugars', unit: 'g', digits: 1 },
  { key: 'protein', label: 'protein', unit: 'g', digits: 1 },
  { key: 'fat', label: 'fat', unit: 'g', digits: 1 },
  { key: 'saturates', label: 'saturates', unit: 'g', digits: 1 },
  { key: 'energy', label: 'energy', unit: 'kcal', digits: 0 },
  { key: 'sodium', label: 'sodium', unit: 'mg', digits: 0 },
]
const columns = computed(() => {
  const n = bench.analysis?.nutrition
  if (!n) return []
  const eaten = bench.document?.form.serving_pieces ?? 1
  return [
    { head: t('formula-facts-table-per-piece'), facts: n.piece },
    ...(eaten > 1 ? [{ head: t('formula-facts-table-pieces', { eaten }), facts: n.serving }] : []),
    { head: t('formula-facts-table-100-g-dough'), facts: n.dough_100g },
    { head: t('formula-facts-table-100-g-baked'), facts: n.baked_100g },
  ]
})
const conventions = computed(() => {
  const n = bench.analysis?.nutrition
  return n
    ? [
        { id: 'us', e: n.net_carbs_us },
        { id: 'eu', e: n.net_carbs_eu },
        { id: 'total', e: n.net_carbs_total },
      ]
    : []
})
</script>

<template>
  <section v-if="bench.analysis?.lines.length" class="facts">
    <h3>
      {{ $t('formula-facts-table-nutrition') }}
      <v-btn class="note" :aria-pressed="ranges" @click="ranges = !ranges">{{
        ranges ? $t('formula-facts-table-values-only') : $t('formula-facts-table-with-ranges')
      }}</v-btn>
    </h3>
    <table>
      <thead>
        <tr>
          <th scope="col">
            <span class="visually-hidden">{{ $t('formula-facts-table-figure') }}</span>
          </th>
          <th v-for="c in columns" :key="c.head">{{ c.head }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.key">
          <th scope="row">
            {{ row.label }}<span v-if="row.key === 'net_carbs'"> ({{ bench.analysis.basis.convention }})</span>
          </th>
          <td v-for="c in columns" :key="c.head">
            {{ figure(c.facts[row.key].value, row.digits) }} <span class="note">{{ row.unit }}</span>
            <span v-if="ranges" class="note spread">{{ range(c.facts[row.key].low, c.facts[row.key].high, row.digits) }}</span>
          </td>
        </tr>
      </tbody>
    </table>
    <p class="note">
      {{
        $t('formula-facts-table-the-dough-is-water-of-it', {
          water_percent: figure(bench.analysis.totals.water_percent, 0),
          free_g: weight(bench.analysis.water.free_g, session.units),
          unit: weightUnit(session.units),
          fat_percent: figure(bench.analysis.totals.fat_percent, 0),
          protein_percent: figure(bench.analysis.totals.protein_percent, 0),
        })
      }}
      <span v-for="(c, i) in conventions" :key="c.id">{{ i ? ' · ' : '' }}{{ c.id }} {{ figure(c.e.value, 1) }}</span>
      {{
        $t('formula-facts-table-g-a-piece-weighs-about-baked', {
          grams: inWeight(bench.analysis.nutrition.piece.grams.value, session.units),
          energy_method: bench.analysis.basis.energy_method,
        })
      }}
    </p>
  </section>
</template>

<style scoped>
h3 {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  font-size: 15px;
}

h3 button {
  font-family: var(--text);
  font-weight: 400;
  text-decoration: underline;
  text-underline-offset: 3px;
  text-decoration-color: var(--rule-strong);
}

table {
  width: 100%;
  margin-top: 6px;
  border-collapse: collapse;
  font-size: 13px;
}

thead th {
  padding: 2px 0 4px;
  color: var(--ink-2);
  font-size: 12px;
  font-weight: 400;
  text-align: right;
}

tbody th {
  padding: 3px 0;
  font-weight: 400;
  text-align: left;
}

td {
  text-align: right;
}

tbody tr {
  border-top: 1px solid var(--rule);
}

.spread {
  display: block;
}
</style>
