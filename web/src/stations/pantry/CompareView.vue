<script setup lang="ts">
/**
 * Side by side decides which of a few to take. The eye falls on the columns, all drawn to one scale of 100 g,
 * then on the two bars of what each holds and binds; taking one out or searching another redraws the rest.
 */
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, settled } from '@/api/client'
import type { Compared } from '@/api/types'
import IngredientFinder from '@/components/pantry/IngredientFinder.vue'
import { layerHatch } from '@/components/pantry/layers'
import { useAsk } from '@/composables/useAsk'
import { useCompareList } from '@/composables/useCompareList'
import { figure, money, range } from '@/domain/format'
import { layStrata } from '@/domain/strata'
import { useSession } from '@/stores/session'
import PantryBar from './PantryBar.vue'
import { t } from '@/messages'

const HEIGHT = 280
const MOST = 6
const route = useRoute()
const router = useRouter()
const session = useSession()
const marked = useCompareList()
const keys = computed(() => [route.query.keys ?? []].flat().map(String).slice(0, MOST))
const seen = useAsk(
  () => ['compare', keys.value],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/compare', { params: { path: at, query: { keys: keys.value } } })),
  { keep: true },
)
const columns = computed(() => (seen.answer.value ?? []).map((item) => ({ item, strata: drawn(item) })))
const most = computed(() => ({
  capacity: Math.max(1, ...(seen.answer.value ?? []).map((c) => c.capacity.high)),
  binding: Math.max(1, ...(seen.answer.value ?? []).map((c) => c.binding.high)),
}))

function drawn(item: Compared): { key: string; name: string; grams: number; top: number; height: number }[] {
  const { strata } = layStrata(
    item.layers.map((l) => l.grams),
    HEIGHT,
    0,
  )
  return item.layers.map((layer, i) => ({ ...layer, top: strata[i]?.top ?? 0, height: strata[i]?.height ?? 0 }))
}

function change(next: string[]): void {
  marked.keys.value = next
  void router.replace({ query: { keys: next } })
}

const rows: { label: string; hint?: string; text: (c: Compared) => string }[] = [
  { label: t('pantry-compare-view-net-carbs'), text: (c) => `${figure(c.net_carbs.value, 1)} g` },
  { label: 'protein', text: (c) => `${figure(c.protein.value, 1)} g` },
  { label: 'fat', text: (c) => `${figure(c.fat.value, 1)} g` },
  { label: 'fibre', text: (c) => `${figure(c.fibre.value, 1)} g` },
  { label: 'energy', text: (c) => t('pantry-compare-view-kcal', { energy_kcal: figure(c.energy_kcal, 0) }) },
  { label: t('pantry-compare-view-a-cup-weighs'), text: (c) => (c.g_per_cup == null ? '–' : `${figure(c.g_per_cup, 0)} g`) },
  { label: 'price', hint: t('pantry-compare-view-price-per-100-g-used'), text: (c) => paid(c.price_100g) },
  { label: t('pantry-compare-view-price-of-100-g-protein'), text: (c) => paid(c.function_price.protein_100g) },
  { label: t('pantry-compare-view-price-per-100-g-water-absorbed'), text: (c) => paid(c.function_price.water_100g) },
  { label: t('pantry-compare-view-price-per-egg-of-binding'), text: (c) => paid(c.function_price.egg_equivalent) },
]
const paid = (amount: number | null | undefined): string => (amount == null ? '–' : `${money(amount)} ${session.kitchen?.currency ?? ''}`)
</script>

<template>
  <div class="page">
    <PantryBar :title="$t('pantry-compare-view-side-by-side')">
      <IngredientFinder
        v-if="keys.length < MOST"
        :placeholder="$t('pantry-compare-view-add-another')"
        @pick="(key) => change([...keys.filter((k) => k !== key), key])"
      />
    </PantryBar>
    <p v-if="!keys.length" class="page-blank">{{ $t('pantry-compare-view-select-ingredients-in-the-pantry-to') }}</p>
    <p v-else-if="seen.missing.value" class="page-blank" role="alert">
      {{ $t('pantry-compare-view-some-of-these-ingredients-are-not') }}
      <v-btn class="quiet-button" @click="change([])">{{ $t('pantry-compare-view-start-again') }}</v-btn>
    </p>
    <div v-else class="page-sheet">
      <table>
        <thead>
          <tr>
            <td class="note corner">{{ $t('pantry-compare-view-100-g-of-each-drawn-to') }}</td>
            <th v-for="{ item } in columns" :key="item.key">
              <router-link
                :to="item.pack ? `/pantry?own=true&search=${encodeURIComponent(item.pack)}` : `/pantry/ingredients/${item.ingredient}`"
                >{{ item.pack || item.name }}</router-link
              >
              <span class="note of">{{ item.pack ? item.name : $t('pantry-compare-view-reference') }}</span>
              <v-btn
                class="note"
                :aria-label="$t('pantry-compare-view-remove', { name: item.pack || item.name })"
                @click="change(keys.filter((k) => k !== item.key))"
                >{{ $t('pantry-compare-view-remove-2') }}</v-btn
              >
            </th>
          </tr>
          <tr>
            <td class="corner" />
            <td v-for="{ item, strata } in columns" :key="item.key">
              <svg width="150" :height="HEIGHT" role="img" :aria-label="strata.map((s) => `${s.name} ${s.grams.toFixed(1)} g`).join(', ')">
                <g v-for="s in strata" :key="s.key">
                  <rect x="0" :y="s.top" width="66" :height="s.height" :style="{ fill: `url(#hatch-${layerHatch[s.key] ?? 'salt'})` }" />
                  <text v-if="s.height >= 13" x="73" :y="s.top + s.height / 2 + 4">
                    {{ s.name.toLowerCase() }} {{ s.grams.toFixed(s.grams < 10 ? 1 : 0) }}
                  </text>
                </g>
              </svg>
            </td>
          </tr>
        </thead>
        <tbody>
          <tr>
            <th class="label">{{ $t('pantry-compare-view-water-absorption-g-g') }}</th>
            <td v-for="{ item } in columns" :key="item.key">
              <template v-if="!item.capacity.high">–</template
              ><template v-else>
                <span class="gauge" :title="range(item.capacity.low, item.capacity.high, 1)">
                  <i
                    class="smear water"
                    :style="{
                      left: `${(100 * item.capacity.low) / most.capacity}%`,
                      width: `${(100 * (item.capacity.high - item.capacity.low)) / most.capacity}%`,
                    }"
                  />
                  <i class="bar water" :style="{ width: `${(100 * item.capacity.value) / most.capacity}%` }" />
                </span>
                <b>{{ figure(item.capacity.value, 1) }}</b>{{ ' '
                }}<span class="note">{{ range(item.capacity.low, item.capacity.high, 1) }}</span>
              </template>
            </td>
          </tr>
          <tr>
            <th class="label">{{ $t('pantry-compare-view-binds-eggs-100-g') }}</th>
            <td v-for="{ item } in columns" :key="item.key">
              <template v-if="!item.binding.high">–</template
              ><template v-else>
                <span class="gauge" :title="range(item.binding.low, item.binding.high, 1)">
                  <i
                    class="smear"
                    :style="{
                      left: `${(100 * item.binding.low) / most.binding}%`,
                      width: `${(100 * (item.binding.high - item.binding.low)) / most.binding}%`,
                    }"
                  />
                  <i class="bar" :style="{ width: `${(100 * item.binding.value) / most.binding}%` }" />
                </span>
                <b>{{ figure(item.binding.value, 1) }}</b>{{ ' '
                }}<span class="note">{{ range(item.binding.low, item.binding.high, 1) }}</span>
              </template>
            </td>
          </tr>
          <tr v-for="row in rows" :key="row.label">
            <th class="label" :title="row.hint">{{ row.label }}</th>
            <td v-for="{ item } in columns" :key="item.key">{{ row.text(item) }}</td>
          </tr>
          <tr>
            <th class="label">{{ $t('pantry-compare-view-source') }}</th>
            <td v-for="{ item } in columns" :key="item.key" class="note source">{{ item.source }}</td>
          </tr>
        </tbody>
      </table>
      <p class="note">{{ $t('pantry-compare-view-net-carbs-by-the-method-absorption', { convention: session.kitchen?.convention }) }}</p>
    </div>
  </div>
</template>

<style scoped>
table {
  border-collapse: collapse;
}

th,
td {
  padding: 5px 14px 5px 0;
  font-size: 13px;
  font-weight: 400;
  text-align: left;
  vertical-align: top;
}

thead th {
  width: 178px;
  vertical-align: bottom;
}

thead th a {
  display: block;
  font-weight: 650;
  font-size: 14px;
  text-decoration: none;
}

.of {
  display: block;
}

thead th button {
  text-decoration: underline;
  text-decoration-color: var(--rule-strong);
}

.corner {
  width: 150px;
  vertical-align: bottom;
}

tbody tr {
  border-top: 1px solid var(--rule);
}

.label {
  color: var(--ink-2);
}

text {
  fill: var(--ink);
  font-size: 12px;
}

.gauge {
  position: relative;
  display: block;
  width: 150px;
  height: 9px;
  margin: 3px 0;
  background: var(--in-soft);
  border-radius: 3px;
}

.gauge i {
  position: absolute;
  display: block;
  border-radius: 3px;
}

.gauge .bar {
  top: 0;
  left: 0;
  height: 9px;
  background: var(--role-binder);
}

.gauge .bar.water {
  background: var(--water);
}

.gauge .smear {
  top: -2px;
  height: 13px;
  background: var(--smear);
}

.source {
  max-width: 170px;
}
</style>
