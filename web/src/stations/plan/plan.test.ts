// @vitest-environment happy-dom
import { enableAutoUnmount, flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import { LIMITS, onTheBench } from '@/testing/kitchen'
import { answering, asked, refusing } from '@/testing/server'

vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api: (await import('@/testing/server')).api }))

import { useSession } from '@/stores/session'
import type { Planned, PlanDocument, PlannedTask } from '@/api/types'
import PlanLanes from './PlanLanes.vue'
import PlanSetting from './PlanSetting.vue'
import PlansHome from './PlansHome.vue'
import PlanView from './PlanView.vue'
import PlanWeek from './PlanWeek.vue'
import ShoppingView from './ShoppingView.vue'

const router = createRouter({ history: createMemoryHistory(), routes: [{ path: '/:any(.*)*', component: { template: '<i />' } }] })
const global = { plugins: [router] }
enableAutoUnmount(afterEach)

const BEGINS = '2026-11-28T06:00:00'
const at = (minute: number): string => new Date(Date.parse(`${BEGINS}Z`) + minute * 60_000).toISOString().slice(0, 19)
const task = (id: string, from: number, to: number, over: Partial<PlannedTask> = {}): PlannedTask => ({
  id,
  bake: '1',
  kind: 'mix',
  text: `Do ${id}`,
  start: at(from),
  end: at(to),
  start_min: from,
  end_min: to,
  check: null,
  surely: null,
  hands: [{ start_min: from, end_min: to }],
  person: 0,
  oven: '',
  temp_c: null,
  uses: [],
  steps: [],
  pinned: false,
  done: false,
  slack: 0,
  ...over,
})
const PLANNED = {
  status: 'optimal',
  gap: 0,
  text: 'First work at 06:30; all in time',
  begins: BEGINS,
  tasks: [
    task('1:mix', 30, 40, { slack: 12 }),
    task('1:bake', 60, 95, {
      kind: 'bake',
      oven: 'Back oven',
      temp_c: 180,
      check: at(80),
      surely: at(96),
      hands: [{ start_min: 60, end_min: 61 }],
    }),
    task('1:cool', 95, 155, { kind: 'cool', hands: [], person: -1 }),
  ],
  bakes: [{ id: '1', name: 'Rolls', due: at(240), ready: at(155), late_min: 0, trays: 1, loads: 1 }],
  heat: [{ oven: 'Back oven', minutes: [40, 60, 95], degrees: [22, 180, 180] }],
  late: [],
  holds: { share: 0.9, in_time: 1, windows: 0.9, tight: [], text: 'holds on about 9 in 10 days' },
  care: 'bakes at their slow end',
  tight: [],
  helps: [],
  moved: [],
  broken: [],
  horizon: 240,
} as unknown as Planned
const DOCUMENT = {
  name: 'Market',
  start: '2026-11-28T06:00',
  zone: '',
  people: 1,
  ovens: [{ name: 'Back oven', trays: 2, share_k: 10 }],
  has: {},
  closed: [],
  pins: [],
  happened: [],
  bakes: [{ formula_id: 7, id: '1', due: '2026-11-28T10:00', batches: 1, fresh_h: null, oven: '', priority: 1 }],
} as unknown as PlanDocument
const PLAN = { id: 3, name: 'Market', on: '2026-11-28', document: DOCUMENT, lock: 4, planned: PLANNED, stale: false, changed: [], feed: '' }

const THINGS = [
  { id: 'microwave', name: 'microwaves', lane: 'microwave', usual: 1 },
  { id: 'fridge', name: 'space in the fridge (doughs)', lane: 'fridge', usual: 6 },
  { id: 'tin', name: 'loaf pans and rings', lane: 'tins', usual: null },
]
const OVERNIGHT = {
  ...PLANNED,
  tasks: [
    task('1:mix', 900, 910),
    task('1:lie', 910, 1500, { kind: 'chill', hands: [], person: -1, uses: ['fridge'] }),
    task('1:melt', 1500, 1503, { uses: ['microwave'] }),
    task('1:bake', 1520, 1560, { kind: 'bake', oven: 'Back oven', hands: [{ start_min: 1520, end_min: 1521 }] }),
    task('1:cool', 1560, 1600, { kind: 'cool', hands: [], person: -1 }),
  ],
  bakes: [{ id: '1', name: 'Coins', due: at(1620), ready: at(1600), late_min: 0, trays: 1, loads: 1 }],
  heat: [{ oven: 'Back oven', minutes: [1500, 1520, 1560], degrees: [22, 160, 160] }],
  horizon: 1620,
} as unknown as Planned

describe('several days', () => {
  beforeEach(async () => {
    await onTheBench()
    useSession().words = { plan_things: THINGS } as never
  })

  it('give each thing that is taken a lane of its own, and what only lies another', () => {
    const view = mount(PlanLanes, { props: { planned: OVERNIGHT, people: 1, selected: '', mayMove: true, conflicts: null } })
    expect(view.findAll('[data-lane]').map((lane) => lane.attributes('data-lane'))).toEqual(['microwave', 'fridge', 'resting or cooling'])
    const boxes = (lane: string): number => view.get(`[data-lane="${lane}"]`).findAll('.block').length
    expect([boxes('microwave'), boxes('fridge'), boxes('resting or cooling')]).toEqual([1, 1, 1])
  })

  it('are seen side by side: what lies over midnight stands in both', async () => {
    const view = mount(PlanWeek, { props: { planned: OVERNIGHT, selected: '' } })
    expect(view.findAll('[data-day]').map((day) => day.attributes('data-day'))).toEqual(['Sat 28', 'Sun 29'])
    const [first, second] = view.findAll('[data-day]')
    const said = (day: typeof first): string[] => day?.findAll('[role=button]').map((b) => b.attributes('aria-label') ?? '') ?? []
    expect(said(first).join()).toContain('Do 1:lie, 21:10 to 07:00')
    expect(said(second).join()).toContain('Do 1:lie, 21:10 to 07:00')
    expect(said(first).join()).not.toContain('Do 1:bake')
    const rects = first?.findAll('.bar.lies rect') ?? []
    expect(Number(rects[0]?.attributes('x')) + Number(rects[0]?.attributes('width'))).toBeCloseTo(890, -1)
    await second?.get('[aria-label^="Do 1:bake"]').trigger('click')
    expect(view.emitted('select')).toEqual([['1:bake']])
  })

  it('ask for as many of a thing as there are, and for as many as wanted where nothing is said', async () => {
    const view = mount(PlanSetting, { props: { document: DOCUMENT, planned: PLANNED, mayEdit: true, busy: false }, global })
    const fields = view.get('.things').findAll('input')
    expect(fields.map((f) => f.attributes('placeholder'))).toEqual(['1', '6', 'enough'])
    await fields[2]?.setValue('2')
    await fields[2]?.trigger('change')
    expect(view.emitted('change')?.at(-1)).toEqual([{ has: { tin: 2 }, pins: [], happened: [] }])
    await view.setProps({ document: { ...DOCUMENT, has: { tin: 2 } } as unknown as PlanDocument })
    expect(view.get('.things summary').text()).toBe('2 loaf pans and rings')
    await fields[2]?.setValue('')
    await fields[2]?.trigger('change')
    expect(view.emitted('change')?.at(-1)).toEqual([{ has: {}, pins: [], happened: [] }])
  })
})

describe('the lanes of a day', () => {
  beforeEach(() => onTheBench())
  const lanes = (over: object = {}) =>
    mount(PlanLanes, { props: { planned: PLANNED, people: 1, selected: '', mayMove: true, conflicts: null, ...over } })

  it('say every block with its times, and when to look', () => {
    const said = lanes()
      .findAll('[role=button]')
      .map((block) => block.attributes('aria-label'))
    expect(said).toContain('Do 1:mix, 06:30 to 06:40')
    expect(said).toContain('Do 1:bake, 07:00 to 07:35, check from 07:20, out by 07:36 at the latest')
  })

  it('draw the oven’s temperature as height and tell it once', () => {
    const view = lanes()
    expect(view.findAll('.degrees').map((d) => d.text())).toEqual(['180 °C'])
    expect(view.get('.heat').attributes('d')).toMatch(/^M[\d.]+,\d+ L/)
  })

  it('nudge a block with the arrows, and open it with Enter', async () => {
    const view = lanes()
    const block = view.get('[aria-label^="Do 1:mix"]')
    await block.trigger('keydown', { key: 'ArrowRight' })
    await block.trigger('keydown', { key: 'ArrowLeft' })
    await block.trigger('keydown', { key: 'Enter' })
    expect(view.emitted('drop')).toEqual([
      ['1:mix', 35],
      ['1:mix', 25],
    ])
    expect(view.emitted('select')).toEqual([['1:mix']])
  })

  it('move nothing for who may not', async () => {
    const view = lanes({ mayMove: false })
    await view.get('[aria-label^="Do 1:mix"]').trigger('keydown', { key: 'ArrowRight' })
    expect(view.emitted('drop')).toBeUndefined()
  })
})

describe('a list of bakes', () => {
  it('is read from a file; each keeps its time, and what is not known is told', async () => {
    await onTheBench()
    answering('/plans', { rows: [], total: 0 })
    answering('/formulas', { items: [], total: 0 })
    answering('/ovens', [])
    answering('/plans/read', [
      { formula_id: 7, name: 'Rolls', due: '2026-11-28T09:30', batches: 2, fresh_h: null },
      { formula_id: 0, name: 'Moon pies', due: '2026-11-28T09:30', batches: 1, fresh_h: null },
    ])
    const view = mount(PlansHome, { global })
    await flushPromises()
    const input = view.get('input[type=file]')
    Object.defineProperty(input.element, 'files', { value: [new File(['formula,ready'], 'day.csv')] })
    await input.trigger('change')
    await vi.waitFor(() => {
      expect(view.text()).toContain('No formula with this name: Moon pies.')
    })
    expect(view.get('.told').text()).toBe('Rolls · 2026-11-28 09:30 · 2×')
    await view.get('.act-button').trigger('click')
    await flushPromises()
    const made = asked.filter((a) => a.method === 'POST' && a.path.endsWith('/plans')).at(-1)?.body as PlanDocument
    expect(made.bakes).toMatchObject([{ formula_id: 7, due: '2026-11-28T09:30', batches: 2 }])
  })
})

describe('what a plan is made of', () => {
  beforeEach(async () => {
    await onTheBench()
    answering('/formulas', { items: [{ id: 7, name: 'Rolls' }], total: 1 })
  })
  const setting = () => mount(PlanSetting, { props: { document: DOCUMENT, planned: PLANNED, mayEdit: true, busy: false }, global })

  it('changes batches, people and trays within reason, and lets pins go where they no longer hold', async () => {
    const view = setting()
    await view.get('[aria-label="Batches of Rolls"]').setValue('3')
    await view.get('[aria-label="Batches of Rolls"]').trigger('change')
    expect((view.emitted('change')?.at(-1)?.[0] as PlanDocument).bakes[0]?.batches).toBe(3)
    const people = view.findAll('.row input')[0]
    await people?.setValue('99')
    await people?.trigger('change')
    expect(view.emitted('change')?.at(-1)?.[0]).toEqual({ people: 20, pins: [], happened: [] })
  })

  it('closes the night before the first deadline', async () => {
    useSession().words = { limits: LIMITS } as never
    const view = setting()
    view.findComponent({ name: 'VCheckboxBtn' }).vm.$emit('update:modelValue', true)
    await flushPromises()
    expect(view.emitted('change')?.at(-1)?.[0]).toEqual({ closed: [{ start: '2026-11-27T22:00', end: '2026-11-28T06:00' }] })
  })
})

describe('a plan', () => {
  beforeEach(async () => {
    await onTheBench()
    answering('/formulas', { items: [], total: 0 })
    answering('/plans/{plan_id}', PLAN)
  })

  it('shows its sentence, its clock and its lanes', async () => {
    const view = mount(PlanView, { props: { planId: 3 }, global })
    await flushPromises()
    expect(view.get('.sentence').text()).toContain('First work at 06:30; all in time')
    expect(view.findAll('.clock li').map((row) => row.text())).toHaveLength(2)
  })

  it('pins a block that is dropped, and asks for it to be planned', async () => {
    answering('/jobs', { id: 1, kind: 'plan', state: 'waiting', done: 0, total: 100, problem: null, created_at: '' })
    const view = mount(PlanView, { props: { planId: 3 }, global })
    await flushPromises()
    view.getComponent(PlanLanes).vm.$emit('drop', '1:bake', 75)
    await flushPromises()
    const kept = asked.find((one) => one.method === 'PUT')?.body as { document: PlanDocument; lock: number }
    expect(kept.lock).toBe(4)
    expect(kept.document.pins).toEqual([{ task: '1:bake', start: '2026-11-28T07:15', end: '', expected: '' }])
    expect(asked.some((one) => one.path.endsWith('/jobs'))).toBe(true)
  })

  it('says what could not be kept', async () => {
    refusing('/plans/{plan_id}', 409, 'somebody else has changed the plan')
    const view = mount(PlanView, { props: { planId: 3 }, global })
    await flushPromises()
    expect(view.get('[role=alert]').text()).toContain('omebody else has changed the plan')
  })
})

describe('days and lists', () => {
  beforeEach(async () => {
    await onTheBench()
  })

  it('make a day of the ticked formulas', async () => {
    answering('/plans', { rows: [{ id: 3, name: 'Market', on: '2026-11-28', bakes: 2, touched_at: '' }], total: 1 })
    answering('/formulas', { items: [{ id: 7, name: 'Rolls' }], total: 1 })
    answering('/ovens', [{ name: 'Back oven' }])
    const view = mount(PlansHome, { global })
    await flushPromises()
    expect(view.text()).toContain('Market')
    view.findAllComponents({ name: 'VCheckboxBtn' })[0]?.vm.$emit('update:modelValue', true)
    await flushPromises()
    await view.get('.act-button').trigger('click')
    const body = asked.find((one) => one.method === 'POST' && one.path.endsWith('/plans'))?.body as PlanDocument
    expect(body.bakes.map((bake) => bake.formula_id)).toEqual([7])
    expect(body.ovens[0]?.name).toBe('Back oven')
  })

  it('tick what is in the bag, and tell what is in the cupboard', async () => {
    const row = { section: 'baking', on_hand_g: 0, pack_g: null, price: null, currency: '', bakes: ['Rolls'], packs: null }
    answering('/shopping', {
      rows: [
        { ...row, ingredient: 'salt', name: 'Salt', wanted_g: 8, short_g: 8, text: 'Salt: 8 g' },
        { ...row, ingredient: 'egg', name: 'Egg', wanted_g: 50, short_g: 0, on_hand_g: 300, text: 'Egg: there is enough' },
      ],
      ticked: [],
      price: null,
      currency: '',
    })
    const view = mount(ShoppingView, { props: { planId: 3 }, global })
    await flushPromises()
    expect(view.text()).toContain('1 to buy, 0 in the cart')
    expect(view.text()).toContain('1 already in stock')
    view.findComponent({ name: 'VCheckboxBtn' }).vm.$emit('update:modelValue', true)
    await flushPromises()
    expect(view.text()).toContain('1 in the cart')
    expect(asked.at(-1)?.body).toEqual({ ingredient: 'salt', done: true })
  })
})
