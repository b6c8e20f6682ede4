<script setup lang="ts">
/** A small line over two axes, with a soft band, level marks and moments; the words beside it say the same. */
import { computed } from 'vue'

interface Mark {
  at: number
  word: string
}
const {
  points,
  band = [],
  levels = [],
  moments = [],
  height = 132,
  steps = false,
} = defineProps<{
  points: readonly (readonly [number, number])[]
  /** x, low, high */
  band?: readonly (readonly [number, number, number])[]
  levels?: readonly Mark[]
  moments?: readonly Mark[]
  xWord: string
  yWord: string
  label: string
  height?: number
  steps?: boolean
}>()
const WIDTH = 270
const LEFT = 34
const FOOT = 30
const TOP = 12
const xs = computed(() => [...points.map((p) => p[0]), ...moments.map((m) => m.at)])
const ys = computed(() => [...points.map((p) => p[1]), ...band.flatMap((b) => [b[1], b[2]]), ...levels.map((l) => l.at)])
const xRange = computed<[number, number]>(() => [Math.min(...xs.value, 0), Math.max(...xs.value, 1)])
const yRange = computed<[number, number]>(() => {
  const low = Math.min(...ys.value)
  const high = Math.max(...ys.value)
  const room = (high - low || 1) * 0.06
  return [low - room, high + room]
})
const x = (v: number): number => LEFT + ((WIDTH - LEFT - 10) * (v - xRange.value[0])) / (xRange.value[1] - xRange.value[0])
const y = (v: number): number => TOP + ((height - FOOT - TOP) * (yRange.value[1] - v)) / (yRange.value[1] - yRange.value[0])
const line = computed(() =>
  points
    .map((p, i) => {
      const before = points[i - 1]
      return `${i ? 'L' : 'M'} ${steps && before ? `${x(p[0]).toFixed(1)} ${y(before[1]).toFixed(1)} L ` : ''}${x(p[0]).toFixed(1)} ${y(p[1]).toFixed(1)}`
    })
    .join(' '),
)
const area = computed(() =>
  band.length
    ? [
        ...band.map((b, i) => `${i ? 'L' : 'M'} ${x(b[0]).toFixed(1)} ${y(b[2]).toFixed(1)}`),
        ...[...band].reverse().map((b) => `L ${x(b[0]).toFixed(1)} ${y(b[1]).toFixed(1)}`),
        'Z',
      ].join(' ')
    : '',
)
const ticks = (range: [number, number], count: number): number[] => {
  const raw = (range[1] - range[0]) / count
  const size = 10 ** Math.floor(Math.log10(raw))
  const step = [1, 2, 2.5, 5, 10].map((m) => m * size).find((s) => s >= raw) ?? raw
  const first = Math.ceil(range[0] / step)
  return Array.from({ length: Math.floor(range[1] / step) - first + 1 }, (_, i) => Number(((first + i) * step).toPrecision(6)))
}
</script>

<template>
  <svg class="chart" :viewBox="`0 0 ${WIDTH} ${height}`" role="img" :aria-label="label">
    <g v-for="t in ticks(yRange, 4)" :key="`y${t}`">
      <line :x1="LEFT" :x2="WIDTH - 10" :y1="y(t)" :y2="y(t)" class="rule" />
      <text :x="LEFT - 4" :y="y(t) + 4" text-anchor="end">{{ t }}</text>
    </g>
    <text v-for="t in ticks(xRange, 5)" :key="`x${t}`" :x="x(t)" :y="height - FOOT + 14" text-anchor="middle">{{ t }}</text>
    <text :x="WIDTH - 10" :y="height - 3" text-anchor="end" class="axis">{{ xWord }}</text>
    <text x="2" :y="height - 3" class="axis">{{ yWord }}</text>
    <path v-if="area" :d="area" class="smear" />
    <path :d="line" class="line" />
    <g v-for="l in levels" :key="l.word">
      <line :x1="LEFT" :x2="WIDTH - 10" :y1="y(l.at)" :y2="y(l.at)" class="level" />
      <text :x="WIDTH - 12" :y="y(l.at) - 3" text-anchor="end" class="said">{{ l.word }}</text>
    </g>
    <g v-for="m in moments" :key="m.word">
      <line :x1="x(m.at)" :x2="x(m.at)" :y1="TOP" :y2="height - FOOT" class="level" />
      <text :x="x(m.at) + 3" :y="TOP + 9" class="said">{{ m.word }}</text>
    </g>
    <slot :x="x" :y="y" />
  </svg>
</template>

<style scoped>
.chart {
  display: block;
  width: 100%;
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
  stroke-linejoin: round;
}

.level {
  stroke: var(--act);
  stroke-dasharray: 3 3;
}

text {
  fill: var(--ink-2);
  font-size: 12px;
}

.said {
  fill: var(--act);
}
</style>
