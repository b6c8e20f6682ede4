<script setup lang="ts">
/** What differed, and what came of it? The eye falls on the rows that differ; the forecast stands under what was measured. */
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { api, settled } from '@/api/client'
import { useAsk } from '@/composables/useAsk'
import { t } from '@/messages'

const route = useRoute()
const wanted = computed(() => String(route.query.runs ?? ''))
const all = ref(false)
const compared = useAsk(
  () => [t('trials-compare-runs-bakes-compared'), wanted.value],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/runs-compared', { params: { path: at, query: { runs: wanted.value } } })),
)
const GROUPS = [
  { id: 'weights', name: t('trials-compare-runs-batch-weights') },
  { id: 'making', name: t('trials-compare-runs-mixing-and-shaping') },
  { id: 'bake', name: t('trials-compare-runs-bake') },
  { id: 'verdict', name: t('trials-compare-runs-rating') },
]
const groups = computed(() =>
  GROUPS.map((g) => ({
    ...g,
    rows: (compared.answer.value?.rows ?? []).filter((r) => r.group === g.id && (all.value || r.differs || g.id === 'verdict')),
  })).filter((g) => g.rows.length),
)
</script>

<template>
  <div class="page">
    <header>
      <h2>{{ $t('trials-compare-runs-side-by-side') }}</h2>
      <router-link class="quiet-button" to="/trials">{{ $t('trials-compare-runs-back-to-results') }}</router-link>
      <v-checkbox v-model="all" :label="$t('trials-compare-runs-show-unchanged-values')" hide-details />
    </header>
    <p v-if="compared.missing.value" role="alert">{{ compared.trouble.value }}</p>
    <template v-if="compared.answer.value">
      <p class="sentence">{{ compared.answer.value.text }}</p>
      <p v-for="h in compared.answer.value.held" :key="h.what" class="note">{{ h.text }}</p>
      <table>
        <thead>
          <tr>
            <th>
              <span class="visually-hidden">{{ $t('trials-compare-runs-figure') }}</span>
            </th>
            <th v-for="(name, n) in compared.answer.value.names" :key="n">{{ name }}</th>
          </tr>
        </thead>
        <tbody v-for="group in groups" :key="group.id">
          <tr>
            <th :colspan="compared.answer.value.names.length + 1" class="group" scope="rowgroup">{{ group.name }}</th>
          </tr>
          <tr v-for="row in group.rows" :key="row.key" :class="{ differs: row.differs }">
            <th scope="row">
              {{ row.label }} <span class="note">{{ row.unit }}</span>
            </th>
            <td v-for="(cell, n) in row.cells" :key="n">
              {{ cell.text || '–' }}
              <span
                v-if="cell.forecast != null && cell.value != null && Math.abs(cell.forecast - cell.value) > 0.005 * Math.abs(cell.value)"
                class="note"
                >{{ $t('trials-compare-runs-forecast', { to_precision: cell.forecast.toPrecision(3) }) }}</span
              >
            </td>
          </tr>
        </tbody>
      </table>
    </template>
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  padding: 16px 24px 40px;
  overflow: auto;
}

header {
  display: flex;
  align-items: center;
  gap: 16px;
}

.quiet-button {
  text-decoration: none;
}

.sentence {
  margin: 8px 0;
  font: 700 18px/1.3 var(--head);
}

table {
  border-collapse: collapse;
}

th,
td {
  padding: 5px 16px 5px 6px;
  border-top: 1px solid var(--rule);
  text-align: left;
}

th {
  font-weight: 400;
}

.group {
  padding-top: 14px;
  border: 0;
  font-weight: 700;
}

.differs td {
  font-weight: 700;
}
</style>
