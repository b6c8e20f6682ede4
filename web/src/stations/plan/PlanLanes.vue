<script setup lang="ts">
/**
 * A day as lanes: hands, ovens with their temperature as height, and what only lies. A block is dragged to pin it; what stands in
 * its way is told while it moves; the light behind a block is how far it may slip.
 */
import type { Planned, PlannedTask } from '@/api/types'
import { dayOf, timeOf } from './times'
import { useDraggedTask } from './useDraggedTask'
import { LEFT, HAND, OVEN, LIE, TOP, usePlanLanes } from './usePlanLanes'
import { t } from '@/messages'

const props = defineProps<{ planned: Planned; people: number; selected: string; mayMove: boolean; conflicts: readonly string[] | null }>()
const emit = defineEmits<{ select: [id: string]; drag: [task: string, minute: number]; drop: [task: string, minute: number] }>()

const { perMinute, width, x, numbers, fill, hands, ovens, strips, handTop, ovenTop, lieTop, height, heatPath, levels, marks } =
  usePlanLanes(props)
const { dragged, grab, move, release, nudge, shift } = useDraggedTask(props, perMinute, {
  select: (id) => emit('select', id),
  drag: (id, minute) => emit('drag', id, minute),
  drop: (id, minute) => emit('drop', id, minute),
})
const description = (task: PlannedTask): string => {
  const look =
    task.check && task.surely
      ? t('plan-plan-lanes-check-from-out-by-at-the', { check: task.check.slice(11, 16), surely: task.surely.slice(11, 16) })
      : ''
  return t('plan-plan-lanes-to', {
    text: task.text,
    start: task.start.slice(11, 16),
    end: task.end.slice(11, 16),
    look,
    pinned: task.pinned ? t('plan-plan-lanes-pinned') : '',
  })
}
/** A short word for a narrow block. */
const short = (task: PlannedTask, room: number): string => {
  const number = numbers.value.get(task.bake) ?? 0
  const words = {
    weigh: 'weigh',
    mix: 'mix',
    shape: 'shape',
    melt: 'melt',
    prep: 'prep',
    dry: 'dry',
    top: 'top',
    bake: 'bake',
    cool: 'cool',
    chill: 'chill',
    rest: 'rest',
  }
  const word = words[task.kind as keyof typeof words] ?? task.kind
  return room > 56 ? `${number} ${word}` : room > 13 ? String(number) : ''
}
</script>

<template>
  <div class="scroll">
    <svg :width="width" :height="height" role="group" :aria-label="$t('plan-plan-lanes-day-timeline')">
      <g class="grid">
        <template v-for="m in marks" :key="m.minute">
          <line :x1="x(m.minute)" :x2="x(m.minute)" :y1="TOP - 6" :y2="height - 6" />
          <text :x="x(m.minute)" :y="TOP - 11" text-anchor="middle">
            {{ m.text === '00:00' ? dayOf(planned.begins, m.minute) : m.text }}
          </text>
        </template>
      </g>
      <template v-for="b in planned.bakes" :key="b.id">
        <line
          :x1="x(planned.tasks.filter((t) => t.bake === b.id).reduce((m, t) => Math.max(m, t.end_min), 0))"
          :x2="x(planned.tasks.filter((t) => t.bake === b.id).reduce((m, t) => Math.max(m, t.end_min), 0))"
          :y1="lieTop"
          :y2="height - 6"
          class="ready"
        />
      </template>
      <g v-for="lane in hands" :key="`h${lane.person}`">
        <text :x="8" :y="handTop(lane.person) + HAND / 2 + 5" class="name">
          {{ people > 1 ? $t('plan-plan-lanes-hands', { person: lane.person + 1 }) : $t('plan-plan-lanes-people') }}
        </text>
        <rect :x="LEFT" :y="handTop(lane.person)" :width="width - LEFT - 12" :height="HAND" class="lane" />
        <g
          v-for="(box, n) in lane.boxes"
          :key="`${box.task.id}${n}`"
          class="block"
          :class="{
            chosen: box.task.id === selected,
            watch: box.kind === 'watch',
            pinned: box.task.pinned,
            clash: dragged?.task.id === box.task.id && conflicts?.length,
          }"
          :transform="shift(box.task)"
          :tabindex="box.kind === 'work' ? 0 : undefined"
          :role="box.kind === 'work' ? 'button' : 'presentation'"
          :aria-label="box.kind === 'work' ? description(box.task) : undefined"
          :aria-hidden="box.kind === 'work' ? undefined : true"
          @pointerdown="grab($event, box.task)"
          @pointermove="move"
          @pointerup="release"
          @pointercancel="release"
          @keydown="nudge($event, box.task)"
        >
          <title>{{ description(box.task) }}</title>
          <rect
            v-if="box.kind === 'work' && box.task.slack > 1"
            :x="x(box.to)"
            :y="handTop(lane.person) + HAND - 5"
            :width="box.task.slack * perMinute"
            height="3"
            class="slack"
          />
          <rect
            :x="x(box.from)"
            :y="handTop(lane.person) + 3"
            :width="Math.max((box.to - box.from) * perMinute - 1, 2)"
            :height="HAND - 10"
            rx="3"
            :style="{ fill: fill(box.task) }"
          />
          <text v-if="box.kind === 'work'" :x="x(box.from) + 4" :y="handTop(lane.person) + HAND / 2 + 3">
            {{ short(box.task, (box.to - box.from) * perMinute) }}
          </text>
        </g>
      </g>
      <g v-for="(oven, n) in ovens" :key="oven.name">
        <text :x="8" :y="ovenTop(n) + OVEN / 2" class="name">{{ oven.name }}</text>
        <rect :x="LEFT" :y="ovenTop(n)" :width="width - LEFT - 12" :height="OVEN" class="lane" />
        <path :d="heatPath(n)" class="heat" />
        <text v-for="level in levels(n)" :key="level.x" :x="level.x" :y="level.y" class="degrees">{{ level.text }}</text>
        <g
          v-for="task in oven.inside"
          :key="task.id"
          class="block"
          :class="{ chosen: task.id === selected, pinned: task.pinned, clash: dragged?.task.id === task.id && conflicts?.length }"
          :transform="shift(task)"
          tabindex="0"
          role="button"
          :aria-label="description(task)"
          @pointerdown="grab($event, task)"
          @pointermove="move"
          @pointerup="release"
          @pointercancel="release"
          @keydown="nudge($event, task)"
        >
          <title>{{ description(task) }}</title>
          <rect
            :x="x(task.start_min)"
            :y="ovenTop(n) + OVEN - 26 * ((oven.rows.get(task) ?? 0) + 1)"
            :width="(task.end_min - task.start_min) * perMinute - 1"
            height="22"
            rx="3"
            :style="{ fill: fill(task) }"
          />
          <rect
            v-if="task.check"
            :x="x(task.start_min + (Date.parse(task.check) - Date.parse(task.start)) / 60000)"
            :y="ovenTop(n) + OVEN - 26 * ((oven.rows.get(task) ?? 0) + 1) + 16"
            :width="Math.max((Date.parse(task.end) - Date.parse(task.check)) / 60000, 1) * perMinute - 1"
            height="6"
            class="look"
          />
          <text :x="x(task.start_min) + 4" :y="ovenTop(n) + OVEN - 26 * ((oven.rows.get(task) ?? 0) + 1) + 14">
            {{ short(task, (task.end_min - task.start_min) * perMinute) }}
          </text>
        </g>
      </g>
      <g v-for="strip in strips" :key="strip.name" :data-lane="strip.name">
        <text :x="8" :y="strip.top + 14" class="name">{{ strip.name }}</text>
        <g
          v-for="task in strip.inside"
          :key="task.id"
          class="block lies"
          :class="{ chosen: task.id === selected }"
          @pointerdown="emit('select', task.id)"
        >
          <title>{{ description(task) }}</title>
          <rect
            :x="x(task.start_min)"
            :y="strip.top + (strip.rows.get(task) ?? 0) * (LIE + 3)"
            :width="Math.max((task.end_min - task.start_min) * perMinute - 1, 2)"
            :height="LIE"
            rx="3"
            :style="{ fill: fill(task) }"
          />
          <text :x="x(task.start_min) + 4" :y="strip.top + (strip.rows.get(task) ?? 0) * (LIE + 3) + 14">
            {{ short(task, (task.end_min - task.start_min) * perMinute) }}
          </text>
        </g>
      </g>
    </svg>
    <p v-if="dragged" class="told" role="status">
      {{ timeOf(planned.begins, dragged.task.start_min + dragged.by) }}
      <span v-for="c in conflicts" :key="c" class="act"> · {{ c }}</span>
      <span v-if="dragged.by && conflicts?.length === 0" class="fine"> {{ $t('plan-plan-lanes-no-conflicts') }}</span>
    </p>
  </div>
</template>

<style scoped>
.scroll {
  position: relative;
  overflow-x: auto;
}

svg {
  display: block;
  touch-action: pan-x;
  user-select: none;
}

.grid line {
  stroke: var(--rule);
}

.grid text {
  fill: var(--ink-2);
  font-size: 12px;
  font-variant-numeric: tabular-nums;
}

.name {
  fill: var(--ink-2);
  font-size: 13px;
}

.lane {
  fill: var(--panel);
  stroke: var(--rule);
}

.heat {
  fill: var(--act-soft);
  stroke: var(--act);
  stroke-width: 1.2;
}

.degrees {
  fill: var(--act);
  font-size: 12px;
}

.block {
  cursor: grab;
}

.block rect {
  stroke: rgb(43 38 32 / 35%);
}

.block text {
  fill: var(--on-role);
  font-size: 12.5px;
  pointer-events: none;
}

.block.watch rect {
  opacity: 0.35;
}

.block.chosen > rect {
  stroke: var(--ink);
  stroke-width: 2;
}

.block.pinned > rect {
  stroke: var(--ink);
  stroke-dasharray: 4 2;
}

.block.clash > rect {
  stroke: var(--act);
  stroke-width: 3;
}

.block:focus-visible {
  outline: 2px solid var(--focus);
}

.block .look {
  fill: var(--ink);
  opacity: 0.55;
  stroke: none;
}

.block .slack {
  fill: var(--smear);
  stroke: none;
}

.lies rect {
  opacity: 0.55;
}

.ready {
  stroke: var(--ink-2);
  stroke-dasharray: 2 3;
}

.told {
  position: sticky;
  left: 0;
  margin: 4px 8px;
  font-variant-numeric: tabular-nums;
}

.fine {
  color: var(--in);
}
</style>
