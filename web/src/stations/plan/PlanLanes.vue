<script setup lang="ts">
/**
 * A day as lanes: hands, ovens with their temperature as height, and what only lies. A block is dragged to pin it; what stands in
 * its way is told while it moves; the light behind a block is how far it may slip.
 */
import { computed, ref } from 'vue'
import type { Planned, PlannedTask } from '@/api/types'
import { linear } from '@/domain/chart'
import { useSession } from '@/stores/session'
import { dayOf, stacked, ticks, timeOf } from './times'

const props = defineProps<{ planned: Planned; people: number; selected: string; mayMove: boolean; conflicts: readonly string[] | null }>()
const emit = defineEmits<{ select: [id: string]; drag: [task: string, minute: number]; drop: [task: string, minute: number] }>()

const session = useSession()
const LEFT = 86
const HAND = 44
const OVEN = 112
const LIE = 20
const TOP = 26
const GAP = 12
const tasks = computed(() => props.planned.tasks)
const from = computed(() => Math.floor((Math.min(...tasks.value.map((t) => t.start_min), ...heatFrom.value) - 20) / 30) * 30)
const to = computed(() => Math.ceil((props.planned.horizon + 15) / 30) * 30)
const heatFrom = computed(() => props.planned.heat.map((h) => h.minutes[0] ?? 0))
const perMinute = computed(() => Math.max(1.15, 880 / Math.max(to.value - from.value, 60)))
const width = computed(() => LEFT + (to.value - from.value) * perMinute.value + 12)
const x = computed(() => linear([from.value, to.value], [LEFT, LEFT + (to.value - from.value) * perMinute.value]))
const numbers = computed(() => new Map(props.planned.bakes.map((b, n) => [b.id, n + 1])))
const COLOURS = [
  '--role-base',
  '--role-vegetable',
  '--role-cheese',
  '--role-liquid',
  '--role-lift',
  '--role-egg',
  '--role-sweetener',
  '--role-fibre',
]
const fill = (t: PlannedTask): string => `var(${COLOURS[((numbers.value.get(t.bake) ?? 1) - 1) % COLOURS.length]})`

interface Box {
  task: PlannedTask
  from: number
  to: number
  kind: 'work' | 'watch'
}
const hands = computed(() =>
  Array.from({ length: props.people }, (_, person) => ({
    person,
    boxes: tasks.value
      .filter((t) => t.person === person)
      .flatMap((t): Box[] => t.hands.map((h) => ({ task: t, from: h.start_min, to: h.end_min, kind: t.oven ? 'watch' : 'work' }))),
  })),
)
const ovens = computed(() => {
  const names = props.planned.heat.map((h) => h.oven)
  return names.map((name) => {
    const inside = tasks.value.filter((t) => t.oven === name)
    const { rows, count } = stacked(inside)
    const heat = props.planned.heat.find((h) => h.oven === name)
    return { name, inside, rows, count, heat }
  })
})
/** What takes up a thing of the kitchen, a lane for each thing; and what only lies. */
const strips = computed(() => {
  const things = session.words?.plan_things ?? []
  const lanes = things.map((thing) => ({ name: thing.lane, inside: tasks.value.filter((t) => t.uses.includes(thing.id)) }))
  lanes.push({ name: 'lies', inside: tasks.value.filter((t) => !t.hands.length && !t.oven && !t.uses.length) })
  let top = ovenTop(ovens.value.length)
  return lanes
    .filter((lane) => lane.inside.length)
    .map((lane) => {
      const { rows, count } = stacked(lane.inside)
      const own = { ...lane, rows, top }
      top += count * (LIE + 3) + 6
      return { ...own, foot: top }
    })
})
const handTop = (n: number): number => TOP + n * (HAND + 6)
const ovenTop = (n: number): number => TOP + props.people * (HAND + 6) + GAP + n * (OVEN + GAP)
const lieTop = computed(() => ovenTop(ovens.value.length))
const height = computed(() => (strips.value.at(-1)?.foot ?? lieTop.value) + 6)
const HOTTEST = 260
const heatAt = linear([0, HOTTEST], [OVEN, 8], true)
const heatY = (n: number, degrees: number): number => ovenTop(n) + heatAt(degrees)
const heatPath = (n: number): string => {
  const heat = ovens.value[n]?.heat
  if (!heat) return ''
  const points = heat.minutes.map((m, i) => `${x.value(m)},${heatY(n, heat.degrees[i] ?? 0)}`)
  const foot = ovenTop(n) + OVEN
  return `M${x.value(heat.minutes[0] ?? 0)},${foot} L${points.join(' L')} L${x.value(heat.minutes.at(-1) ?? 0)},${foot} Z`
}
/** Where an oven's temperature changes, told once at each level. */
const levels = (n: number): { x: number; y: number; text: string }[] => {
  const heat = ovens.value[n]?.heat
  if (!heat) return []
  const told: { x: number; y: number; text: string }[] = []
  heat.degrees.forEach((d, i) => {
    const before = heat.degrees[i - 1] ?? 0
    if (d > 30 && Math.abs(d - before) > 5)
      told.push({ x: x.value(heat.minutes[i] ?? 0) + 3, y: heatY(n, d) - 4, text: `${Math.round(d)} °C` })
  })
  return told
}
const marks = computed(() =>
  ticks(props.planned.begins, from.value, to.value, to.value - from.value > 900 ? 120 : to.value - from.value > 420 ? 60 : 30),
)

const dragged = ref<{ task: PlannedTask; at: number; by: number } | null>(null)
function grab(event: PointerEvent, task: PlannedTask): void {
  emit('select', task.id)
  if (!props.mayMove || task.done) return
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  dragged.value = { task, at: event.clientX, by: 0 }
}
function move(event: PointerEvent): void {
  const held = dragged.value
  if (!held) return
  const by = Math.round((event.clientX - held.at) / perMinute.value)
  if (by === held.by) return
  dragged.value = { ...held, by }
  if (by) emit('drag', held.task.id, held.task.start_min + by)
}
function release(): void {
  const held = dragged.value
  dragged.value = null
  if (held && Math.abs(held.by) >= 2) emit('drop', held.task.id, held.task.start_min + held.by)
}
function nudge(event: KeyboardEvent, task: PlannedTask): void {
  if (event.key === 'Enter' || event.key === ' ') emit('select', task.id)
  else if (props.mayMove && !task.done && (event.key === 'ArrowLeft' || event.key === 'ArrowRight')) {
    emit('drop', task.id, task.start_min + (event.key === 'ArrowLeft' ? -5 : 5))
  } else return
  event.preventDefault()
}
const shift = (task: PlannedTask): string =>
  dragged.value?.task.id === task.id && dragged.value.by ? `translate(${dragged.value.by * perMinute.value} 0)` : ''
const said = (t: PlannedTask): string => {
  const look = t.check && t.surely ? `, look from ${t.check.slice(11, 16)}, surely out by ${t.surely.slice(11, 16)}` : ''
  return `${t.text}, ${t.start.slice(11, 16)} to ${t.end.slice(11, 16)}${look}${t.pinned ? ', pinned' : ''}`
}
/** A short word for a narrow block. */
const short = (t: PlannedTask, room: number): string => {
  const number = numbers.value.get(t.bake) ?? 0
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
  const word = words[t.kind as keyof typeof words] ?? t.kind
  return room > 56 ? `${number} ${word}` : room > 13 ? String(number) : ''
}
</script>

<template>
  <div class="scroll">
    <svg :width="width" :height="height" role="group" aria-label="The day as lanes">
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
        <text :x="8" :y="handTop(lane.person) + HAND / 2 + 5" class="name">{{ people > 1 ? `hands ${lane.person + 1}` : 'hands' }}</text>
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
          :aria-label="box.kind === 'work' ? said(box.task) : undefined"
          :aria-hidden="box.kind === 'work' ? undefined : true"
          @pointerdown="grab($event, box.task)"
          @pointermove="move"
          @pointerup="release"
          @pointercancel="release"
          @keydown="nudge($event, box.task)"
        >
          <title>{{ said(box.task) }}</title>
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
          v-for="t in oven.inside"
          :key="t.id"
          class="block"
          :class="{ chosen: t.id === selected, pinned: t.pinned, clash: dragged?.task.id === t.id && conflicts?.length }"
          :transform="shift(t)"
          tabindex="0"
          role="button"
          :aria-label="said(t)"
          @pointerdown="grab($event, t)"
          @pointermove="move"
          @pointerup="release"
          @pointercancel="release"
          @keydown="nudge($event, t)"
        >
          <title>{{ said(t) }}</title>
          <rect
            :x="x(t.start_min)"
            :y="ovenTop(n) + OVEN - 26 * ((oven.rows.get(t) ?? 0) + 1)"
            :width="(t.end_min - t.start_min) * perMinute - 1"
            height="22"
            rx="3"
            :style="{ fill: fill(t) }"
          />
          <rect
            v-if="t.check"
            :x="x(t.start_min + (Date.parse(t.check) - Date.parse(t.start)) / 60000)"
            :y="ovenTop(n) + OVEN - 26 * ((oven.rows.get(t) ?? 0) + 1) + 16"
            :width="Math.max((Date.parse(t.end) - Date.parse(t.check)) / 60000, 1) * perMinute - 1"
            height="6"
            class="look"
          />
          <text :x="x(t.start_min) + 4" :y="ovenTop(n) + OVEN - 26 * ((oven.rows.get(t) ?? 0) + 1) + 14">
            {{ short(t, (t.end_min - t.start_min) * perMinute) }}
          </text>
        </g>
      </g>
      <g v-for="strip in strips" :key="strip.name" :data-lane="strip.name">
        <text :x="8" :y="strip.top + 14" class="name">{{ strip.name }}</text>
        <g
          v-for="t in strip.inside"
          :key="t.id"
          class="block lies"
          :class="{ chosen: t.id === selected }"
          @pointerdown="emit('select', t.id)"
        >
          <title>{{ said(t) }}</title>
          <rect
            :x="x(t.start_min)"
            :y="strip.top + (strip.rows.get(t) ?? 0) * (LIE + 3)"
            :width="Math.max((t.end_min - t.start_min) * perMinute - 1, 2)"
            :height="LIE"
            rx="3"
            :style="{ fill: fill(t) }"
          />
          <text :x="x(t.start_min) + 4" :y="strip.top + (strip.rows.get(t) ?? 0) * (LIE + 3) + 14">
            {{ short(t, (t.end_min - t.start_min) * perMinute) }}
          </text>
        </g>
      </g>
    </svg>
    <p v-if="dragged" class="told" role="status">
      {{ timeOf(planned.begins, dragged.task.start_min + dragged.by) }}
      <span v-for="c in conflicts" :key="c" class="act"> · {{ c }}</span>
      <span v-if="dragged.by && conflicts?.length === 0" class="fine"> · nothing stands in the way</span>
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
