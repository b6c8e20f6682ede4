// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { aBake, DOCUMENT, onTheBench } from '@/testing/kitchen'
import { useSession } from '@/stores/session'
import { answering, asked } from '@/testing/server'

vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api: (await import('@/testing/server')).api }))

import BakeCurves from './BakeCurves.vue'
import ColourStrip from './ColourStrip.vue'
import DepthPicture from './DepthPicture.vue'
import OvenLog from './OvenLog.vue'
import OvenSide from './OvenSide.vue'
import StageStrip from './StageStrip.vue'

let bench: Awaited<ReturnType<typeof onTheBench>>
beforeEach(async () => {
  bench = await onTheBench()
})
const stages = (): unknown[] => (bench.document?.bake?.stages ?? []).map((s) => [s.kind, s.minutes])
const number = (text: string | undefined): number => Number.parseFloat(text ?? 'NaN')

describe('the curves', () => {
  it('say in words what they draw, and draw the window to scale', () => {
    const view = mount(BakeCurves, { props: { forecast: aBake(), beside: null, span: 20 } })
    expect(view.get('svg').attributes('aria-label')).toBe('Core 98 °C and 12 % weight loss when done; egg-safe at 6 min')
    const [, , width] = (view.get('svg').attributes('viewBox') ?? '').split(' ').map(Number)
    expect(number(view.get('.window').attributes('x'))).toBeCloseTo(((width ?? 0) * 10) / 20)
    expect(number(view.get('.window').attributes('width'))).toBeCloseTo(((width ?? 0) * 5) / 20)
  })

  it('keep their words apart, whatever is lost', () => {
    for (const lost of [1, 6, 12, 16, 18, 20]) {
      const view = mount(BakeCurves, {
        props: { forecast: aBake({ hot_loss_percent: { low: lost, best: lost, high: lost } }), beside: null, span: 20 },
      })
      const [core, loss] = ['.core-word', '.loss-word'].map((word) => number(view.get(word).attributes('y')))
      expect(Math.abs((core ?? 0) - (loss ?? 0)), `words at ${lost} % lost`).toBeGreaterThanOrEqual(14)
    }
  })

  it('draw a safe mark only for what asks for one', async () => {
    const view = mount(BakeCurves, { props: { forecast: aBake({ safe_c: 74, safe_for: 'filling' }), beside: null, span: 20 } })
    expect(view.get('.safe-word').text()).toBe('74 °C filling-safe, passed at 6 min')
    await view.setProps({ forecast: aBake({ safe_c: null, safe_for: '', safe_min: null }) })
    expect(view.find('.safe').exists()).toBe(false)
  })

  it('lay a kept bake beside the present one', () => {
    const view = mount(BakeCurves, { props: { forecast: aBake(), beside: aBake(), span: 20 } })
    expect(view.findAll('path.old')).toHaveLength(2)
  })
})

describe('the colour', () => {
  it('marks gold and burnt where they are, and darkens from left to right', () => {
    const view = mount(ColourStrip, { props: { forecast: aBake(), beside: null, span: 20 } })
    expect(view.get('svg').attributes('aria-label')).toBe('Golden from 11 to 16 min; burnt at 19 min')
    expect(view.get('.said').text()).toBe('golden 11–16 min')
    const fills =
      view
        .findAll('g')[0]
        ?.findAll('rect')
        .map((r) => number(r.attributes('fill')?.slice(4))) ?? []
    expect(fills.length).toBeGreaterThan(3)
    expect([...fills].sort((a, b) => b - a)).toEqual(fills)
  })

  it('leaves out what never comes', async () => {
    const view = mount(ColourStrip, {
      props: { forecast: aBake({ golden_min: null, burnt_min: null, edge_min: null }), beside: null, span: 20 },
    })
    expect(view.find('.said').exists()).toBe(false)
    expect(view.find('.burnt').exists()).toBe(false)
    await view.setProps({ forecast: aBake({ golden_until_min: null }) })
    expect(view.get('.said').text()).toBe('golden from 11 min')
  })
})

it('the inside of the dough has a tile for every depth and moment, cold ones bluer than hot ones', () => {
  const view = mount(DepthPicture, { props: { forecast: aBake(), span: 20 } })
  const rgb = view
    .findAll('rect')
    .slice(0, 6)
    .map((r) => (r.attributes('fill') ?? '').match(/\d+/g)?.map(Number) ?? [])
  expect(rgb).toHaveLength(6)
  const [cold, hot] = [rgb[0] ?? [], rgb[1] ?? []]
  expect(cold[2]).toBeGreaterThan(cold[0] ?? 0)
  expect(hot[0]).toBeGreaterThan(hot[2] ?? 0)
  expect(view.get('svg').attributes('aria-label')).toBeTruthy()
})

describe('the stages', () => {
  const strip = () => mount(StageStrip, { props: { forecast: aBake(), span: 20 } })

  it('lie on the time line to scale, the last until done', () => {
    const view = strip()
    expect(view.findAll('.block').map((b) => b.attributes('style'))).toEqual([
      expect.stringContaining('left: 0%'),
      expect.stringContaining('left: 40%'),
    ])
    expect(view.get('.moment').text()).toBe('turn over')
    expect(view.get('.until').attributes('style')).toContain('left: 60%')
    expect(view.findAll('.edge')).toHaveLength(1)
  })

  it('are lengthened by the keyboard: the usual ones become the formula’s own', async () => {
    const view = strip()
    await view.get('.edge').trigger('keydown', { key: 'ArrowRight' })
    expect(stages()).toEqual([
      ['bake', 9],
      ['flip', null],
      ['finish', null],
    ])
    await view.get('.edge').trigger('keydown', { key: 'ArrowLeft', shiftKey: true })
    expect(stages()[0]).toEqual(['bake', 3])
    bench.goBack()
    bench.goBack()
    expect(stages()).toEqual([])
  })

  it('take an opened door before the finish, and go back to the usual ones', async () => {
    const view = strip()
    await view
      .findAll('.add button')
      .find((b) => b.text() === 'open the door')
      ?.trigger('click')
    expect(stages().slice(-2)).toEqual([
      ['door', null],
      ['finish', null],
    ])
    await view.get('.usual').trigger('click')
    expect(stages()).toEqual([])
  })

  it('read degrees in the kitchen’s unit and ignore what is no number', async () => {
    bench = await onTheBench(DOCUMENT, true, 'us')
    const view = strip()
    const box = view.get('input')
    expect((box.element as HTMLInputElement).value).toBe('390')
    await box.setValue('hot')
    expect(stages()).toEqual([])
    await box.setValue('400')
    expect(bench.document?.bake?.stages?.[0]?.oven_c).toBeCloseTo(204.4)
  })

  it('are called what the core calls them, and only what it offers can be added', () => {
    const forecast = aBake({ fried: true })
    const view = mount(StageStrip, {
      props: { forecast: { ...forecast, stages: forecast.stages.map((s) => ({ ...s, name: `${s.kind} in oil` })) }, span: 20 },
    })
    expect(view.findAll('.block b').map((b) => b.text())).toEqual(['bake in oil', 'finish in oil'])
    expect(view.findAll('.add button').map((b) => b.text())).toEqual(['open the door'])
  })

  it('do not move for a viewer', async () => {
    bench = await onTheBench(DOCUMENT, false)
    const view = strip()
    await view.get('.edge').trigger('keydown', { key: 'ArrowRight' })
    expect(stages()).toEqual([])
    expect(view.find('.add').exists()).toBe(false)
  })
})

describe('the oven', () => {
  const deck = {
    id: 5,
    key: 'deck',
    name: 'Deck',
    altitude_m: 640,
    archived: false,
    offset_k: 9,
    offset_half_k: 8,
    prior_half_k: 20,
    learned_from: 1,
    text: 'Deck: 9 °C hot ± 8',
    bakes: [
      {
        id: 2,
        formula_name: 'Rolls',
        minutes: 30,
        before_g: null,
        after_g: null,
        probe_c: null,
        logged_at: '2026-11-20T10:00:00Z',
      },
    ],
  }
  async function side(forecast = aBake()) {
    answering('/ovens', [deck])
    const view = mount(OvenSide, { props: { forecast, thickest: null, within: null } })
    await flushPromises()
    return view
  }

  it('is chosen by name, and its height stands where the formula says none', async () => {
    const view = await side()
    const height = () => view.get('[aria-label="Altitude, m"]')
    expect(height().attributes('placeholder')).toBe('0')
    await view.get('[aria-label="Which oven"]').setValue('deck')
    expect(bench.document?.bake?.oven).toBe('deck')
    expect(height().attributes('placeholder')).toBe('640')
    await height().setValue('1200')
    expect(bench.document?.bake?.altitude_m).toBe(1200)
  })

  it('is a pot of oil for what is fried: no fan, no tray, no oven', async () => {
    const view = await side(aBake({ fried: true }))
    expect(view.get('h3').text()).toBe('Deep-frying')
    expect(view.find('[aria-label=Oil]').exists()).toBe(true)
    for (const gone of ['Oven setting', 'Which oven', 'Trays in the oven', 'Baked on'])
      expect(view.find(`[aria-label="${gone}"]`).exists()).toBe(false)
  })

  it('offers other temperatures by one press and says which leaves most time', async () => {
    const view = await side()
    const rows = view.findAll('.settings li')
    expect(rows.map((r) => r.text().replaceAll(/\s+/g, ' '))).toEqual([
      '190 °C 14 min, then 5 min until too dark',
      '200 °C 12 min, then 6 min until too dark · suggested',
      '210 °C not done',
    ])
    await rows[0]?.get('button').trigger('click')
    expect(bench.document?.bake?.oven_c).toBe(190)
  })

  it('tells what is lost when it is cool', async () => {
    const view = await side()
    expect(view.text()).toContain('Formula, card, and label use this weight')
    expect(view.text()).toContain('500')
  })

  it('keeps trays between one and what the words allow', async () => {
    useSession().words = { most_trays: 6, bakeware: [] } as never
    const view = await side()
    const trays = view.get('[aria-label="Trays in the oven"]')
    for (const [typed, kept] of [
      ['2.4', 2],
      ['40', 6],
      ['none', 6],
    ] as const) {
      await trays.setValue(typed)
      expect(bench.document?.bake?.trays).toBe(kept)
    }
  })

  it('learns from what was seen, with a comma for the decimals', async () => {
    const view = mount(OvenLog, { props: { oven: deck } })
    await view.get('.toggle').trigger('click')
    expect(view.text()).toContain('9 ± 8 °C')
    await view.get('[aria-label="Done at, minutes"]').setValue('31,5')
    answering('/bakes', deck)
    await view.get('form').trigger('submit')
    await flushPromises()
    expect(asked.find((a) => a.path.endsWith('/bakes'))).toMatchObject({
      method: 'POST',
      body: { minutes: 31.5, before_g: null, after_g: null, probe_c: null },
    })
    expect(view.emitted('learned')).toHaveLength(1)
  })
})
