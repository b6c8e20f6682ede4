<script setup lang="ts">
/**
 * How the dough handles: consistency over resting minutes or over degrees, with the classes named on the axis,
 * the uncertain range as a soft band, and marks for the moment of shaping. The sentence says the same in words.
 */
import { computed, ref } from 'vue'
import type { FormulaDocument } from '@/api/types'
import { areaPath, linear, linePath } from '@/domain/chart'
import { degrees, percent, temperature, temperatureUnit } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

const WIDTH = 340
const HEIGHT = 200
const LEFT = 66
const FOOT = 22
const bench = useBench()
const UNSAID = { temperature_c: null, cheese: '', work: '', rest_min: null, rest_in: '' } as const
const mix = computed<Mix>(() => bench.document?.mix ?? {})
const warmth = computed(() => mix.value.temperature_c ?? forecast.value?.usual_c ?? 20)

type Mix = Partial<NonNullable<FormulaDocument['mix']>>
function setMix(change: Mix, pulling = false): void {
  const edit = pulling ? bench.pull : bench.edit
  edit((doc) => ({ ...doc, mix: { ...UNSAID, ...doc.mix, ...change } }))
}
const restSaid = (value: number): string =>
  value >= 120 ? `${+(value / 60).toFixed(1)} h` : t('formula-handling-curve-min-2', { value: +value.toFixed(1) })
const celsius = (event: Event): number => Number((event.target as HTMLInputElement).value)
const session = useSession()
const over = ref<'minutes' | 'degrees'>('minutes')
const forecast = computed(() => bench.analysis?.handling ?? null)
const points = computed(() => (over.value === 'minutes' ? forecast.value?.minutes : forecast.value?.degrees) ?? [])
const at = (p: { minutes: number; temperature_c: number }): number => (over.value === 'minutes' ? p.minutes : p.temperature_c)
const range = computed(() => (over.value === 'minutes' ? session.limits.handling_minutes : session.limits.handling_degrees_c))
const x = computed(() => linear([range.value.low, range.value.high], [LEFT, WIDTH - 8]))
const y = computed(() => linear([session.limits.handling_axis.low, session.limits.handling_axis.high], [HEIGHT - FOOT, 6], true))
const line = computed(() => linePath(points.value.map((p) => [x.value(at(p)), y.value(p.consistency)])))
const band = computed(() => areaPath(points.value.map((p) => [x.value(at(p)), y.value(p.low), y.value(p.high)])))
const bands = computed(() => (forecast.value?.bands ?? []).map((b) => ({ ...b, top: y.value(b.high), bottom: y.value(b.low) })))
const wanted = computed(() => {
  const all = forecast.value?.bands ?? []
  const from = all.find((b) => b.class_name === forecast.value?.target_low)
  const to = all.find((b) => b.class_name === forecast.value?.target_high)
  return from && to ? { top: y.value(to.high), bottom: y.value(from.low) } : null
})
const marks = computed(() => {
  const f = forecast.value
  if (!f) return []
  if (over.value === 'degrees')
    return f.brittle_below_c == null ? [] : [{ at: f.brittle_below_c, word: t('formula-handling-curve-cracks-below') }]
  const found = [
    { at: f.knead_min, word: 'knead' },
    { at: f.ready_min, word: 'ready' },
    { at: f.rest_min, word: 'shape' },
    { at: f.closes_min, word: t('formula-handling-curve-too-stiff') },
  ]
  const known = found.filter(
    (m): m is { at: number; word: string } => m.at != null && (m.at > 0.2 || m.word === 'shape') && m.at <= range.value.high,
  )
  // One mark for what happens together.
  return known.filter((m, i) => m.word !== 'knead' || !known.some((o, j) => j !== i && Math.abs(o.at - m.at) < 0.3))
})
const places = computed(() => (session.words?.rest_places ?? []).map((p) => ({ value: p.id, title: p.name })))
/** "90", "1:30" or "12 h", in minutes; empty is as the form usually has it. */
function setRest(typed: string): void {
  const [, whole = '', part] = /^\s*(\d+(?:[.,]\d+)?)(?:\s*:\s*(\d+))?/.exec(typed) ?? []
  const value = Number(whole.replace(',', '.'))
  const minutes = part ? 60 * value + Number(part) : /h/i.test(typed) ? 60 * value : value
  setMix({ rest_min: whole === '' ? null : Math.min(minutes, session.limits.rest_most_min) })
}
const ticks = computed(() => x.value.ticks(5))
const told = computed(() => {
  if (!forecast.value) return ''
  const { low, high } = forecast.value.at_shaping
  return t('formula-handling-curve-likely-consistency-when-shaped-9-in', {
    forecast: forecast.value.text,
    low: low.toFixed(1),
    high: high.toFixed(1),
  })
})
</script>

<template>
  <section v-if="forecast" class="handling" :aria-label="$t('formula-handling-curve-dough-handling')">
    <div class="head">
      <h3>{{ $t('formula-handling-curve-dough-handling') }}</h3>
      <span class="note" role="radiogroup" :aria-label="$t('formula-handling-curve-over-time-or-temperature')">
        <v-btn
          v-for="o in ['minutes', 'degrees'] as const"
          :key="o"
          role="radio"
          :aria-checked="over === o"
          :class="{ on: over === o }"
          @click="over = o"
        >
          {{
            o === 'minutes'
              ? $t('formula-handling-curve-over-minutes')
              : $t('formula-handling-curve-over', { unit: temperatureUnit(session.units) })
          }}
        </v-btn>
      </span>
    </div>
    <p :class="{ act: !forecast.fits }">{{ forecast.text }}</p>
    <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="img" :aria-label="told">
      <rect v-if="wanted" :x="LEFT" :y="wanted.top" :width="WIDTH - LEFT - 8" :height="wanted.bottom - wanted.top" class="wanted" />
      <g v-for="b in bands" :key="b.class_name">
        <line :x1="LEFT" :x2="WIDTH - 8" :y1="b.bottom" :y2="b.bottom" class="rule" />
        <text :x="LEFT - 6" :y="(b.top + b.bottom) / 2 + 4" text-anchor="end">{{ b.class_name }}</text>
      </g>
      <path :d="band" class="smear" />
      <path :d="line" class="line" />
      <g v-for="(m, i) in marks" :key="m.word">
        <line :x1="x(m.at)" :x2="x(m.at)" y1="6" :y2="HEIGHT - FOOT" class="mark" />
        <text :x="x(m.at) + 3" :y="16 + 12 * i">{{ m.word }}</text>
      </g>
      <text
        v-for="tick in ticks"
        :key="tick"
        :x="x(tick)"
        :y="HEIGHT - 6"
        :text-anchor="tick === ticks.at(-1) ? 'end' : 'middle'"
        class="tick"
      >
        {{ over === 'minutes' ? tick : Math.round(degrees(tick, session.units))
        }}{{
          tick === ticks.at(-1) ? (over === 'minutes' ? ' ' + $t('formula-handling-curve-min') : ` ${temperatureUnit(session.units)}`) : ''
        }}
      </text>
    </svg>
    <div class="mix">
      <label class="note"
        >{{ $t('formula-handling-curve-mixed-at') }}
        <input
          type="range"
          min="5"
          max="70"
          step="1"
          :value="warmth"
          :disabled="!bench.mayEdit"
          :aria-valuetext="temperature(warmth, session.units)"
          :aria-label="$t('formula-handling-curve-temperature-after-mixing')"
          @input="setMix({ temperature_c: celsius($event) }, true)"
          @change="bench.endPull()"
        />{{ ' ' }}<b>{{ temperature(forecast.temperature_c, session.units) }}</b></label
      >
      <v-btn v-if="mix.temperature_c != null && bench.mayEdit" class="note" @click="setMix({ temperature_c: null })">{{
        $t('formula-handling-curve-as-usual')
      }}</v-btn>
      <v-btn
        v-if="forecast.has_cheese"
        class="quiet-button"
        :disabled="!bench.mayEdit"
        :title="$t('formula-handling-curve-melt-the-cheese-first-or-stir')"
        @click="setMix({ cheese: forecast.melted ? 'cold' : 'melted' })"
        >{{
          $t('formula-handling-curve-cheese', {
            melted: forecast.melted ? $t('formula-handling-curve-melted') : $t('formula-handling-curve-cold'),
          })
        }}
      </v-btn>
      <v-btn
        class="quiet-button"
        :disabled="!bench.mayEdit"
        :title="$t('formula-handling-curve-knead-or-press-it-or-only')"
        @click="setMix({ work: forecast.pressed ? 'stirred' : 'pressed' })"
      >
        {{ forecast.pressed ? $t('formula-handling-curve-press-or-knead') : $t('formula-handling-curve-stirred') }}
      </v-btn>
    </div>
    <div class="mix">
      <label class="note"
        >{{ $t('formula-handling-curve-rests') }}
        <v-text-field
          class="rest"
          inputmode="decimal"
          :model-value="mix.rest_min == null ? '' : restSaid(mix.rest_min)"
          :placeholder="restSaid(forecast.rest_min)"
          :disabled="!bench.mayEdit"
          :aria-label="$t('formula-handling-curve-rest-before-shaping-minutes-or-hours')"
          @change="setRest(($event.target as HTMLInputElement).value)"
      /></label>
      <v-select
        class="place"
        :model-value="mix.rest_in || 'bench'"
        :items="places"
        :disabled="!bench.mayEdit"
        :aria-label="$t('formula-handling-curve-where-it-rests')"
        @update:model-value="setMix({ rest_in: $event })"
      />
      <span v-if="mix.rest_in && mix.rest_in !== 'bench'" class="note">{{
        $t('formula-handling-curve-shaped-at', { shaped_c: temperature(forecast.shaped_c, session.units) })
      }}</span>
    </div>
    <p class="note">
      {{
        forecast.probabilities
          .filter((s) => s.probability >= 0.04)
          .map((s) => `${s.class_name} ${percent(s.probability)}`)
          .join(' · ')
      }}<span v-if="forecast.crumbly >= 0.04">
        {{ $t('formula-handling-curve-chance-of-crumbling', { crumbly: percent(forecast.crumbly) }) }}</span
      >. {{ bench.analysis?.basis.handling }}<span v-if="forecast.learned"> · {{ forecast.learned }}</span>
    </p>
  </section>
  <p v-else-if="bench.analysis" class="note">
    {{
      $t('formula-handling-curve-how-it-handles', {
        handling: bench.analysis.basis.handling.charAt(0).toLowerCase() + bench.analysis.basis.handling.slice(1),
      })
    }}
  </p>
</template>

<style scoped>
.handling {
  margin-bottom: 14px;
}

.head {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}

h3 {
  font-size: 16px;
}

.head button {
  margin-left: 10px;
  padding-bottom: 1px;
}

.head .on {
  border-bottom: 2px solid var(--act);
  color: var(--ink);
}

.mix {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}

.mix label {
  display: flex;
  align-items: center;
  gap: 6px;
}

.mix b {
  color: var(--ink);
}

.mix input[type='range'] {
  width: 110px;
  accent-color: var(--act);
}

.mix .rest {
  flex: none;
  width: 82px;
}

.place {
  flex: none;
  width: 152px;
}

.mix .quiet-button {
  min-height: 26px;
  padding: 1px 9px;
  font-size: 12px;
}

p {
  margin: 2px 0 4px;
}

svg {
  display: block;
  width: 100%;
  max-width: 420px;
}

.wanted {
  fill: var(--in-soft);
}

.rule {
  stroke: var(--rule);
}

.smear {
  fill: var(--smear);
  opacity: 0.55;
}

.line {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}

.mark {
  stroke: var(--act);
  stroke-dasharray: 3 3;
}

text {
  fill: var(--ink);
  font-size: 12px;
}

.tick {
  fill: var(--ink-2);
}
</style>
