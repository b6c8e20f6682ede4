// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Cooling, PrepTask, VegetableDrying } from '@/api/types'
import { DOCUMENT, onTheBench } from '@/testing/kitchen'

vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api: (await import('@/testing/server')).api }))

import PlainChart from '@/components/charts/PlainChart.vue'
import CoolingChart from './CoolingChart.vue'
import PremixTable from './PremixTable.vue'
import VegetableChain from './VegetableChain.vue'

const numbers = (text: string | undefined): number[] => (text ?? '').match(/-?[\d.]+/g)?.map(Number) ?? []

describe('a plain chart', () => {
  it('draws its points upwards, ticks round numbers, and keeps levels and moments where they belong', () => {
    const view = mount(PlainChart, {
      props: {
        points: [
          [0, 10],
          [10, 30],
          [20, 20],
        ] as const,
        levels: [{ at: 25, word: 'enough' }],
        moments: [{ at: 10, word: 'now' }],
        xWord: 'min',
        yWord: '°C',
        label: 'A curve',
      },
    })
    const [, y0 = 0, x1 = 0, y1 = 0, x2 = 0, y2 = 0] = numbers(view.get('path.line').attributes('d'))
    expect(y1).toBeLessThan(y2)
    expect(y2).toBeLessThan(y0)
    const [level, moment] = view.findAll('.level')
    expect(Number(level?.attributes('y1'))).toBeCloseTo((y1 + y2) / 2, 0)
    expect(Number(moment?.attributes('x1'))).toBeCloseTo(x1, 0)
    expect(x2).toBeGreaterThan(x1)
    expect(view.findAll('text').map((t) => t.text())).toEqual(expect.arrayContaining(['10', '20', '30', 'min', 'enough', 'now']))
    expect(view.get('svg').attributes('aria-label')).toBe('A curve')
  })

  it('goes by steps where it is told to, and has a soft band where there is one', () => {
    const plain = {
      points: [
        [0, 1],
        [5, 2],
      ] as const,
      xWord: '',
      yWord: '',
      label: '',
    }
    expect(
      numbers(
        mount(PlainChart, { props: { ...plain, steps: true } })
          .get('path.line')
          .attributes('d'),
      ),
    ).toHaveLength(6)
    const band = mount(PlainChart, {
      props: {
        ...plain,
        band: [
          [0, 0, 2],
          [5, 1, 3],
        ] as const,
      },
    })
    expect(numbers(band.get('path.smear').attributes('d'))).toHaveLength(8)
  })
})

describe('the bench clock', () => {
  beforeEach(() => onTheBench())
  const cooling = (change: object = {}): Cooling =>
    ({
      curve: [
        { minutes: 0, temperature_c: 60 },
        { minutes: 30, temperature_c: 30 },
      ],
      until_c: 40,
      minutes: 17.6,
      start_c: 60,
      room_c: 22,
      ...change,
    }) as unknown as Cooling

  it('marks where the dough cracks and when, and says where it starts', () => {
    const view = mount(CoolingChart, { props: { cooling: cooling() } })
    expect(view.text()).toContain('cracks below')
    expect(view.text()).toContain('18 min')
    expect(view.get('svg').attributes('aria-label')).toBe('Cooling from 60 °C in a 22 °C room')
    expect(mount(CoolingChart, { props: { cooling: cooling({ until_c: null, minutes: null }) } }).findAll('.level')).toHaveLength(0)
  })
})

describe('the premix', () => {
  const premix = {
    batches: 4,
    parts: [{ line: 'a', name: 'almond flour', code: 'Al', role: 'base', share: 1, grams: 100, whole_g: 400 }],
  } as unknown as NonNullable<PrepTask['premix']>
  let bench: Awaited<ReturnType<typeof onTheBench>>
  beforeEach(async () => {
    bench = await onTheBench()
  })

  it('takes what the scale really showed into the formula, with a comma too, and leaves nonsense alone', async () => {
    const view = mount(PremixTable, { props: { premix } })
    const field = view.get('input')
    expect(field.attributes('aria-label')).toBe('almond flour on the scale, g')
    for (const typed of ['', 'much', '-3', '0']) await field.setValue(typed)
    expect(bench.lines[0]?.grams).toBe(100)
    await field.setValue('103,5')
    expect(bench.lines[0]).toMatchObject({ grams: 103.5, entered: '103.5 g' })
    expect(view.emitted('weighing')).toHaveLength(1)
    expect((field.element as HTMLInputElement).value).toBe('')
  })
})

describe('the vegetable that is dried', () => {
  const stage = (act: string, grams: number, change: object = {}) => ({
    act,
    grams,
    water_g: grams * 0.8,
    solids_g: grams * 0.2,
    low: grams,
    high: grams,
    steam_g: 0,
    juice_g: 0,
    ...change,
  })
  const steps = [
    { act: 'microwave', minutes: 6, watts: 800 },
    { act: 'squeeze', times: 2 },
  ]
  const card = (change: object = {}): VegetableDrying =>
    ({
      line: 'a',
      start_g: 500,
      start_set: false,
      weighed: false,
      target_g: 180,
      steps,
      dried: {
        stages: [
          stage('start', 500),
          stage('microwave', 380, { steam_g: 120 }),
          stage('squeeze', 180, { juice_g: 200, low: 160, high: 200 }),
        ],
        sugars_lost_g: 3.2,
        potassium_lost_mg: 410,
        water_percent: 74,
      },
      schools: [
        {
          key: 'm',
          name: 'Microwave and squeeze',
          start_g: 500,
          water_percent: 74,
          sugars_lost_g: 3.2,
          steps,
          chosen: true,
          note: '',
          source: '',
        },
        {
          key: 's',
          name: 'Salt',
          start_g: 450,
          water_percent: 80,
          sugars_lost_g: 2,
          steps: [{ act: 'salt', minutes: 20, salt_g: 5 }],
          chosen: false,
          note: '',
          source: '',
        },
      ],
      ...change,
    }) as unknown as VegetableDrying
  let bench: Awaited<ReturnType<typeof onTheBench>>
  beforeEach(async () => {
    bench = await onTheBench({
      ...DOCUMENT,
      lines: [{ ...DOCUMENT.lines?.[0], prep: { steps, start_g: 500, weighed: false } }],
    } as typeof DOCUMENT)
  })
  const prep = (): Record<string, unknown> => bench.lines[0]?.prep as Record<string, unknown>
  const chain = (change: object = {}) => mount(VegetableChain, { props: { drying: card(change) } })

  it('is told as columns that lose their water, and what left it', () => {
    const view = chain()
    expect(view.get('svg').attributes('aria-label')).toBe(
      'raw 500 g, including 400 g water; microwaved 380 g, including 304 g water; squeezed 180 g, including 144 g water',
    )
    const tall = view.findAll('.water').map((w) => Number(w.attributes('height')))
    expect((tall[2] ?? 0) / (tall[0] ?? 1)).toBeCloseTo(0.36)
    expect(view.text()).toContain('120 g steam')
    expect(view.text()).toContain('200 g juice')
    expect(view.findAll('.range')).toHaveLength(1)
  })

  it('keeps what is set of a step and gives back a weight that was read before', async () => {
    await chain({ weighed: true }).get('[aria-label="microwave: watts"]').setValue('650')
    expect(prep()).toMatchObject({
      weighed: false,
      steps: [
        { act: 'microwave', minutes: 6, watts: 650 },
        { act: 'squeeze', times: 2 },
      ],
    })
    await chain().get('[aria-label="squeeze: number of times"]').setValue('40')
    expect(prep().steps).toEqual([
      { act: 'microwave', minutes: 6, watts: 650 },
      { act: 'squeeze', times: 10 },
    ])
  })

  it('takes the weight from the scale as the weight of the line', async () => {
    const view = chain()
    await view.get('[aria-label="Weighed after drying, g"]').setValue('191')
    expect(bench.lines[0]).toMatchObject({ grams: 191, entered: '191 g' })
    expect(prep()).toMatchObject({ weighed: true, start_g: 500 })
    expect(view.emitted('weighing')).toHaveLength(1)
  })

  it('changes to another way of drying, or to none', async () => {
    const buttons = chain().findAll('table button')
    expect(buttons.map((b) => b.text())).toEqual(['Skip drying', 'Use this'])
    await buttons[1]?.trigger('click')
    expect(prep()).toMatchObject({ steps: [{ act: 'salt', minutes: 20, salt_g: 5 }], start_g: null, weighed: false })
    await buttons[0]?.trigger('click')
    expect(bench.lines[0]?.prep).toBeNull()
  })
})
