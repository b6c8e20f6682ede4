<script setup lang="ts">
/** One bracket: quiet inside its window; outside it says by how much and offers what one line can do. */
import { computed, ref, watch } from 'vue'
import type { Bracket } from '@/api/types'
import type { Ends } from '@/composables/useReach'
import { withTarget } from '@/domain/edits'
import { figure, percent, range } from '@/domain/format'
import { isOutside, willFail } from '@/domain/states'
import { useSettling } from '@/composables/useSettling'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import BracketRuler from './BracketRuler.vue'
import CheaperHints from './CheaperHints.vue'
import { t } from '@/messages'

const props = defineProps<{ bracket: Bracket; open: boolean; suffix?: string; ends?: Ends | null }>()
const emit = defineEmits<{ toggle: [] }>()
const bench = useBench()
const session = useSession()
const meaning = computed(() => session.words?.meanings.find((m) => m.key === props.bracket.key))
const settling = useSettling()
const outside = computed(() => willFail(props.bracket.state))
const about = computed(() => isOutside(props.bracket.state) && !outside.value)
const sources = {
  target: t('frame-bracket-panel-your-target'),
  form: t('frame-bracket-panel-usual-range-for-this-shape'),
  matrix: t('frame-bracket-panel-usual-range-of-such-a-dough'),
  none: t('frame-bracket-panel-no-target'),
} as const
const typed = ref({ low: '', high: '' })
/** The side that is being typed: an answer that comes meanwhile leaves it alone. */
const typing = ref<'' | 'low' | 'high'>('')
watch(
  () => [props.bracket.window, props.open],
  () => {
    const { low, high } = props.bracket.window
    if (typing.value !== 'low') typed.value.low = low == null ? '' : String(tidy(low))
    if (typing.value !== 'high') typed.value.high = high == null ? '' : String(tidy(high))
  },
  { immediate: true },
)

function tidy(value: number): number {
  return Number(value.toFixed(Math.max(props.bracket.decimals, 2)))
}

function pullWindow(side: 'low' | 'high', value: number, done: boolean): void {
  const window = { low: props.bracket.window.low ?? null, high: props.bracket.window.high ?? null, [side]: value }
  if (window.low !== null && window.high !== null && window.low > window.high) return
  bench.pull((doc) => withTarget(doc, props.bracket.key, window))
  if (done) bench.endPull()
}

/** A field left empty leaves that side open. The core refuses crossed bounds and says so. */
function setWindow(): void {
  const read = (text: string): number | null => (text.trim() === '' ? null : Number(text.replace(',', '.')))
  const low = read(typed.value.low)
  const high = read(typed.value.high)
  if (Number.isNaN(low ?? 0) || Number.isNaN(high ?? 0)) return
  bench.edit((doc) => withTarget(doc, props.bracket.key, { low, high }))
}

/** A question mark on the figure opens what it means; elsewhere it opens the list of keys. */
function explain(event: KeyboardEvent): void {
  if (event.key !== '?' || event.target instanceof HTMLInputElement) return
  event.stopPropagation()
  event.preventDefault()
  emit('toggle')
}
</script>

<template>
  <article
    class="bracket"
    :class="{ outside, 'at-limit': about, open }"
    :data-bracket="bracket.key"
    :data-state="bracket.state"
    @keydown="explain"
  >
    <v-btn class="head" :aria-expanded="open" @click="$emit('toggle')">
      <span class="label">{{ bracket.label }}</span>
      <span class="value"
        ><b class="figure">{{ bracket.state === 'undefined' ? '–' : figure(bracket.estimate.value, bracket.decimals) }}</b>
        <span class="note unit">{{ bracket.unit }}{{ suffix ? ` · ${suffix}` : '' }}</span></span
      >
    </v-btn>
    <BracketRuler :bracket="bracket" :editable="bench.mayEdit" :ends="ends ?? null" @window="pullWindow" />
    <p class="line note">
      <span :class="{ act: outside, about }">{{ bracket.note }}</span>
      <template v-if="isOutside(bracket.state) && bench.mayEdit">
        · <v-btn class="remedy" @click="settling.open()">{{ $t('frame-bracket-panel-balance-formula') }}</v-btn></template
      >
    </p>
    <div v-if="open" class="more">
      <template v-if="meaning">
        <p class="meaning">{{ meaning.meaning }}</p>
        <p class="note">
          {{ $t('frame-bracket-panel-higher-with-lower-with', { raised_by: meaning.raised_by, lowered_by: meaning.lowered_by }) }}
        </p>
      </template>
      <p class="note">
        {{
          $t('frame-bracket-panel-likely-range-9-in-10', {
            bracket: range(bracket.estimate.low, bracket.estimate.high, bracket.decimals),
            unit: bracket.unit,
            confidence: bracket.confidence,
          })
        }}
      </p>
      <table v-if="bracket.contributions.length" class="sources">
        <thead>
          <tr>
            <th>{{ $t('frame-bracket-panel-sources-of-this-value') }}</th>
            <th>{{ bracket.word_share }}</th>
            <th v-if="bracket.word_against">{{ bracket.word_against }}</th>
            <th>{{ $t('frame-bracket-panel-uncertainty') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="c in bracket.contributions.slice(0, 8)"
            :key="c.line"
            :class="{ on: c.line === bench.selected }"
            @click="bench.selected = c.line"
          >
            <td>{{ c.name }}</td>
            <td>{{ c.share ? percent(c.share) : '' }}</td>
            <td v-if="bracket.word_against">{{ c.against ? percent(c.against) : '' }}</td>
            <td class="note">{{ percent(c.spread_share) }}</td>
          </tr>
        </tbody>
      </table>
      <CheaperHints v-if="bracket.key === 'cost'" />
      <form class="target" @submit.prevent="setWindow">
        <label class="note"
          >{{ $t('frame-bracket-panel-from') }}
          <v-text-field
            v-model="typed.low"
            class="field"
            inputmode="decimal"
            :placeholder="$t('frame-bracket-panel-open')"
            :readonly="!bench.mayEdit"
            @focus="typing = 'low'"
            @blur="typing = ''"
            @change="setWindow"
        /></label>
        <label class="note"
          >{{ $t('frame-bracket-panel-to') }}
          <v-text-field
            v-model="typed.high"
            class="field"
            inputmode="decimal"
            :placeholder="$t('frame-bracket-panel-open')"
            :readonly="!bench.mayEdit"
            @focus="typing = 'high'"
            @blur="typing = ''"
            @change="setWindow"
        /></label>
        <v-btn
          v-if="bracket.window_source === 'target' && bench.mayEdit"
          class="remedy"
          @click="bench.edit((doc) => withTarget(doc, bracket.key, null))"
          >{{ $t('frame-bracket-panel-usual-range') }}</v-btn
        >
      </form>
      <p class="note">{{ sources[bracket.window_source] }}</p>
      <p v-if="ends" class="note">
        {{
          $t('frame-bracket-panel-if-you-change-nothing-else-this', {
            low: figure(ends.low, bracket.decimals),
            high: figure(ends.high, bracket.decimals),
          })
        }}
      </p>
    </div>
  </article>
</template>

<style scoped>
.bracket {
  padding: 9px 0 8px;
  border-bottom: 1px solid var(--rule);
}

.head {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  width: 100%;
  text-align: left;
}

.label {
  font-size: 14px;
}

.unit {
  margin-left: 6px;
}

.value b {
  font-size: 18px;
}

.outside .value b {
  color: var(--act);
}

.at-limit .value b {
  color: var(--about);
}

.line {
  min-height: 17px;
  margin: 1px 0 0;
  line-height: 1.4;
}

.remedy {
  color: var(--act);
  font-size: 12px;
  font-weight: 650;
  border-bottom: 1.5px solid var(--act);
  line-height: 1.2;
}

.more {
  padding-top: 6px;
}

.more p {
  margin: 4px 0;
}

.sources {
  width: 100%;
  border-collapse: collapse;
  font-size: 12px;
}

th {
  font-weight: 400;
  color: var(--ink-2);
  text-align: right;
}

th + th,
td + td {
  padding-left: 10px;
}

th:first-child,
td:first-child {
  text-align: left;
}

td {
  padding: 2px 0;
  text-align: right;
}

tbody tr {
  cursor: pointer;
}

tbody tr:hover,
tr.on {
  background: var(--select);
}

.target {
  display: flex;
  align-items: center;
  gap: 10px;
  margin-top: 8px;
}

.target label {
  display: flex;
  align-items: center;
  gap: 5px;
}

.target .field {
  width: 62px;
  --field-height: 28px;
  color: var(--ink);
}
</style>
