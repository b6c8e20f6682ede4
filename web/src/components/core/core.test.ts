// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { FormulaDocument } from '@/api/types'
import { DOCUMENT, onTheBench } from '@/testing/kitchen'

vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api: (await import('@/testing/server')).api }))

import CoreColumn from './CoreColumn.vue'

const line = (id: string, grams: number, locked = false) => ({ ...DOCUMENT.lines?.[0], id, grams, entered: `${grams} g`, locked })
const dough = { ...DOCUMENT, lines: [line('a', 100), line('b', 50), line('c', 30, true)] } as FormulaDocument
const reading = (id: string, role: string, grams: number) => ({
  id,
  ingredient: 'almond-flour',
  role,
  code: id.toUpperCase(),
  name: `Line ${id}`,
  step_g: 5,
  grams,
  grams_low: grams,
  grams_high: grams,
})
const analysis = {
  lines: [reading('a', 'base', 100), reading('b', 'egg', 50), reading('c', 'liquid', 30)],
  totals: { whole_g: 180, dough_g: 150 },
  water: { fill: { value: 0.6 } },
}

describe('the core', () => {
  let bench: Awaited<ReturnType<typeof onTheBench>>
  beforeEach(async () => {
    bench = await onTheBench(dough, true, 'metric', analysis)
    await vi.waitFor(() => {
      expect(bench.analysis).not.toBeNull()
    })
  })
  const column = () => mount(CoreColumn, { attachTo: document.body })
  const grip = (view: ReturnType<typeof column>, id: string) => view.get(`[data-grip="${id}"]`)
  const grams = (id: string): unknown => bench.lines.find((l) => l.id === id)?.grams

  it('has a stratum for each line, as high as its grams, in the colour of its role', () => {
    const view = column()
    expect(view.findAll('.stratum')).toHaveLength(3)
    const bottoms = ['a', 'b', 'c'].map((id) => Number(grip(view, id).attributes('y')))
    const [a = 0, b = 0, c = 0] = bottoms
    expect((b - a) / (a - 0)).toBeCloseTo(0.5, 1)
    expect(c).toBeGreaterThan(b)
    expect(view.findAll('.stratum path').map((p) => p.attributes('style'))).toEqual(
      expect.arrayContaining([expect.stringContaining('hatch-egg')]),
    )
  })

  it('tells the dough apart from what lies beside it, and where the water stands', () => {
    expect(column().text()).toContain('180 g, 150 of it dough')
    expect(column().text()).toContain('water fill 60 %')
  })

  it('answers the arrow keys by the step of the line, tenfold with shift, never below nothing', async () => {
    const view = column()
    await grip(view, 'a').trigger('keydown', { key: 'ArrowDown' })
    expect(grams('a')).toBe(105)
    await grip(view, 'b').trigger('keydown', { key: 'ArrowUp', shiftKey: true })
    expect(grams('b')).toBe(0)
    await grip(view, 'b').trigger('keydown', { key: 'Enter' })
    await grip(view, 'c').trigger('keydown', { key: 'ArrowDown' })
    expect([grams('b'), grams('c')]).toEqual([0, 30])
  })

  it('changes grams while a boundary is pulled, as one step that can be undone', async () => {
    const view = column()
    const boundary = grip(view, 'a')
    ;(boundary.element as unknown as { setPointerCapture: () => void }).setPointerCapture = () => undefined
    await boundary.trigger('pointerdown', { clientY: 100, pointerId: 1 })
    for (const clientY of [104, 110, 120]) await boundary.trigger('pointermove', { clientY })
    await boundary.trigger('pointerup')
    expect(grams('a')).toBeGreaterThan(100)
    expect(bench.selected).toBe('a')
    bench.goBack()
    expect(grams('a')).toBe(100)
  })

  it('does not let a locked line be pulled, nor a viewer pull', async () => {
    const locked = grip(column(), 'c')
    expect(locked.attributes('aria-disabled')).toBe('true')
    await locked.trigger('pointerdown', { clientY: 0, pointerId: 1 })
    await locked.trigger('pointermove', { clientY: 60 })
    expect(grams('c')).toBe(30)
    await onTheBench(dough, false, 'metric', analysis)
    expect(column().text()).not.toContain('drag a boundary')
  })

  it('says what to do with an empty bowl', async () => {
    await onTheBench({ ...DOCUMENT, lines: [] })
    expect(column().text()).toContain('Your first ingredient becomes the first layer.')
  })
})
