<script setup lang="ts">
/** A nutrition panel as it would be printed, with what each figure's own range could print beside it. */
import type { Panel } from '@/api/types'

defineProps<{ panel: Panel; ranges: boolean }>()
</script>

<template>
  <section class="panel" :aria-label="panel.title">
    <h3>{{ panel.title }}</h3>
    <template v-if="panel.style === 'us'">
      <p class="line">{{ panel.servings }}</p>
      <p class="line strong">
        <span>{{ $t('card-panel-sheet-serving-size') }}</span><span>{{ panel.serving }}</span>
      </p>
      <div class="thick" />
    </template>
    <table>
      <thead>
        <tr>
          <th scope="col">
            <span class="visually-hidden">{{ $t('card-panel-sheet-figure') }}</span>
          </th>
          <th v-for="c in panel.columns" :key="c">{{ c }}</th>
          <th v-if="panel.style === 'us'">{{ $t('card-panel-sheet-daily-value') }}</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in panel.rows"
          :key="row.key"
          :class="[`in-${row.indent}`, { big: panel.style === 'us' && row.key === 'energy_kcal', after: row.key === 'vitamin_d_ug' }]"
        >
          <th>{{ row.name }}</th>
          <td v-for="(cell, i) in row.cells" :key="i">
            {{ cell.text }}<span v-if="ranges && cell.range_text" class="note could">{{ cell.range_text }}</span>
          </td>
          <td v-if="panel.style === 'us'" class="dv">{{ row.daily_percent }}</td>
        </tr>
      </tbody>
    </table>
    <div v-if="panel.style === 'us'" class="thick" />
    <p v-for="n in panel.notes" :key="n" class="note">{{ n }}</p>
  </section>
</template>

<style scoped>
.panel {
  padding: 10px 14px 12px;
  border: 2px solid var(--ink);
  background: var(--panel);
}

h3 {
  font-size: 24px;
  border-bottom: 1px solid var(--ink);
}

.line {
  display: flex;
  justify-content: space-between;
  margin: 2px 0;
}

.strong {
  font-weight: 700;
}

.thick {
  height: 7px;
  margin: 4px 0;
  background: var(--ink);
}

table {
  width: 100%;
  border-collapse: collapse;
}

thead th {
  color: var(--ink-2);
  font-size: 12px;
  font-weight: 400;
  text-align: right;
}

tbody th {
  padding: 3px 8px 3px 0;
  font-weight: 650;
  line-height: 1.25;
  text-align: left;
}

.in-1 th {
  padding-left: 16px;
  font-weight: 400;
}

.in-2 th {
  padding-left: 32px;
  font-weight: 400;
}

td {
  padding: 3px 0 3px 10px;
  text-align: right;
  white-space: nowrap;
}

tbody tr {
  border-top: 1px solid var(--rule-strong);
}

tr.big th,
tr.big td {
  font: 800 22px/1.2 var(--head);
}

tr.after {
  border-top: 5px solid var(--ink);
}

.could {
  display: block;
  line-height: 1.1;
}

.dv {
  font-weight: 650;
}

.note {
  margin: 6px 0 0;
}
</style>
