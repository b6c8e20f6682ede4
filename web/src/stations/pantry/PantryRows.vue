<script setup lang="ts">
/** Rows of the pantry: composition lying down, and what each does, in columns that can be compared by eye. */
import { useRouter } from 'vue-router'
import type { PantryRow } from '@/api/types'
import CompositionBar from '@/components/pantry/CompositionBar.vue'
import RoleSwatch from '@/components/core/RoleSwatch.vue'
import LongRows from '@/components/frame/LongRows.vue'
import { useCompareList } from '@/composables/useCompareList'
import { day, figure, money, weight } from '@/domain/format'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

defineProps<{ rows: PantryRow[]; title: string }>()
const router = useRouter()
const session = useSession()
const marked = useCompareList()
const to = (row: PantryRow): string => (row.lot_id == null ? `/pantry/ingredients/${row.ingredient}` : `/pantry/packs/${row.lot_id}`)
const trouble: Record<string, string> = {
  wrong: t('pantry-pantry-rows-label-cannot-be-right'),
  odd: t('pantry-pantry-rows-look-at-the-label-again'),
}
</script>

<template>
  <table>
    <thead>
      <tr>
        <th class="first">
          <span class="visually-hidden">{{ $t('pantry-pantry-rows-compare') }}</span>
        </th>
        <th class="title">{{ title }}</th>
        <th class="bar">{{ $t('pantry-pantry-rows-in-100-g') }}</th>
        <th>{{ $t('pantry-pantry-rows-net-carbs') }}</th>
        <th>{{ $t('pantry-pantry-rows-protein') }}</th>
        <th :title="$t('pantry-pantry-rows-grams-of-water-absorbed-by-1')">{{ $t('pantry-pantry-rows-absorbs-g-g') }}</th>
        <th :title="$t('pantry-pantry-rows-whole-egg-equivalents-in-100-g')">{{ $t('pantry-pantry-rows-binds-eggs') }}</th>
        <th>{{ $t('pantry-pantry-rows-a-hundred-grams', { currency: session.kitchen?.currency }) }}</th>
        <th>{{ $t('pantry-pantry-rows-on-hand') }}</th>
        <th>{{ $t('pantry-pantry-rows-use-by') }}</th>
      </tr>
    </thead>
    <tbody>
      <LongRows :items="rows" item-key="key" :item-height="31">
        <template #default="{ item: row, itemRef }">
          <tr :ref="itemRef" :class="{ on: marked.keys.value.includes(row.key) }" @click="router.push(to(row))">
            <td class="first" @click.stop>
              <v-checkbox-btn
                :model-value="marked.keys.value.includes(row.key)"
                :disabled="marked.full() && !marked.keys.value.includes(row.key)"
                :aria-label="$t('pantry-pantry-rows-compare-2', { name: row.name })"
                @update:model-value="marked.toggle(row.key)"
              />
            </td>
            <td class="name">
              <div>
                <RoleSwatch :role="row.role" />
                <router-link :to="to(row)" @click.stop>{{ row.name }}</router-link>
                <span v-if="row.of" class="note of">{{ row.of }}</span>
                <span v-if="row.trouble" class="trouble" :class="row.trouble" :title="trouble[row.trouble]">{{
                  $t('pantry-pantry-rows-label', { trouble: row.trouble === 'wrong' ? '✕' : '?' })
                }}</span>
              </div>
            </td>
            <td class="bar"><CompositionBar :layers="row.layers" :width="130" :height="14" /></td>
            <td>{{ figure(row.net_carbs, 1) }}</td>
            <td>{{ figure(row.protein, 1) }}</td>
            <td>{{ row.capacity ? figure(row.capacity, 1) : '–' }}</td>
            <td>{{ row.binding ? figure(row.binding, 1) : '–' }}</td>
            <td>{{ row.price_100g == null ? '' : money(row.price_100g) }}</td>
            <td>
              {{
                row.on_hand_g ? `${weight(row.on_hand_g, session.units)} ${session.units === 'us' ? $t('pantry-pantry-rows-oz') : 'g'}` : ''
              }}
            </td>
            <td>{{ row.use_by ? day(row.use_by) : '' }}</td>
          </tr>
        </template>
      </LongRows>
    </tbody>
  </table>
</template>

<style scoped>
table {
  width: 100%;
  table-layout: fixed;
  border-collapse: collapse;
  font-size: 13px;
}

th {
  position: sticky;
  top: 0;
  z-index: 1;
  padding: 8px 6px 5px;
  background: var(--ground);
  color: var(--ink-2);
  font-size: 12px;
  font-weight: 400;
  text-align: right;
  white-space: nowrap;
}

th {
  width: 76px;
}

th:nth-child(8) {
  width: 88px;
}

th:last-child {
  width: 104px;
}

th.title {
  width: auto;
  color: var(--ink);
  font: 700 15px/1.2 var(--head);
  text-align: left;
}

td {
  padding: 5px 6px;
  border-top: 1px solid var(--rule);
  text-align: right;
  white-space: nowrap;
}

tbody tr {
  cursor: pointer;
}

tbody tr:hover,
tr.on {
  background: var(--select);
}

th.first {
  width: 32px;
}

th.bar {
  width: 146px;
}

.first {
  text-align: left;
}

.first input {
  accent-color: var(--act);
}

.bar {
  text-align: left;
}

.name div {
  display: flex;
  align-items: center;
  gap: 8px;
  overflow: hidden;
}

.name a {
  overflow: hidden;
  font-weight: 600;
  text-overflow: ellipsis;
  text-decoration: none;
}

.name a:hover {
  text-decoration: underline;
}

.of {
  overflow: hidden;
  text-overflow: ellipsis;
}

.trouble {
  padding: 0 7px;
  border: 1px solid currentcolor;
  border-radius: 6px;
  font-size: 12px;
}

.trouble.wrong {
  color: var(--act);
}

@media (max-width: 1140px) {
  .of,
  th:nth-child(n + 9),
  td:nth-child(n + 9) {
    display: none;
  }
}

/* A phone has room for the name, its net carbs and what is on hand. */
@media (max-width: 700px) {
  .bar,
  tr > :nth-child(n + 5):not(:nth-child(9)) {
    display: none;
  }

  th {
    width: 64px;
  }
}
</style>
