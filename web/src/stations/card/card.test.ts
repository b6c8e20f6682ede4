// @vitest-environment happy-dom
import { enableAutoUnmount, flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { FormulaDocument, Panel } from '@/api/types'
import { AGAIN_MS } from '@/api/policy'
import { onTheBench } from '@/testing/kitchen'
import { answering, asked, losing, refusing, slowly } from '@/testing/server'

vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api: (await import('@/testing/server')).api }))

import CardView from './CardView.vue'
import PanelSheet from './PanelSheet.vue'
import RecipeSheet from './RecipeSheet.vue'

const aPanel = (style: 'us' | 'eu'): Panel =>
  ({
    style,
    title: style === 'us' ? 'Nutrition Facts' : 'Nutrition declaration',
    servings: '8 servings',
    serving: '1 piece (84 g)',
    columns: ['a serving'],
    notes: ['Rounded as the rules say.'],
    rows: [
      { key: 'energy_kcal', name: 'Calories', indent: 0, cells: [{ text: '190', range_text: '180–200' }], daily_percent: '' },
      { key: 'fibre', name: 'Dietary Fiber', indent: 1, cells: [{ text: '8 g', range_text: '' }], daily_percent: '28 %' },
    ],
  }) as unknown as Panel

enableAutoUnmount(afterEach)

describe('a nutrition panel', () => {
  it('of the United States has servings and daily values', () => {
    const view = mount(PanelSheet, { props: { panel: aPanel('us'), ranges: false } })
    expect(view.text()).toContain('1 piece (84 g)')
    expect(view.findAll('.dv').map((c) => c.text())).toEqual(['', '28 %'])
    expect(view.findAll('tbody tr').map((r) => r.classes())).toEqual([['in-0', 'big'], ['in-1']])
    expect(view.text()).toContain('Rounded as the rules say.')
  })

  it('of the European Union has neither', () => {
    const view = mount(PanelSheet, { props: { panel: aPanel('eu'), ranges: false } })
    expect(view.text()).not.toContain('servings')
    expect(view.find('.dv').exists()).toBe(false)
  })

  it('shows what the ranges could print only when asked, and only where there is a range', () => {
    expect(
      mount(PanelSheet, { props: { panel: aPanel('us'), ranges: false } })
        .find('.could')
        .exists(),
    ).toBe(false)
    expect(
      mount(PanelSheet, { props: { panel: aPanel('us'), ranges: true } })
        .findAll('.could')
        .map((c) => c.text()),
    ).toEqual(['180–200'])
  })
})

describe('the card', () => {
  let bench: Awaited<ReturnType<typeof onTheBench>>
  const aCard = (name: string): object => ({
    name,
    form: 'Bun',
    pieces: 6,
    piece_g: { value: 80 },
    us_net_carbs: { estimate: { value: 3, low: 2, high: 4 }, rule: 'by the rule' },
    eu_net_carbs: { estimate: { value: 5, low: 4, high: 6 }, rule: 'by the other' },
    us_panel: null,
    eu_panel: null,
    us_statement: null,
    eu_statement: null,
    allergens: [],
    claims: [],
    unsure: [],
    cautions: [],
    problems: [],
  })
  const view = () => mount(CardView, { props: { id: 7 }, global: { stubs: { FormulaFrame: { template: '<div><slot /></div>' } } } })
  const rest = (): Promise<unknown> => vi.advanceTimersByTimeAsync(300)
  beforeEach(async () => {
    bench = await onTheBench()
    localStorage.setItem('card side', 'panel')
    vi.useFakeTimers()
  })
  afterEach(() => {
    vi.useRealTimers()
  })

  it('of an older document never takes the place of a newer one’s, however late it comes', async () => {
    const waiting = slowly('/card')
    const card = view()
    await rest()
    bench.edit((doc) => ({ ...doc, name: 'Newer' }))
    await rest()
    waiting[1]?.answer(aCard('Newer'))
    await rest()
    waiting[0]?.answer(aCard('Older'))
    await rest()
    expect(card.get('h2').text()).toBe('Newer')
  })

  it('that is refused says why at once, and the next edit asks again', async () => {
    refusing('/card', 422, 'pieces cannot be counted')
    const card = view()
    await rest()
    expect(card.get('[role=alert]').text()).toContain('Pieces cannot be counted')
    expect(asked.filter((a) => a.path.endsWith('/card'))).toHaveLength(1)
    answering('/card', aCard('Mended'))
    bench.edit((doc) => ({ ...doc, name: 'Mended' }))
    await rest()
    expect(card.get('h2').text()).toBe('Mended')
    expect(card.find('[role=alert]').exists()).toBe(false)
  })

  it('that is lost on the way comes by itself once the network is back', async () => {
    losing('/card')
    const card = view()
    await rest()
    expect(card.get('[role=alert]').text()).toContain('cannot be reached')
    answering('/card', aCard('Back'))
    await vi.advanceTimersByTimeAsync(AGAIN_MS + 50)
    await flushPromises()
    expect(card.get('h2').text()).toBe('Back')
    expect(card.find('[role=alert]').exists()).toBe(false)
  })
})

describe('the recipe', () => {
  const aRecipe = {
    name: 'Rolls',
    form: 'Bun',
    yields: '8 pieces of about 87 g',
    groups: [
      { title: 'Dry bowl', lines: [{ line: 'salt', name: 'Salt', grams: 8, amount: '8 g', measure: '1¼ tsp', weigh_it: true, note: '' }] },
    ],
    steps: [
      { id: 'mix:1', title: 'Mix', text: 'Sift it.', computed: 'Sift it.', edited: false, stale: false },
      { id: 'bake', title: 'Bake', text: 'My way.', computed: 'Bake it 20 min.', edited: true, stale: true },
    ],
    keeping: { room_days: 1, fridge_days: 5, freezer_months: 3, text: 'Keeps.' },
    variants: [{ kind: 'seasoning', name: 'Caraway', text: '6 g caraway seeds, into the dry things.' }],
    cost: '',
    net_carbs: '3.4 g',
    net_rule: 'by the rule',
    notes: '',
  }

  it('keeps a step in the baker’s words with what it stood for, and takes the computed one back', async () => {
    const bench = await onTheBench()
    answering('/recipe', aRecipe)
    const view = mount(RecipeSheet, { props: { document: bench.document as FormulaDocument, batches: 1, sort: '' } })
    await flushPromises()
    expect(view.text()).toContain('weigh it')
    expect(view.text()).toContain('Caraway: 6 g caraway seeds')
    expect(view.text()).toContain('The numbers changed since you edited this step. Now: Bake it 20 min.')
    await view.get('[aria-label="Rewrite: Mix"]').trigger('click')
    await view.get('textarea').setValue('Whisk it.')
    const buttons = view.findAll('button')
    await buttons.find((b) => b.text() === 'Save')?.trigger('click')
    expect(bench.document?.method).toEqual({ 'mix:1': { text: 'Whisk it.', of: 'Sift it.' } })
    bench.edit((doc) => ({ ...doc, method: { bake: { text: 'My way.', of: 'Bake it 15 min.' } } }))
    await view
      .findAll('button')
      .find((b) => b.text() === 'Use new text')
      ?.trigger('click')
    expect(bench.document?.method).toEqual({})
  })
})
