<script setup lang="ts">
/**
 * Which formulas lie in this one, and how many kinds of piece come out of its dough? The eye falls on a part that has a newer
 * version, then on what each sort holds; a tick gives a line to a sort, and every figure follows.
 */
import { computed, ref } from 'vue'
import { api, settled } from '@/api/client'
import type { FormulaDocument, LineDocument } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { usePanels } from '@/composables/usePanels'
import { withLine, withLines } from '@/domain/edits'
import { figure, weight, weightUnit } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

const bench = useBench()
const session = useSession()
const panels = usePanels()
const shelf = useAsk(
  () => [t('formula-parts-panel-shelf-for-parts')],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/formulas', { params: { path: at, query: { search: '' } } })),
)
const others = computed(() => (shelf.answer.value?.items ?? []).filter((f) => f.id !== bench.formulaId))
const parts = computed(() => bench.lines.filter((line) => line.part))
const newer = useAsk(
  () => [t('formula-parts-panel-newer-parts'), bench.document],
  (at) => settled(api.POST('/api/kitchens/{kitchen_id}/newer-parts', { params: { path: at }, body: bench.document as FormulaDocument })),
  { keep: true, when: () => parts.value.length > 0 },
)
const newerOf = (id: string) => (newer.answer.value ?? []).find((one) => one.line === id)
const ROLES = ['filling', 'topping', 'base', 'flavour', 'wash', 'dusting']
const chosen = ref(0)
const role = ref('filling')
const grams = ref<number | null>(null)
const taking = useDo(
  (id: number, at) =>
    settled(
      api.GET('/api/kitchens/{kitchen_id}/formulas/{formula_id}/part', {
        params: { path: { ...at, formula_id: id }, query: { into: bench.formulaId } },
      }),
    ),
  {
    here: true,
    then: (taken) => {
      const whole = grams.value ?? taken.grams
      bench.edit((doc) =>
        withLines(doc, [
          { id: 'part', ingredient: 'part', grams: whole, entered: `${whole} g`, role: role.value, part: taken.part } as LineDocument,
        ]),
      )
      grams.value = null
      chosen.value = 0
    },
  },
)
const setLoss = (id: string, text: string): void => {
  const line = bench.lines.find((own) => own.id === id)
  if (line?.part)
    bench.edit((doc) => withLine(doc, id, { part: { ...line.part, loss_percent: Number(text) || 0 } as LineDocument['part'] }))
}

type Sort = NonNullable<FormulaDocument['sorts']>[number]
const sorts = computed<Sort[]>(() => bench.document?.sorts ?? [])
const pieces = computed(() => bench.document?.form.pieces ?? 1)
const set = (next: Sort[]): void => bench.edit((doc) => ({ ...doc, sorts: next }))
const change = (n: number, over: Partial<Sort>): void => set(sorts.value.map((sort, i) => (i === n ? { ...sort, ...over } : sort)))
function begin(): void {
  const half = Math.ceil(pieces.value / 2)
  set([
    { name: 'one', pieces: half, lines: [] },
    { name: 'other', pieces: Math.max(pieces.value - half, 1), lines: [] },
  ])
}
function more(): void {
  const last = sorts.value.at(-1)
  if (!last || last.pieces < 2) return
  set([
    ...sorts.value.slice(0, -1),
    { ...last, pieces: last.pieces - 1 },
    { name: t('formula-parts-panel-sort-2', { sorts: sorts.value.length + 1 }), pieces: 1, lines: [] },
  ])
}
const give = (n: number, line: string, on: boolean | null): void =>
  set(
    sorts.value.map((sort, i) => ({
      ...sort,
      lines: i === n && on ? [...(sort.lines ?? []), line] : (sort.lines ?? []).filter((own) => own !== line),
    })),
  )
const nameOf = (id: string): string => bench.analysis?.lines.find((line) => line.id === id)?.name ?? id
const told = computed(() => bench.analysis?.sorts ?? [])
const valueOf = (event: Event): string => (event.target as HTMLInputElement).value
</script>

<template>
  <section class="plain-fields" :aria-label="$t('formula-parts-panel-sub-recipes-and-varieties')">
    <div class="panel-head">
      <h3>{{ $t('formula-parts-panel-sub-recipes-and-varieties') }}</h3>
      <v-btn class="note" @click="panels.open.value = 'lines'">{{ $t('formula-parts-panel-back-to-ingredients') }}</v-btn>
    </div>
    <h4>{{ $t('formula-parts-panel-sub-recipes') }}</h4>
    <p v-if="!parts.length" class="note">{{ $t('formula-parts-panel-none-yet-you-can-add-another') }}</p>
    <ul v-else>
      <li v-for="line in parts" :key="line.id">
        <b>{{ line.part?.formula.name }}</b><span class="note">{{
          line.part?.number ? ` v${line.part.number}` : ' ' + $t('formula-parts-panel-draft')
        }}</span>
        {{ weight(line.grams ?? 0, session.units) }} {{ weightUnit(session.units) }}
        <label class="note"
          >{{ $t('formula-parts-panel-cooking-loss') }}
          <input
            type="number"
            min="0"
            max="95"
            :value="line.part?.loss_percent ?? 0"
            :disabled="!bench.mayEdit"
            :aria-label="$t('formula-parts-panel-cooking-loss-of-percent', { name: String(line.part?.formula.name) })"
            @change="setLoss(line.id, valueOf($event))"
          />
          %</label
        >
        <router-link
          v-if="line.part?.key?.startsWith('formula-')"
          class="quiet-button tiny-button"
          :to="`/formula/${line.part.key.slice(8)}`"
          >{{ $t('formula-parts-panel-open-formula') }}</router-link
        >
        <p v-if="newerOf(line.id)" class="about">
          {{
            newerOf(line.id)?.newest
              ? $t('formula-parts-panel-version-is-available', { newest: newerOf(line.id)?.newest })
              : $t('formula-parts-panel-this-formula-has-changed')
          }}:
          {{ newerOf(line.id)?.changes.join(' · ') }}
          <v-btn
            v-if="bench.mayEdit"
            class="quiet-button tiny-button"
            @click="bench.edit((doc) => withLine(doc, line.id, { part: newerOf(line.id)?.part as LineDocument['part'] }))"
            >{{ $t('formula-parts-panel-update') }}</v-btn
          >
        </p>
      </li>
    </ul>
    <p v-if="bench.mayEdit" class="add">
      <select v-model.number="chosen" :aria-label="$t('formula-parts-panel-formula-to-add')">
        <option :value="0">{{ $t('formula-parts-panel-add-a-formula') }}</option>
        <option v-for="f in others" :key="f.id" :value="f.id">{{ f.name }}</option>
      </select>
      {{ $t('formula-parts-panel-as') }}
      <select v-model="role" :aria-label="$t('formula-parts-panel-role')">
        <option v-for="r in ROLES" :key="r" :value="r">{{ r }}</option>
      </select>
      <input
        v-model.number="grams"
        type="number"
        min="1"
        :placeholder="$t('formula-parts-panel-whole-batch')"
        :aria-label="$t('formula-parts-panel-grams-to-use')"
      />
      g
      <v-btn class="act-button" :disabled="!chosen || taking.busy.value" @click="taking.run(chosen)">{{
        $t('formula-parts-panel-add-sub-recipe')
      }}</v-btn>
      <span v-if="taking.trouble.value" class="act" role="alert">{{ taking.trouble.value }}</span>
    </p>

    <h4>{{ $t('formula-parts-panel-varieties-from-this-dough') }}</h4>
    <p v-if="!sorts.length" class="note">
      {{ $t('formula-parts-panel-one-variety-only') }}
      <v-btn v-if="bench.mayEdit && pieces > 1" class="quiet-button tiny-button" @click="begin">{{
        $t('formula-parts-panel-split-into-two-varieties')
      }}</v-btn>
    </p>
    <template v-else>
      <p v-if="bench.analysis?.sorts_problem" class="act" role="alert">{{ bench.analysis.sorts_problem }}</p>
      <table>
        <thead>
          <tr>
            <th>{{ $t('formula-parts-panel-sort') }}</th>
            <th>{{ $t('formula-parts-panel-pieces') }}</th>
            <th>{{ $t('formula-parts-panel-per-piece') }}</th>
            <th>{{ $t('formula-parts-panel-net-carbs') }}</th>
            <th>{{ $t('formula-parts-panel-protein') }}</th>
            <th v-if="told[0]?.eaters.length">{{ $t('formula-parts-panel-pieces-per-day') }}</th>
            <th>{{ $t('formula-parts-panel-allergens') }}</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="(sort, n) in sorts" :key="n">
            <td>
              <input
                :value="sort.name"
                :disabled="!bench.mayEdit"
                maxlength="80"
                :aria-label="$t('formula-parts-panel-variety-name')"
                @change="change(n, { name: valueOf($event) })"
              />
            </td>
            <td>
              <input
                type="number"
                min="1"
                :value="sort.pieces"
                :disabled="!bench.mayEdit"
                :aria-label="$t('formula-parts-panel-pieces-of', { name: sort.name })"
                @change="change(n, { pieces: Math.max(Math.round(Number(valueOf($event))) || 1, 1) })"
              />
            </td>
            <template v-if="told[n]">
              <td>{{ weight(told[n]?.piece_g ?? 0, session.units) }} {{ weightUnit(session.units) }}</td>
              <td>{{ figure(told[n]?.net_carbs ?? 0, 1) }} g</td>
              <td>{{ figure(told[n]?.protein ?? 0, 1) }} g</td>
              <td v-if="told[0]?.eaters.length">
                <span v-for="e in told[n]?.eaters" :key="e.eater" class="fits" :title="e.text"
                  >{{ e.eater }}: {{ e.pieces >= 99 ? $t('formula-parts-panel-any') : e.pieces }}</span
                >
              </td>
              <td :class="{ about: told[n]?.cautions_differ }">{{ told[n]?.allergens.join(', ') }}</td>
            </template>
            <td v-else :colspan="told[0]?.eaters.length ? 5 : 4" />
            <td>
              <v-btn
                v-if="bench.mayEdit"
                class="quiet-button tiny-button"
                :aria-label="$t('formula-parts-panel-remove', { name: sort.name })"
                @click="set(sorts.length > 2 ? sorts.filter((_, i) => i !== n) : [])"
                >×</v-btn
              >
            </td>
          </tr>
        </tbody>
      </table>
      <h4>{{ $t('formula-parts-panel-which-variety-uses-each-ingredient') }}</h4>
      <table class="whose">
        <tbody>
          <tr v-for="line in bench.lines" :key="line.id">
            <td>{{ nameOf(line.id) }}</td>
            <td v-for="(sort, n) in sorts" :key="n">
              <v-checkbox-btn
                :label="sort.name"
                :aria-label="$t('formula-parts-panel-only-in', { id: nameOf(line.id), name: sort.name })"
                :model-value="(sort.lines ?? []).includes(line.id)"
                :disabled="!bench.mayEdit"
                @update:model-value="(on: boolean | null) => give(n, line.id, on)"
              />
            </td>
            <td class="note">{{ sorts.some((s) => (s.lines ?? []).includes(line.id)) ? '' : $t('formula-parts-panel-in-all') }}</td>
          </tr>
        </tbody>
      </table>
      <v-btn v-if="bench.mayEdit && sorts.length < 12" class="quiet-button" @click="more">{{
        $t('formula-parts-panel-add-variety')
      }}</v-btn>
    </template>
  </section>
</template>

<style scoped>
h4 {
  margin: 14px 0 4px;
  font-size: 15px;
}

ul {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}

.add {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}

input[type='number'] {
  width: 78px;
}

a {
  text-decoration: none;
}

table {
  border-collapse: collapse;
}

th {
  padding: 2px 8px;
  color: var(--ink-2);
  font-size: 12px;
  font-weight: 400;
  text-align: left;
}

td {
  padding: 3px 8px;
  border-top: 1px solid var(--rule);
}

.fits {
  display: block;
  font-size: 13px;
}

.whose td {
  padding: 0 8px;
}

.about {
  color: var(--about);
}
</style>
