<script setup lang="ts">
/**
 * Several days at a glance: which day is heavy, and when something is ready. A row for each day with hands, ovens and what lies;
 * pressing a block shows its times.
 */
import { computed } from 'vue'
import type { Planned, PlannedTask } from '@/api/types'
import { linear } from '@/domain/chart'
import { days, stacked } from './times'

const props = defineProps<{ planned: Planned; selected: string }>()
const emit = defineEmits<{ select: [id: string] }>()

const WIDTH = 900
const LEFT = 92
const ROW = 13
const TOP = 22
const HOURS = [0, 6, 12, 18, 24]
const x = linear([0, 1440], [LEFT, WIDTH - 10])
const numbers = computed(() => new Map(props.planned.bakes.map((b, n) => [b.id, n + 1])))
interface Bar {
  task: PlannedTask
  start_min: number
  end_min: number
}
const bars = computed(() => ({
  hands: props.planned.tasks.flatMap((task): Bar[] => task.hands.map((h) => ({ task, ...h }))),
  oven: props.planned.tasks.filter((t) => t.oven).map((task): Bar => ({ task, start_min: task.start_min, end_min: task.end_min })),
  lies: props.planned.tasks
    .filter((t) => !t.oven && !t.hands.length)
    .map((task): Bar => ({ task, start_min: task.start_min, end_min: task.end_min })),
}))
const rows = computed(() => {
  let top = TOP
  return days(props.planned.begins, props.planned.horizon).map((day) => {
    const lanes = Object.entries(bars.value).map(([name, all]) => {
      const inside = all
        .filter((b) => b.end_min > day.from && b.start_min < day.from + 1440)
        .map((b) => ({ ...b, start_min: Math.max(b.start_min - day.from, 0), end_min: Math.min(b.end_min - day.from, 1440) }))
      const { rows, count } = stacked(inside)
      const lane = { name, top, bars: inside.map((b) => ({ ...b, y: top + (rows.get(b) ?? 0) * ROW })) }
      top += count * ROW + 3
      return lane
    })
    const due = props.planned.bakes
      .map((b) => ({ ...b, at: (Date.parse(b.due.slice(0, 19)) - Date.parse(props.planned.begins.slice(0, 19))) / 60000 - day.from }))
      .filter((b) => b.at > 0 && b.at <= 1440)
    const own = { ...day, lanes, due, top: lanes[0]?.top ?? top, foot: top }
    top += 12
    return own
  })
})
const height = computed(() => (rows.value.at(-1)?.foot ?? TOP) + 14)
</script>

<template>
  <svg :viewBox="`0 0 ${WIDTH} ${height}`" role="group" :aria-label="$t('plan-plan-week-week-overview')">
    <g v-for="hour in HOURS" :key="hour" class="grid">
      <line :x1="x(60 * hour)" :x2="x(60 * hour)" :y1="TOP - 6" :y2="height - 8" />
      <text :x="x(60 * hour)" :y="TOP - 9" :text-anchor="hour === 24 ? 'end' : hour ? 'middle' : 'start'">{{ hour }}:00</text>
    </g>
    <g v-for="day in rows" :key="day.from" :data-day="day.text">
      <text x="8" :y="day.top + 11" class="name">{{ day.text }}</text>
      <template v-for="lane in day.lanes" :key="lane.name">
        <text v-if="lane.bars.length" :x="LEFT - 6" :y="lane.top + 10" text-anchor="end" class="small">{{ lane.name }}</text>
        <g
          v-for="(bar, n) in lane.bars"
          :key="`${bar.task.id}${n}`"
          class="bar"
          :class="[lane.name, { chosen: bar.task.id === selected }]"
          role="button"
          tabindex="0"
          :aria-label="
            $t('plan-plan-week-to', { task: bar.task.text, start: bar.task.start.slice(11, 16), end: bar.task.end.slice(11, 16) })
          "
          @click="emit('select', bar.task.id)"
          @keydown.enter="emit('select', bar.task.id)"
        >
          <title>
            {{ $t('plan-plan-week-to', { task: bar.task.text, start: bar.task.start.slice(11, 16), end: bar.task.end.slice(11, 16) }) }}
          </title>
          <rect :x="x(bar.start_min)" :y="bar.y" :width="Math.max(x(bar.end_min) - x(bar.start_min) - 0.5, 2)" :height="ROW - 2" rx="2" />
          <text v-if="bar.end_min - bar.start_min > 24" :x="x(bar.start_min) + 3" :y="bar.y + 9" class="small">
            {{ numbers.get(bar.task.bake) }}
          </text>
        </g>
      </template>
      <g v-for="due in day.due" :key="due.id" class="due" :class="{ act: due.late_min }">
        <line :x1="x(due.at)" :x2="x(due.at)" :y1="day.top - 3" :y2="day.foot" />
      </g>
      <line :x1="8" :x2="WIDTH - 10" :y1="day.foot + 5" :y2="day.foot + 5" class="rule" />
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}

.grid line,
.rule {
  stroke: var(--rule);
}

.grid text,
.small {
  fill: var(--ink-2);
  font-size: 10.5px;
}

.name {
  fill: var(--ink);
  font-size: 13px;
}

.bar {
  cursor: pointer;
}

.bar rect {
  fill: var(--role-base);
}

.bar.oven rect {
  fill: var(--act-soft);
  stroke: var(--act);
}

.bar.lies rect {
  fill: var(--role-liquid);
  opacity: 0.55;
}

.bar.chosen rect,
.bar:focus-visible rect {
  stroke: var(--ink);
  stroke-width: 2;
}

.bar .small {
  fill: var(--ink);
}

.due line {
  stroke: var(--in);
  stroke-width: 2;
}

.due.act line {
  stroke: var(--act);
}
</style>
