// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { useSession } from '@/stores/session'
import { LIMITS, DOCUMENT, onTheBench } from '@/testing/kitchen'

vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api: (await import('@/testing/server')).api }))

import HandlingCurve from './HandlingCurve.vue'
import TextureBars from './TextureBars.vue'

const point = (minutes: number, temperature_c: number, consistency: number): object => ({
  minutes,
  temperature_c,
  consistency,
  low: consistency - 0.4,
  high: consistency + 0.4,
  class_name: 'tacky',
  probability: 0.7,
})
const handling = {
  text: 'Tacky at mixing, rollable after 6 min.',
  fits: true,
  rest_min: 10,
  shaped_c: 24,
  temperature_c: 24,
  usual_c: 24,
  melted: true,
  pressed: true,
  has_cheese: true,
  crumbly: 0.02,
  at_shaping: point(10, 24, 3.4),
  wanted_low: 'rollable',
  wanted_high: 'rollable',
  knead_min: 2,
  ready_min: 6,
  closes_min: null,
  brittle_below_c: 31,
  minutes: [point(0, 24, 2), point(10, 24, 3.4), point(20, 24, 3.6)],
  degrees: [point(10, 5, 5), point(10, 70, 1)],
  probabilities: [
    { class_name: 'rollable', probability: 0.82 },
    { class_name: 'tacky', probability: 0.17 },
    { class_name: 'stiff', probability: 0.01 },
  ],
  bands: [
    { class_name: 'tacky', low: 2.4, high: 3.1 },
    { class_name: 'rollable', low: 3.1, high: 4 },
  ],
}
const bar = (key: string, label: string, value: number, confidence: string): object => ({
  key,
  label,
  value,
  low: value - 1,
  high: value + 1,
  confidence,
  low_word: 'soft',
  high_word: 'brittle',
  basis: 'assumed',
  terms: [
    { what: 'dry through', amount: 2.5, lines: [] },
    { what: 'egg', amount: -1.25, lines: ['a'] },
  ],
})
const texture = {
  text: 'Eats crisp.',
  thickness_mm: 4,
  oven_c: 180,
  moisture_percent: 5,
  moisture_source: 'dried',
  scores: [bar('crisp', 'Crisp', 7, 'computed'), bar('eggy', 'Eggy', 2, 'hint')],
}
const baked = {
  moisture_percent: 5,
  source: 'dried',
  bake_to_piece_g: 20,
  loss: { value: 0.2, low: 0.1, high: 0.3 },
  bake_to_g: 400,
  fat_taken_g: 0,
}

const curve = async (change: object = {}, mayEdit = true) => {
  const bench = await onTheBench(DOCUMENT, mayEdit, 'metric', {
    handling: { ...handling, ...change },
    basis: { handling: 'Rests on 4 practised doughs of this kind.' },
  })
  useSession().words = { limits: LIMITS } as never
  await flushPromises()
  return { bench, view: mount(HandlingCurve) }
}

describe('the thickening curve', () => {
  it('says what it draws, names the classes and marks the moments', async () => {
    const { view } = await curve()
    expect(view.get('svg').attributes('aria-label')).toContain('rollable after 6 min')
    expect(view.findAll('svg text').map((t) => t.text())).toEqual(expect.arrayContaining(['tacky', 'rollable', 'knead', 'ready', 'shape']))
    expect(view.text()).toContain('rollable 82 % · tacky 17 %')
    expect(view.text()).not.toContain('stiff 1')
    expect(view.text()).not.toContain('may crumble')
  })

  it('rises where the dough stiffens and lies inside its band', async () => {
    const { view } = await curve()
    const ys = (view.get('path.line').attributes('d') ?? '').match(/[\d.]+,[\d.]+/g)?.map((p) => Number(p.split(',')[1])) ?? []
    expect(ys).toHaveLength(3)
    expect([...ys].sort((a, b) => b - a)).toEqual(ys)
  })

  it('takes a rest in minutes, hours or both, and where it lies', async () => {
    const { bench, view } = await curve()
    const field = view.get('[aria-label="Rest before shaping, minutes or hours"]')
    expect(field.attributes('placeholder')).toBe('10 min')
    for (const [typed, minutes] of [
      ['45', 45],
      ['1:30', 90],
      ['12 h', 720],
      ['90 h', 2880],
      ['', null],
    ] as const) {
      await field.setValue(typed)
      expect(bench.document?.mix?.rest_min).toBe(minutes)
    }
    await view.findComponent({ name: 'VSelect' }).setValue('fridge')
    expect(bench.document?.mix).toMatchObject({ rest_in: 'fridge', cheese: '' })
    expect(view.text()).toContain('shaped at')
  })

  it('shows below which temperature a cheese dough cracks, over degrees', async () => {
    const { view } = await curve()
    await view.findAll('[role=radio]')[1]?.trigger('click')
    expect(view.findAll('svg text').map((t) => t.text())).toContain('cracks below')
    expect(view.get('[aria-checked=true]').text()).toBe('over °C')
  })

  it('takes another temperature, cold cheese and less work into the formula, and gives them back', async () => {
    const { bench, view } = await curve()
    const slider = view.get('input[type=range]')
    ;(slider.element as HTMLInputElement).value = '40'
    await slider.trigger('input')
    await slider.trigger('change')
    expect(bench.document?.mix?.temperature_c).toBe(40)
    for (const button of view.findAll('.quiet-button')) await button.trigger('click')
    expect(bench.document?.mix).toMatchObject({ cheese: 'cold', work: 'stirred' })
    await view
      .findAll('button')
      .find((b) => b.text() === 'as usual')
      ?.trigger('click')
    expect(bench.document?.mix?.temperature_c).toBeNull()
  })

  it('is in alarm when the dough does not fit its form, and still for a viewer', async () => {
    const { view } = await curve({ fits: false, crumbly: 0.6 }, false)
    expect(view.get('p').classes()).toContain('act')
    expect(view.text()).toContain('60 % chance of crumbling')
    expect(view.get('input[type=range]').attributes()).toHaveProperty('disabled')
  })
})

describe('the texture bars', () => {
  const bars = async () => {
    const bench = await onTheBench(DOCUMENT, true, 'metric', { texture, baked })
    await flushPromises()
    return { bench, view: mount(TextureBars) }
  }

  it('are as long as their score, with the range behind and how far to trust it', async () => {
    const { view } = await bars()
    expect(view.findAll('[role=img]').map((b) => b.attributes('aria-label'))).toEqual([
      'Crisp: 7.0 out of 10, likely (9 in 10) 6.0 to 8.0',
      'Eggy: 2.0 out of 10, likely (9 in 10) 1.0 to 3.0',
    ])
    expect(view.get('.value').attributes('style')).toContain('width: 70%')
    expect(view.findAll('.mark').map((m) => m.text())).toEqual(['computed', 'a hint'])
  })

  it('show what makes a score, and point at the line that does', async () => {
    const { bench, view } = await bars()
    await view.get('.row').trigger('click')
    expect(view.findAll('.term').map((t) => t.text())).toEqual(['+2.5 dry through', '−1.3 egg'])
    await view.findAll('.term')[1]?.trigger('click')
    expect(bench.selected).toBe('a')
  })

  it('take a final moisture with a comma, and none when the box is emptied', async () => {
    const { bench, view } = await bars()
    const box = view.get('[aria-label="Final moisture, %"]')
    await box.setValue('7,5')
    expect(bench.document?.bake).toMatchObject({ moisture_percent: 7.5, moisture_from: '' })
    await box.setValue('')
    expect(bench.document?.bake?.moisture_percent).toBeNull()
    await view.get('[aria-label="Thickness, mm"]').setValue('3')
    expect(bench.document?.form.size).toMatchObject({ held: 'thickness', thickness_mm: 3 })
  })
})
