<script setup lang="ts">
/** The map of temperature and thickness: what a bake of so many minutes comes to. A press takes that place to the oven. */
import { computed, ref, watch } from 'vue'
import type { BakeForecast } from '@/api/types'
import JobProgress from '@/components/frame/JobProgress.vue'
import { useJob } from '@/composables/useJob'
import { withBake, withSize } from '@/domain/edits'
import { dial, dialDegrees, length, lengthUnit, minutes as said, temperatureUnit } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

const props = defineProps<{ formulaId: number; minutes: number | null; forecast: BakeForecast }>()
const bench = useBench()
const session = useSession()
const wanted = ref('')
const { job, underWay, trouble, start: ask, follow, stop } = useJob()
const words: Record<string, string> = { raw: 'raw', pale: 'pale', done: 'done', dry: t('oven-oven-map-view-dry-or-dark'), burnt: 'burnt' }
const CELL = 15
const result = computed(() => job.value?.map ?? null)

watch(
  () => props.formulaId,
  () => {
    follow(null)
  },
)

function start(): void {
  const time = Number(wanted.value.replace(',', '.')) || props.minutes
  if (bench.document && time) void ask({ kind: 'oven-map', document: bench.document, minutes: Math.round(time * 2) / 2 })
}
function take(row: number, column: number): void {
  const [t, mm] = [result.value?.oven_c[column], result.value?.thickness_mm[row]]
  if (t === undefined || mm === undefined || !bench.mayEdit) return
  bench.edit((doc) => withSize(withBake(doc, { oven_c: t }), { held: 'thickness', thickness_mm: mm }))
}
/** The square of the bake as it stands on the bench. */
const nearest = (axis: readonly number[], value: number): number =>
  axis.reduce((best, v, i) => (Math.abs(v - value) < Math.abs((axis[best] ?? 0) - value) ? i : best), 0)
const own = computed(() => {
  const [r, mm] = [result.value, bench.analysis?.texture?.thickness_mm]
  if (!r || mm === undefined) return null
  const [column, row] = [nearest(r.oven_c, props.forecast.oven_c), nearest(r.thickness_mm, mm)]
  return { x: (column + 0.5) * CELL, y: (row + 0.5) * CELL }
})
const word = (row: number, column: number): string => {
  const r = result.value
  if (!r) return ''
  const thick = `${length(r.thickness_mm[row] ?? 0, session.units)} ${lengthUnit(session.units)}`
  const becomes = words[r.regions[row]?.[column] ?? 'raw']
  const ready = r.ready_min[row]?.[column]
  const then = ready == null ? '' : t('oven-oven-map-view-ready-at', { ready: said(ready) })
  return t('oven-oven-map-view-after-min', {
    column: dial(r.oven_c[column] ?? 0, session.units),
    thick,
    becomes,
    value: said(r.minutes),
    then,
  })
}
</script>

<template>
  <section :aria-label="$t('oven-oven-map-view-temperature-and-thickness-map')" class="map">
    <h3>{{ $t('oven-oven-map-view-temperature-and-thickness') }}</h3>
    <p class="note">
      {{ $t('oven-oven-map-view-what-a-bake-of') }}
      <v-text-field
        v-model="wanted"
        class="field"
        :placeholder="minutes == null ? '' : said(minutes)"
        inputmode="decimal"
        :aria-label="$t('oven-oven-map-view-baking-time-for-this-map-min')"
      />
      {{ $t('oven-oven-map-view-min-400-simulated-bakes-calculated-in') }}
      <v-btn v-if="!underWay" class="quiet-button" :disabled="!bench.mayEdit || (!minutes && !wanted)" @click="start">
        {{ result ? $t('oven-oven-map-view-redraw') : $t('oven-oven-map-view-draw-the-map') }}
      </v-btn>
      <JobProgress v-else-if="job" :job="job" :what="$t('oven-oven-map-view-rows')" @stop="stop" />
    </p>
    <p v-if="trouble" role="alert" class="act">{{ trouble }}</p>
    <div v-if="result" class="picture">
      <svg
        :viewBox="`-46 -4 ${result.oven_c.length * CELL + 54} ${result.thickness_mm.length * CELL + 30}`"
        role="group"
        :aria-label="$t('oven-oven-map-view-rows-thickness-columns-temperature')"
      >
        <g v-for="(row, r) in result.regions" :key="r">
          <rect
            v-for="(kind, c) in row"
            :key="c"
            :x="c * CELL"
            :y="r * CELL"
            :width="CELL"
            :height="CELL"
            :class="kind"
            @click="take(r, c)"
          >
            <title>{{ word(r, c) }}</title>
          </rect>
          <text v-if="r % 4 === 0" x="-5" :y="r * CELL + 11" text-anchor="end">
            {{ length(result.thickness_mm[r] ?? 0, session.units) }}
          </text>
        </g>
        <circle v-if="own" :cx="own.x" :cy="own.y" :r="CELL / 3" class="own">
          <title>{{ $t('oven-oven-map-view-your-current-settings') }}</title>
        </circle>
        <text
          v-for="(celsius, c) in result.oven_c"
          v-show="c % 4 === 0"
          :key="celsius"
          :x="c * CELL + CELL / 2"
          :y="result.thickness_mm.length * CELL + 14"
          text-anchor="middle"
        >
          {{ dialDegrees(celsius, session.units) }}
        </text>
        <text :x="result.oven_c.length * CELL" :y="result.thickness_mm.length * CELL + 25" text-anchor="end" class="axis">
          {{ $t('oven-oven-map-view-oven-setting', { unit: temperatureUnit(session.units) }) }}
        </text>
        <text x="-44" :y="result.thickness_mm.length * CELL + 14" class="axis">{{ lengthUnit(session.units) }}</text>
      </svg>
      <ul class="note">
        <li v-for="(w, k) in words" :key="k"><i :class="k" />{{ w }}</li>
        <li v-if="own"><i class="ring" />{{ $t('oven-oven-map-view-current-settings') }}</li>
        <li>{{ $t('oven-oven-map-view-tap-a-square-to-use-that') }}</li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
h3 {
  font-size: 16px;
}

.field {
  width: 44px;
  --field-height: 24px;
  text-align: right;
}

.picture {
  display: flex;
  gap: 18px;
  align-items: flex-start;
}

svg {
  width: 380px;
  max-width: 70%;
}

rect {
  stroke: var(--ground);
  stroke-width: 0.7;
  cursor: pointer;
}

rect:hover {
  stroke: var(--ink);
  stroke-width: 1.4;
}

.own {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.5;
}

.ring {
  border: 2px solid var(--ink);
  border-radius: 50%;
}

.pale {
  fill: #ece0c8;
  background: #ece0c8;
}

.raw {
  fill: #c9d3d8;
  background: #c9d3d8;
}

.done {
  fill: #cf9a4a;
  background: #cf9a4a;
}

.dry {
  fill: #8a5a34;
  background: #8a5a34;
}

.burnt {
  fill: #3d241b;
  background: #3d241b;
}

text {
  fill: var(--ink-2);
  font-size: 12px;
}

ul {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: flex;
  align-items: center;
  gap: 6px;
}

i {
  width: 13px;
  height: 13px;
  border-radius: 3px;
}
</style>
