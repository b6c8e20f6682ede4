// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import type { Analysis, Bracket } from '@/api/types'
import { useSession } from '@/stores/session'
import { onTheBench } from '@/testing/kitchen'
import BracketPanel from './BracketPanel.vue'
import BracketRuler from './BracketRuler.vue'
import EaterStrip from './EaterStrip.vue'

vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api: (await import('@/testing/server')).api }))

const aBracket = (change: object = {}): Bracket =>
  ({
    key: 'water_fill',
    estimate: { value: 50, low: 40, high: 60, unit: '%' },
    window: { low: 30, high: 70 },
    decimals: 0,
    state: 'inside',
    ruler: { low: 0, high: 100, ticks: [0, 25, 50, 75, 100] },
    ...change,
  }) as unknown as Bracket
const ruler = (change: object = {}, editable = true) =>
  mount(BracketRuler, { props: { bracket: aBracket(change), editable }, attachTo: document.body })
const number = (text: string | undefined): number => Number.parseFloat(text ?? 'NaN')

describe('a figure of the targets', () => {
  it('says what it is and what changes it, and opens by a question mark but not while a number is typed', async () => {
    await onTheBench()
    const session = useSession()
    const meaning = { key: 'water_fill', meaning: 'Water compared with capacity.', raised_by: 'water', lowered_by: 'flour' }
    session.words = { meanings: [meaning] } as unknown as typeof session.words
    const bracket = {
      ...aBracket(),
      label: 'Water fill',
      unit: '%',
      contributions: [],
      window_source: 'form',
      note: '',
    } as unknown as Bracket
    const view = mount(BracketPanel, { props: { bracket, open: true } })
    expect(view.text()).toContain('Water compared with capacity.Higher with water. Lower with flour.')
    await view.get('.head').trigger('keydown', { key: '?' })
    expect(view.emitted('toggle')).toHaveLength(1)
    await view.get('input').trigger('keydown', { key: '?' })
    expect(view.emitted('toggle')).toHaveLength(1)
  })
})

describe('the ruler of a bracket', () => {
  it('has its plumb mark in the middle of a ruler that the value halves, and the smear around it', () => {
    const view = ruler()
    expect(number(view.get('path.mark').attributes('d')?.slice(2))).toBeCloseTo(130)
    expect(number(view.get('.smear').attributes('cx'))).toBeCloseTo(130)
    expect(number(view.get('.smear').attributes('rx'))).toBeCloseTo(25.4)
    expect(number(view.get('.wanted').attributes('width'))).toBeCloseTo(101.6)
  })

  it('closes only the ends that are wanted', () => {
    expect(ruler().findAll('.end')).toHaveLength(2)
    const open = ruler({ window: { low: null, high: 70 } })
    expect(open.findAll('.end')).toHaveLength(1)
    expect(open.findAll('.hold')).toHaveLength(1)
    expect(number(open.get('.wanted').attributes('x'))).toBeCloseTo(3)
    expect(
      ruler({ window: { low: null, high: null } })
        .find('.wanted')
        .exists(),
    ).toBe(false)
  })

  it('is in alarm outside, points to what lies beyond its end, and shows nothing that is not defined', () => {
    expect(ruler().classes()).not.toContain('outside')
    expect(ruler({ state: 'high' }).classes()).toContain('outside')
    expect(ruler({ state: 'high', estimate: { value: 140, low: 120, high: 160 } }).findAll('path.mark')).toHaveLength(2)
    expect(ruler({ state: 'undefined' }).find('path.mark').exists()).toBe(false)
  })

  it('tells where an end is pulled to, in the grain of the bracket, and when it is let go', async () => {
    const view = ruler({ decimals: 1 })
    const svg = view.get('svg').element as unknown as { getBoundingClientRect: () => object }
    svg.getBoundingClientRect = () => ({ left: 0, width: 260 })
    const high = view.findAll('.hold')[1]
    if (!high) throw new Error('no upper end')
    ;(high.element as unknown as { setPointerCapture: () => void }).setPointerCapture = () => undefined
    await high.trigger('pointermove', { clientX: 60 })
    await high.trigger('pointerdown', { clientX: 181, pointerId: 1 })
    await high.trigger('pointermove', { clientX: 130 })
    await high.trigger('pointerup', { clientX: 206.2 })
    await high.trigger('pointermove', { clientX: 20 })
    expect(view.emitted('window')).toEqual([
      ['high', 50, false],
      ['high', 80, true],
    ])
  })

  it('has nothing to pull for a viewer', () => {
    expect(ruler({}, false).find('.hold').exists()).toBe(false)
  })
})

describe('the eaters', () => {
  const eaters = [
    {
      eater: 'Strict day',
      pieces: 3,
      limit: 'Sodium',
      text: 'Three pieces.',
      budgets: [{ key: 'sodium', name: 'Sodium', unit: 'mg', a_day: 1500, share_of_piece: 0.31, a_piece: { value: 465 } }],
    },
    {
      eater: 'Anybody',
      pieces: 99,
      limit: '',
      text: '',
      budgets: [{ key: 'k', name: 'Carbs', unit: 'g', a_day: 20, share_of_piece: 2.5, a_piece: { value: 50 } }],
    },
  ] as unknown as Analysis['eaters']

  it('say how many pieces fit and what stops the next, and open to the budgets one at a time', async () => {
    const view = mount(EaterStrip, { props: { eaters } })
    expect(view.text()).toContain('3 pieces · sodium')
    expect(view.text()).toContain('any')
    const [strict, anybody] = view.findAll('.eater')
    await strict?.trigger('click')
    expect(strict?.attributes('aria-expanded')).toBe('true')
    expect(view.text()).toContain('465 of 1500 mg')
    await anybody?.trigger('click')
    expect(strict?.attributes('aria-expanded')).toBe('false')
    expect(view.get('.bar i').attributes('style')).toContain('width: 100%')
    await anybody?.trigger('click')
    expect(view.find('.more').exists()).toBe(false)
  })
})
