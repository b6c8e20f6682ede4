<script setup lang="ts">
/**
 * Stock decides what can still be baked from the shelf. The eye falls on what must be used up first and on
 * what is reserved; a typed count corrects a pack, a planned bake reserves its grams at once.
 */
import { computed, ref } from 'vue'
import { api, settled } from '@/api/client'
import type { PlannedBake, StockRow } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { usePages } from '@/composables/usePages'
import { useDo } from '@/composables/useDo'
import { day, gramsOf, inWeight, localDay, weight, weightUnit } from '@/domain/format'
import { useSession } from '@/stores/session'
import { useToasts } from '@/stores/toasts'
import FormulaPicker from '@/components/frame/FormulaPicker.vue'
import LongRows from '@/components/frame/LongRows.vue'
import MoreRows from '@/components/frame/MoreRows.vue'
import PantryBar from './PantryBar.vue'
import { t } from '@/messages'

const session = useSession()
const toasts = useToasts()
const stock = usePages(
  () => ['stock'],
  (at, offset) => settled(api.GET('/api/kitchens/{kitchen_id}/stock', { params: { path: at, query: { offset } } })),
)
const bakes = useAsk(
  () => ['bakes'],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/bakes', { params: { path: at } })),
)
const over = useAsk(
  () => ['bakes', 'over'],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/bakes', { params: { path: at, query: { over: true } } })),
)
const most = computed(() => Math.max(1, ...stock.items.value.map((s) => Math.max(s.on_hand_g, s.reserved_g))))
const today = localDay(new Date())
const soon = localDay(new Date(Date.now() + 7 * 86_400_000))
const formula = ref<number | null>(null)
const batches = ref('1')
const on = ref(today)
const unit = computed(() => weightUnit(session.units))

const counting = useDo(
  ({ row, grams }: { row: StockRow; grams: number }, at) =>
    settled(
      api.POST('/api/kitchens/{kitchen_id}/packs/{lot_id}/stock', {
        params: { path: { ...at, lot_id: row.id } },
        body: { kind: 'counted', grams },
      }),
    ),
  {
    then: (_, { row, grams }) => {
      toasts.show(t('pantry-stock-view-on-hand-4', { name: row.name, grams: inWeight(grams, session.units) }))
    },
  },
)
const onHand = (row: StockRow): string => weight(Math.round(row.on_hand_g), session.units)
function count(row: StockRow, text: string): void {
  const grams = gramsOf(Number(text.replace(',', '.')), session.units)
  if (!text.trim() || !Number.isFinite(grams) || text.trim() === onHand(row)) return
  void counting.run({ row, grams })
}

const planning = useDo(
  (formula_id: number, at) =>
    settled(
      api.POST('/api/kitchens/{kitchen_id}/bakes', {
        params: { path: at },
        body: { formula_id, batches: Number(batches.value.replace(',', '.')), on: on.value },
      }),
    ),
  {
    then: () => {
      toasts.show(t('pantry-stock-view-bake-planned-ingredients-reserved'))
    },
  },
)
const plan = (): void => {
  if (formula.value) void planning.run(formula.value)
}

const finishing = useDo(
  ({ bake, how }: { bake: PlannedBake; how: 'done' | 'cancel' }, at) => {
    const place = { params: { path: { ...at, bake_id: bake.id } } }
    return settled(
      how === 'done'
        ? api.POST('/api/kitchens/{kitchen_id}/bakes/{bake_id}/done', place)
        : api.POST('/api/kitchens/{kitchen_id}/bakes/{bake_id}/cancel', place),
    )
  },
  {
    then: (_, { bake, how }) => {
      toasts.show(
        how === 'done'
          ? t('pantry-stock-view-ingredients-deducted-from-stock', { name: bake.name })
          : t('pantry-stock-view-canceled-reserved-ingredients-are-availabl', { name: bake.name }),
      )
    },
  },
)
const finish = (bake: PlannedBake, how: 'done' | 'cancel'): void => {
  void finishing.run({ bake, how })
}
</script>

<template>
  <div class="page">
    <PantryBar :title="$t('pantry-stock-view-stock')" />
    <div class="two">
      <section :aria-label="$t('pantry-stock-view-on-hand')">
        <table>
          <thead>
            <tr>
              <th class="name">{{ $t('pantry-stock-view-earliest-use-by-first') }}</th>
              <th>{{ $t('pantry-stock-view-on-hand-2', { unit }) }}</th>
              <th class="drawn">
                <span class="visually-hidden">{{ $t('pantry-stock-view-chart-on-hand-and-reserved') }}</span>
              </th>
              <th>{{ $t('pantry-stock-view-reserved') }}</th>
              <th>{{ $t('pantry-stock-view-free') }}</th>
              <th>{{ $t('pantry-stock-view-use-by') }}</th>
            </tr>
          </thead>
          <tbody>
            <LongRows :items="stock.items.value" item-key="id" :item-height="34">
              <template #default="{ item: s, itemRef }">
                <tr :ref="itemRef">
                  <td class="name">
                    <router-link :to="`/pantry/packs/${s.id}`">{{ s.name }}</router-link>
                  </td>
                  <td>
                    <input
                      class="cell"
                      inputmode="decimal"
                      :value="onHand(s)"
                      :aria-label="
                        $t('pantry-stock-view-on-hand-3', {
                          name: s.name,
                          unit: unit === 'g' ? $t('pantry-stock-view-grams') : $t('pantry-stock-view-ounces'),
                        })
                      "
                      :readonly="!session.may('stock.edit')"
                      @change="count(s, ($event.target as HTMLInputElement).value)"
                    />
                  </td>
                  <td class="drawn">
                    <svg width="140" height="12" aria-hidden="true">
                      <rect x="0" y="2" :width="(140 * s.on_hand_g) / most" height="8" class="held" />
                      <rect x="0" y="2" :width="(140 * Math.min(s.reserved_g, s.on_hand_g)) / most" height="8" class="spoken" />
                    </svg>
                  </td>
                  <td>{{ s.reserved_g ? `${weight(s.reserved_g, session.units)} ${unit}` : '' }}</td>
                  <td>
                    <b>{{ weight(s.free_g, session.units) }}</b> {{ unit }}
                  </td>
                  <td :class="{ act: s.use_by && s.use_by < soon }">
                    {{ s.use_by ? day(s.use_by) : '' }}<span v-if="s.use_by && s.use_by < today"> {{ $t('pantry-stock-view-past') }}</span>
                  </td>
                </tr>
              </template>
            </LongRows>
          </tbody>
        </table>
        <p v-if="!stock.waiting.value && !stock.items.value.length" class="note">
          {{ $t('pantry-stock-view-nothing-on-hand-put-a-pack') }}
        </p>
        <MoreRows :left="stock.left.value" :busy="stock.busy.value" @more="stock.more" />
        <p v-if="stock.trouble.value" role="alert">
          {{ $t('pantry-stock-view-the-stock-could-not-be-loaded') }}
          <v-btn class="quiet-button" @click="stock.again()">{{ $t('pantry-stock-view-try-again') }}</v-btn>
        </p>
      </section>
      <section :aria-label="$t('pantry-stock-view-bakes')">
        <h3>{{ $t('pantry-stock-view-planned-bakes') }}</h3>
        <form v-if="session.may('stock.edit')" class="plan" @submit.prevent="plan">
          <FormulaPicker
            v-model="formula"
            class="field"
            :label="$t('pantry-stock-view-formula')"
            :placeholder="$t('pantry-stock-view-choose-a-formula')"
          />
          <label class="note"
            >{{ $t('pantry-stock-view-batches') }} <v-text-field v-model="batches" class="field few" inputmode="decimal"
          /></label>
          <label class="note">{{ $t('pantry-stock-view-on') }} <v-text-field v-model="on" class="field" type="date" /></label>
          <v-btn type="submit" class="act-button" :disabled="!formula">{{ $t('pantry-stock-view-plan') }}</v-btn>
        </form>
        <article v-for="b in bakes.answer.value" :key="b.id" class="bake">
          <p>
            <b>{{ b.name }}</b>{{ ' ' }}<span class="note">{{ b.batches }} × · {{ day(b.on) }}</span>
          </p>
          <ul>
            <li v-for="(p, i) in b.picks" :key="i">{{ weight(p.grams, session.units) }} {{ unit }} {{ p.name }}</li>
            <li v-for="s in b.shortages" :key="s.line" class="act">
              {{
                $t('pantry-stock-view-missing-from-stock', {
                  grams: weight(s.grams, session.units),
                  unit,
                  split: s.name.split(',')[0]?.toLowerCase(),
                })
              }}
            </li>
          </ul>
          <div v-if="session.may('stock.edit')" class="actions">
            <v-btn class="act-button" @click="finish(b, 'done')">{{ $t('pantry-stock-view-mark-as-baked-and-deduct-stock') }}</v-btn>
            <v-btn class="quiet-button" @click="finish(b, 'cancel')">{{ $t('pantry-stock-view-cancel') }}</v-btn>
            <router-link v-if="b.formula_id" class="note" :to="`/formula/${b.formula_id}`">{{
              $t('pantry-stock-view-the-formula')
            }}</router-link>
          </div>
        </article>
        <p v-if="bakes.answer.value && !bakes.answer.value.length" class="note">
          {{ $t('pantry-stock-view-no-planned-bakes-a-planned-bake') }}
        </p>
        <template v-if="over.answer.value?.length">
          <h3>{{ $t('pantry-stock-view-over') }}</h3>
          <p v-for="b in over.answer.value.slice(0, 12)" :key="b.id" class="note">
            {{ b.name }}, {{ b.batches }} ×, {{ day(b.on) }}: {{ b.state }}
          </p>
        </template>
      </section>
    </div>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.7fr) minmax(320px, 1fr);
  gap: 36px;
  flex: 1;
  min-height: 0;
  padding: 4px 24px 0;
}

section {
  position: relative;
  min-height: 0;
  padding-bottom: 40px;
  overflow-y: auto;
  scrollbar-width: thin;
}

table {
  width: 100%;
  border-collapse: collapse;
  font-size: 13px;
}

th {
  position: sticky;
  top: 0;
  padding: 6px;
  background: var(--ground);
  color: var(--ink-2);
  font-size: 12px;
  font-weight: 400;
  text-align: right;
}

td {
  padding: 4px 6px;
  border-top: 1px solid var(--rule);
  text-align: right;
  white-space: nowrap;
}

.name,
.drawn {
  text-align: left;
}

.name a {
  font-weight: 600;
  text-decoration: none;
}

.cell {
  width: 74px;
  height: 25px;
  padding: 0 6px;
  border: 1px solid transparent;
  border-radius: 6px;
  background: transparent;
  font-weight: 700;
  text-align: right;
}

.cell:hover:not([readonly]),
.cell:focus {
  border-color: var(--rule-strong);
}

.held {
  fill: var(--role-base);
}

.spoken {
  fill: url('#hatch-binder');
}

h3 {
  margin: 0 0 8px;
  font-size: 16px;
}

.bake + h3 {
  margin-top: 22px;
}

.plan {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
  margin-bottom: 12px;
}

.plan label {
  display: flex;
  align-items: center;
  gap: 6px;
}

.plan .field {
  color: var(--ink);
}

.plan .few {
  width: 56px;
}

.plan [type='date'] {
  width: 150px;
}

.bake {
  padding: 10px 0;
  border-top: 1px solid var(--rule);
}

.bake p {
  margin: 0;
}

.bake ul {
  margin: 4px 0 8px;
  padding: 0;
  list-style: none;
  columns: 2;
  font-size: 12px;
}

.bake li {
  break-inside: avoid;
  padding: 1px 0;
}

.actions {
  display: flex;
  align-items: center;
  gap: 10px;
}

@media (max-width: 700px) {
  .two {
    display: block;
    height: auto;
    overflow: visible;
  }

  .drawn {
    display: none;
  }
}
</style>
