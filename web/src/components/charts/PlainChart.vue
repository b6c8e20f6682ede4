<script setup lang="ts">
/** A small line over two axes, with a soft band, level marks and moments; the words beside it say the same. */
import { computed } from 'vue'
import { areaPath, linear, linePath } from '@/domain/chart'

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
const x = computed(() => linear(xRange.value, [LEFT, WIDTH - 10]))
const y = computed(() => linear(yRange.value, [height - FOOT, TOP]))
/** A staircase holds the value before it until the next point. */
const corners = computed(() =>
  points.flatMap((p, i) => {
    const before = points[i - 1]
    return steps && before ? [[p[0], before[1]] as const, p] : [p]
  }),
)
const line = computed(() => linePath(corners.value.map((p) => [x.value(p[0]), y.value(p[1])])))
const area = computed(() => areaPath(band.map((b) => [x.value(b[0]), y.value(b[1]), y.value(b[2])])))
</script>

<template>
  <svg class="chart" :viewBox="`0 0 ${WIDTH} ${height}`" role="img" :aria-label="label">
    <g v-for="t in y.ticks(4)" :key="`y${t}`">
      <line :x1="LEFT" :x2="WIDTH - 10" :y1="y(t)" :y2="y(t)" class="rule" />
      <text :x="LEFT - 4" :y="y(t) + 4" text-anchor="end">{{ t }}</text>
    </g>
    <text v-for="t in x.ticks(5)" :key="`x${t}`" :x="x(t)" :y="height - FOOT + 14" text-anchor="middle">{{ t }}</text>
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
