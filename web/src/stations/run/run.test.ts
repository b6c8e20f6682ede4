// @vitest-environment happy-dom
import 'fake-indexeddb/auto'
import { enableAutoUnmount, flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { RunOut, RunStep } from '@/api/types'
import { LIMITS, onTheBench } from '@/testing/kitchen'
import { answering, asked } from '@/testing/server'

vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api: (await import('@/testing/server')).api }))

import { useRun } from '@/stores/run'
import { useOwnScale } from '@/composables/useOwnScale'
import { useSession } from '@/stores/session'
import FeelStep from './FeelStep.vue'
import NumberPad from './NumberPad.vue'
import TimerStrip from './TimerStrip.vue'
import WeighStep from './WeighStep.vue'

const STEP = {
  id: 'weigh:water',
  group: 'weigh',
  kind: 'weigh',
  text: 'Water',
  grams: 420,
  low_g: 400,
  high_g: 440,
  line: 'water',
  role: 'liquid',
  measure: '',
  target: '420 g ± 20',
  sign: '',
  measures: '',
  moment: '',
  starts: '',
  slip: '',
  bowl: 'jug',
  because: '',
  cautions: [],
} as unknown as RunStep
const FEEL = { ...STEP, id: 'feel', kind: 'feel', line: '', text: 'Press it' } as unknown as RunStep
const RUN = {
  run: { id: 5, name: 'Rolls' },
  document: {},
  plan: { steps: [STEP, FEEL], wanted_low: 'tacky', wanted_high: 'rollable' },
  verdict: null,
  entries: [],
  formula_archived: false,
} as unknown as RunOut

enableAutoUnmount(afterEach)
beforeEach(async () => {
  localStorage.clear()
  await onTheBench()
  answering('/runs/{run_id}', RUN)
  answering('/entries', { new: 0, entries: [] })
  useSession().words = { limits: LIMITS, feels: ['tacky', 'stiff', 'tears'] } as never
  await useRun().open(5)
})

describe('weighing', () => {
  it('keeps what is within what it may be, and goes on', async () => {
    const run = useRun()
    const view = mount(WeighStep, { props: { step: STEP, mixed: false } })
    for (const key of ['4', '1', '0'])
      await view
        .findAll('.key')
        .find((k) => k.text() === key)
        ?.trigger('click')
    expect(view.text()).toContain('10 g short')
    await (view.vm as unknown as { take: () => Promise<void> }).take()
    expect(run.weights.get('water')).toBe(410)
    expect(run.step?.id).toBe('feel')
  })

  it('keeps what a cup was filled to beside the weight, when the baker says so', async () => {
    const run = useRun()
    const view = mount(WeighStep, { props: { step: { ...STEP, measure: 'about 1¾ cups', filled: '1¾ cups' }, mixed: false } })
    await view
      .findAll('button')
      .find((b) => b.text() === 'I used this measure')
      ?.trigger('click')
    for (const key of ['4', '1', '0'])
      await view
        .findAll('.key')
        .find((k) => k.text() === key)
        ?.trigger('click')
    await (view.vm as unknown as { take: () => Promise<void> }).take()
    const kept = run.entries.find((e) => e.kind === 'weighed')
    expect(kept).toMatchObject({ what: 'water', value: 410, word: '1¾ cups' })
  })

  it('tells nothing of a cup where the weight was taken as written', async () => {
    const run = useRun()
    const view = mount(WeighStep, { props: { step: { ...STEP, measure: '1¾ cups', filled: '1¾ cups' }, mixed: false } })
    await view
      .findAll('button')
      .find((b) => b.text() === 'I used this measure')
      ?.trigger('click')
    await (view.vm as unknown as { take: () => Promise<void> }).take()
    expect(run.entries.find((e) => e.kind === 'weighed')).toMatchObject({ what: 'water', value: 420, word: '' })
  })

  it('asks the rest of the formula about what is off, and a chosen answer moves another target', async () => {
    const run = useRun()
    answering('/pour', {
      line: 'water',
      off_g: 80,
      tolerance_g: 20,
      within: false,
      text: '80 g too much water',
      ways: [{ kind: 'keeps', text: '+ 12 g flour', grams: { flour: 112 }, worse: [] }],
    })
    const view = mount(WeighStep, { props: { step: STEP, mixed: false } })
    await view.get('input[inputmode]').setValue('500')
    await (view.vm as unknown as { take: () => Promise<void> }).take()
    await flushPromises()
    expect(run.weights.size).toBe(0)
    expect(asked.find((a) => a.path.endsWith('/pour'))?.body).toMatchObject({ line: 'water', grams: 500 })
    await view
      .findAll('.way')
      .find((b) => b.text() === '+ 12 g flour')
      ?.trigger('click')
    await vi.waitFor(() => expect(run.weights.get('water')).toBe(500))
    expect(run.targets.get('flour')).toBe(112)
  })

  it('follows a target that was moved before', async () => {
    await useRun().write({ kind: 'note', what: 'target:water', value: 450, word: '' })
    const view = mount(WeighStep, { props: { step: STEP, mixed: false } })
    expect(view.text()).toContain('OK: 430 to 470 g')
    expect(view.text()).toContain('adjusted from 420 g')
  })

  it('into Separate bowls begins when an empty one stands on the scale, and weighs what comes into it', async () => {
    let send: ReadableStreamDefaultController<Uint8Array> | undefined
    const readable = new ReadableStream<Uint8Array>({ start: (controller) => void (send = controller) })
    const port = { open: () => Promise.resolve(), close: () => Promise.resolve(), readable }
    Object.defineProperty(navigator, 'serial', { value: { requestPort: () => Promise.resolve(port) }, configurable: true })
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    const shows = async (text: string): Promise<void> => {
      send?.enqueue(new TextEncoder().encode(`${text}\r\n`))
      // A stream answers in its own time, and intervals are not faked.
      await new Promise<void>((later) => {
        const soon = setInterval(() => {
          clearInterval(soon)
          later()
        }, 1)
      })
      await flushPromises()
    }
    const rest = async (): Promise<void> => {
      await vi.advanceTimersByTimeAsync(1300)
      await flushPromises()
    }
    const view = mount(WeighStep, { props: { step: STEP, mixed: false } })
    const press = (word: string) =>
      view
        .findAll('button')
        .find((b) => b.text() === word)
        ?.trigger('click')
    await press('Connect a USB scale')
    await vi.advanceTimersByTimeAsync(0)
    await shows('ST,GS,+ 0.0 g')
    await press('One bowl for all')
    expect(view.text()).toContain('Put an empty bowl on the scale.')
    await shows('ST,GS,+ 240.0 g')
    await rest()
    expect(view.text()).not.toContain('Put an empty bowl')
    expect(view.get('.live').text()).toContain('0 g on the scale')
    await shows('ST,GS,+ 660.0 g')
    await rest()
    // It lay still within what is right: it is weighed, without the bowl.
    expect(useRun().weights.get('water')).toBe(420)
    await useOwnScale().leave()
    vi.useRealTimers()
    Reflect.deleteProperty(navigator, 'serial')
  })

  it('logs what is written with one touch', async () => {
    const view = mount(WeighStep, { props: { step: STEP, mixed: false } })
    await (view.vm as unknown as { take: () => Promise<void> }).take()
    expect(useRun().weights.get('water')).toBe(420)
  })
})

describe('feeling', () => {
  it('keeps the word, tells the answer, and starts the clock that it asks for', async () => {
    const run = useRun()
    answering('/feel', {
      felt: 'stiff',
      fits: false,
      text: 'Stiff for a bun: wait 4 min',
      ways: [{ kind: 'wait', text: 'wait 4 min', minutes: 4, line: '', grams: null }],
    })
    const view = mount(FeelStep, { props: { step: FEEL } })
    await view
      .findAll('.word')
      .find((b) => b.text() === 'stiff')
      ?.trigger('click')
    await vi.waitFor(() => expect(view.text()).toContain('Stiff for a bun'))
    expect(run.entries.some((e) => e.kind === 'felt' && e.word === 'stiff')).toBe(true)
    await view.get('.way').trigger('click')
    expect(run.timers.map((t) => t.id)).toEqual(['feel-wait'])
  })
})

describe('the pad', () => {
  it('takes one point and wipes', async () => {
    const view = mount(NumberPad, { props: { modelValue: '1.5', unit: 'g', label: 'x' } })
    const press = (key: string) =>
      view
        .findAll('.key')
        .find((k) => k.text() === key)
        ?.trigger('click')
    await press('.')
    expect(view.emitted('update:modelValue')).toBeUndefined()
    await press('⌫')
    expect(view.emitted('update:modelValue')?.at(-1)).toEqual(['1.'])
  })
})

describe('timers on the screen', () => {
  it('show the next first, tell when to look, and lanes of what overlaps', async () => {
    const at = Date.parse('2026-05-02T06:10:00Z')
    const timer = (id: string, left: number, check = 0) => ({
      id,
      name: id,
      startedAt: at - 600_000,
      endsAt: at + left,
      checkAt: check ? at + check : 0,
      stopped: false,
      key: id,
    })
    const view = mount(TimerStrip, { props: { timers: [timer('turn', 60_000), timer('bake', 900_000, 300_000)], now: at } })
    expect(view.findAll('.left').map((t) => t.text())).toEqual(['1:00', '15:00'])
    expect(view.text()).toContain('check in 5:00')
    expect(view.findAll('.lane')).toHaveLength(2)
    await view
      .findAll('button')
      .find((b) => b.text() === '5 more')
      ?.trigger('click')
    expect(view.emitted('more')).toEqual([['turn', 5]])
    await view.setProps({ now: at + 120_000 })
    expect(view.findAll('.left')[0]?.text()).toBe('+1:00')
  })
})
