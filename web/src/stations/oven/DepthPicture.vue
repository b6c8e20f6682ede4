<script setup lang="ts">
/** The inside of the dough: depth downwards, minutes to the right, temperature and dryness as shade. The drying front is drawn. */
import { computed, ref } from 'vue'
import type { BakeForecast } from '@/api/types'
import { linear, linePath, mixed } from '@/domain/chart'
import { length, lengthUnit, minutes, temperature } from '@/domain/format'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

const props = defineProps<{ forecast: BakeForecast; span: number }>()
const session = useSession()
const WIDTH = 640
const HEIGHT = 132
const series = computed(() => props.forecast.series)
const x = computed(() => linear([0, props.span], [0, WIDTH]))
const rowHeight = computed(() => HEIGHT / series.value.shade_mm.length)

/** Red, green and blue of a dough as wet as it went in, by °C. */
const wet = mixed([
  [10, [111, 146, 170]],
  [45, [196, 205, 200]],
  [70, [237, 224, 176]],
  [98, [226, 167, 101]],
  [110, [199, 129, 73]],
  [150, [139, 74, 45]],
  [190, [86, 40, 26]],
])
const shade = (celsius: number, dry: number): string =>
  `rgb(${wet(celsius)
    .map((v) => Math.round(v * (1 - 0.22 * dry)))
    .join(' ')})`
const tiles = computed(() => {
  const at = series.value.shade_minutes
  return series.value.temperature_c.flatMap((row, r) =>
    row.map((t, c) => {
      const from = at[c] ?? 0
      const to = at[c + 1] ?? props.forecast.series.minutes.at(-1) ?? from
      return {
        x: x.value(from),
        w: Math.max(x.value(to) - x.value(from), 0) + 0.6,
        y: r * rowHeight.value,
        fill: shade(t, series.value.dryness[r]?.[c] ?? 0),
      }
    }),
  )
})
/** Where half of the water has gone, from above and from below. */
const fronts = computed(() => {
  const { dryness, shade_minutes: at } = series.value
  const line = (rows: number[]): string =>
    linePath(
      at
        .map((m, c) => ({ m, r: rows.findIndex((row) => (dryness[row]?.[c] ?? 0) < 0.5) }))
        .filter((p) => p.r > 0)
        .map((p) => [x.value(p.m), (rows[0] === 0 ? p.r : rows.length - p.r) * rowHeight.value]),
    )
  const down = dryness.map((_, r) => r)
  return [line(down), line([...down].reverse())].filter(Boolean)
})
const pointed = ref('')
const inLength = (mm: number | undefined): string => `${length(mm ?? 0, session.units)} ${lengthUnit(session.units)}`
function point(event: PointerEvent): void {
  const box = (event.currentTarget as Element).getBoundingClientRect()
  const minute = ((event.clientX - box.left) / box.width) * props.span
  const row = Math.min(
    Math.floor(((event.clientY - box.top) / box.height) * series.value.shade_mm.length),
    series.value.shade_mm.length - 1,
  )
  const column = series.value.shade_minutes.findLastIndex((m) => m <= minute)
  const celsius = series.value.temperature_c[row]?.[column]
  const gone = Math.round(100 * (series.value.dryness[row]?.[column] ?? 0))
  pointed.value =
    celsius === undefined
      ? ''
      : t('oven-depth-picture-at-min-below-the-top-about', {
          minute: minutes(minute),
          row: inLength(series.value.shade_mm[row]),
          units: temperature(celsius, session.units),
          gone,
        })
}
const told = computed(() => {
  const c = props.forecast.core_c_at_ready
  const middle =
    c == null
      ? t('oven-depth-picture-is-not-done')
      : t('oven-depth-picture-reaches-when-it-is-done', { units: temperature(c, session.units) })
  return t('oven-depth-picture-depth-over-time-the-center-dashed', { middle })
})
</script>

<template>
  <section :aria-label="$t('oven-depth-picture-inside-the-dough')">
    <div class="headed">
      <h3>{{ $t('oven-depth-picture-inside-the-dough') }}</h3>
      <span class="note" aria-live="off">{{
        pointed || $t('oven-depth-picture-top-underside-blue-cold-brown-hot', { at: inLength(series.shade_mm.at(-1)) })
      }}</span>
    </div>
    <svg
      :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
      preserveAspectRatio="none"
      role="img"
      :aria-label="told"
      @pointermove="point"
      @pointerleave="pointed = ''"
    >
      <rect v-for="(tile, i) in tiles" :key="i" :x="tile.x" :y="tile.y" :width="tile.w" :height="rowHeight + 0.6" :fill="tile.fill" />
      <path v-for="f in fronts" :key="f" :d="f" class="front" />
      <line v-if="forecast.ready_min" :x1="x(forecast.ready_min.best)" :x2="x(forecast.ready_min.best)" y1="0" :y2="HEIGHT" class="out" />
    </svg>
  </section>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  height: 132px;
  border-radius: 4px;
}

.front {
  fill: none;
  stroke: #2b2620;
  stroke-width: 1.4;
  stroke-dasharray: 6 4;
  vector-effect: non-scaling-stroke;
}

.out {
  stroke: #2b2620;
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
}
</style>
