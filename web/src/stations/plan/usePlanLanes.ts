/** A plan as lanes: where hands, ovens and what only lies stand on the drawing, and how hot each oven is. */
import { computed } from 'vue'
import type { Planned, PlannedTask } from '@/api/types'
import { linear } from '@/domain/chart'
import { useSession } from '@/stores/session'
import { stacked, ticks } from './times'
import { t } from '@/messages'

export const LEFT = 86
export const HAND = 44
export const OVEN = 112
export const LIE = 20
export const TOP = 26
const GAP = 12
const HOTTEST = 260
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

export interface Box {
  task: PlannedTask
  from: number
  to: number
  kind: 'work' | 'watch'
}

export function usePlanLanes(props: { planned: Planned; people: number }) {
  const session = useSession()
  const tasks = computed(() => props.planned.tasks)
  const from = computed(() => Math.floor((Math.min(...tasks.value.map((t) => t.start_min), ...heatFrom.value) - 20) / 30) * 30)
  const to = computed(() => Math.ceil((props.planned.horizon + 15) / 30) * 30)
  const heatFrom = computed(() => props.planned.heat.map((h) => h.minutes[0] ?? 0))
  const perMinute = computed(() => Math.max(1.15, 880 / Math.max(to.value - from.value, 60)))
  const width = computed(() => LEFT + (to.value - from.value) * perMinute.value + 12)
  const x = computed(() => linear([from.value, to.value], [LEFT, LEFT + (to.value - from.value) * perMinute.value]))
  const numbers = computed(() => new Map(props.planned.bakes.map((b, n) => [b.id, n + 1])))
  const fill = (t: PlannedTask): string => `var(${COLOURS[((numbers.value.get(t.bake) ?? 1) - 1) % COLOURS.length]})`

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
    lanes.push({
      name: t('plan-use-plan-lanes-resting-or-cooling'),
      inside: tasks.value.filter((t) => !t.hands.length && !t.oven && !t.uses.length),
    })
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

  return { perMinute, width, x, numbers, fill, hands, ovens, strips, handTop, ovenTop, lieTop, height, heatPath, levels, marks }
}
