<script setup lang="ts">
import { computed } from 'vue'
import CoreThumb from '@/components/core/CoreThumb.vue'
import { figure, weight, weightUnit } from '@/domain/format'
import { isOutside, willFail } from '@/domain/states'
import { useSession } from '@/stores/session'
import type { Side } from './VersionsPanel.vue'

const props = defineProps<{ left: Side; right: Side; changes: string[] }>()
defineEmits<{ close: [] }>()
const session = useSession()

const strata = (side: Side): { role: string; code: string; share: number }[] =>
  side.analysis.lines.map((line) => ({ role: line.role, code: line.code, share: line.share }))

const rows = computed(() => {
  const names = new Map<string, { name: string; left?: number; right?: number }>()
  for (const line of props.left.analysis.lines) names.set(line.id, { name: line.name, left: line.grams })
  for (const line of props.right.analysis.lines) names.set(line.id, { ...(names.get(line.id) ?? {}), name: line.name, right: line.grams })
  return [...names.entries()].map(([id, row]) => ({ id, ...row, differs: Math.abs((row.left ?? 0) - (row.right ?? 0)) > 0.05 }))
})
const brackets = computed(() =>
  props.left.analysis.brackets
    .filter((b) => b.primary)
    .map((b) => ({
      left: b,
      right: props.right.analysis.brackets.find((r) => r.key === b.key) ?? b,
    })),
)
const grams = (value: number | undefined): string =>
  value === undefined ? '–' : `${weight(value, session.units)} ${weightUnit(session.units)}`
</script>

<template>
  <div class="pair">
    <p class="words">{{ changes.length ? changes.join(' · ') : $t('formula-side-by-side-no-differences') }}</p>
    <div class="bodies">
      <figure>
        <CoreThumb :strata="strata(left)" :width="72" :height="300" />
        <figcaption>{{ left.word }}</figcaption>
      </figure>
      <table>
        <thead>
          <tr>
            <th scope="col">
              <span class="visually-hidden">{{ $t('formula-side-by-side-ingredient') }}</span>
            </th>
            <th>{{ left.word }}</th>
            <th>{{ right.word }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.id" :class="{ differs: row.differs }">
            <th scope="row">{{ row.name }}</th>
            <td>{{ grams(row.left) }}</td>
            <td>{{ grams(row.right) }}</td>
          </tr>
          <tr v-for="b in brackets" :key="b.left.key" class="bracket">
            <th scope="row">
              {{ b.left.label }} <span class="note">{{ b.left.unit }}</span>
            </th>
            <td :class="{ act: willFail(b.left.state), about: isOutside(b.left.state) && !willFail(b.left.state) }">
              {{ figure(b.left.estimate.value, b.left.decimals) }}
            </td>
            <td :class="{ act: willFail(b.right.state), about: isOutside(b.right.state) && !willFail(b.right.state) }">
              {{ figure(b.right.estimate.value, b.right.decimals) }}
            </td>
          </tr>
        </tbody>
      </table>
      <figure>
        <CoreThumb :strata="strata(right)" :width="72" :height="300" />
        <figcaption>{{ right.word }}</figcaption>
      </figure>
    </div>
    <v-btn class="quiet-button" @click="$emit('close')">{{ $t('formula-side-by-side-all-versions') }}</v-btn>
  </div>
</template>

<style scoped>
.words {
  margin: 14px 0;
  font-size: 16px;
}

.bodies {
  display: flex;
  gap: 24px;
  margin-bottom: 16px;
}

figure {
  margin: 0;
  text-align: center;
  font-weight: 650;
}

table {
  flex: 1;
  align-self: flex-start;
  border-collapse: collapse;
}

thead th,
td {
  text-align: right;
}

tbody th {
  font-weight: 400;
  text-align: left;
}

tr > * {
  padding: 3px 6px;
  border-bottom: 1px solid var(--rule);
}

.differs {
  background: var(--select);
  font-weight: 650;
}

.differs th {
  font-weight: 650;
}

.bracket td {
  font-family: var(--head);
  font-weight: 700;
}
</style>
