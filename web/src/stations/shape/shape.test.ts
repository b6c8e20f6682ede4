// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { aPiece, onTheBench } from '@/testing/kitchen'

vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api: (await import('@/testing/server')).api }))

import PieceSide from './PieceSide.vue'
import TrayTop from './TrayTop.vue'

beforeEach(async () => {
  await onTheBench()
})
const number = (text: string | undefined): number => Number.parseFloat(text ?? 'NaN')

describe('the piece from the side', () => {
  const side = (change = {}, mayEdit = true) => mount(PieceSide, { props: { piece: aPiece(change), mayEdit } })

  it('is named by its measures, and a hair of a sheet is drawn thicker and says so', () => {
    expect(side().get('svg').attributes('aria-label')).toBe('Piece: 100 by 10 mm')
    expect(side({ thickness_mm: 2 }).text()).toMatch(/thickness shown \d+×/)
    expect(side({ thickness_mm: 30 }).text()).not.toContain('drawn')
  })

  it('shows a filling that ends at the free edge, and a seam where there is none', () => {
    const filled = side({ layers: 2, filling_mm: 8, seal_mm: 10, thickness_mm: 5 })
    const [dough, filling] = [filled.get('.grip.up'), filled.get('.filling')]
    const [wide, inner] = [number(dough.attributes('width')), number(filling.attributes('width'))]
    expect(inner / wide).toBeCloseTo(0.8)
    expect(side({ layers: 2 }).find('.seam').exists()).toBe(true)
    expect(side({ layers: 2 }).find('.filling').exists()).toBe(false)
  })

  it('shows where the hole of a ring goes through', () => {
    const view = side({ kind: 'ring', hole_mm: 30 })
    const [from, to] = view.findAll('.seam').map((l) => number(l.attributes('x1'))) as [number, number]
    expect((to - from) / number(view.get('.grip.up').attributes('width'))).toBeCloseTo(0.3)
  })

  it('answers the arrow keys, larger with shift, and never goes below a crumb', async () => {
    const view = side()
    const [up, aside] = [view.get('.grip.up'), view.get('.grip.aside')]
    await up.trigger('keydown', { key: 'ArrowUp' })
    await up.trigger('keydown', { key: 'ArrowDown', shiftKey: true })
    await up.trigger('keydown', { key: 'x' })
    await aside.trigger('keydown', { key: 'ArrowLeft', shiftKey: true })
    expect(view.emitted('thickness')).toEqual([[10.5], [5]])
    expect(view.emitted('size')).toEqual([[50]])
    expect(side({ thickness_mm: 0.6 }, false).emitted('thickness')).toBeUndefined()
  })

  it('does not move for a viewer', async () => {
    const view = side({}, false)
    await view.get('.grip.up').trigger('keydown', { key: 'ArrowUp' })
    expect(view.emitted()).not.toHaveProperty('thickness')
  })
})

describe('the tray from above', () => {
  const tray = {
    id: 't',
    name: 'Tray',
    kind: 'tray',
    region: '',
    length_mm: 400,
    width_mm: 300,
    height_mm: 20,
    taper: 1,
    source: '',
  } as never
  const places = [
    { x_mm: 80, y_mm: 80, width_mm: 125, height_mm: 125 },
    { x_mm: 220, y_mm: 80, width_mm: 125, height_mm: 125 },
  ] as never
  const top = (change: Record<string, unknown> = {}, piece = {}) =>
    mount(TrayTop, { props: { tray, places, round: true, piece: aPiece(piece), onLast: 1, docking: 0, ...change } })

  it('draws a ring with its hole', () => {
    expect(
      top({}, { kind: 'ring', hole_mm: 30 })
        .findAll('.through')
        .map((c) => number(c.attributes('r'))),
    ).toEqual([15, 15])
    expect(top().find('.through').exists()).toBe(false)
  })

  it('is drawn to scale: each piece as it is laid inside its size after the oven', () => {
    const view = top()
    expect(view.get('svg').attributes('aria-label')).toBe('Tray, 400 by 300 mm: 2 pieces')
    expect(view.findAll('.dough').map((c) => number(c.attributes('r')))).toEqual([50, 50])
    expect(view.findAll('.grown').map((c) => number(c.attributes('r')))).toEqual([62.5, 62.5])
  })

  it('marks the places that stay empty on the last tray', () => {
    expect(top().findAll('.spare')).toHaveLength(1)
    expect(top({ onLast: 2 }).findAll('.spare')).toHaveLength(0)
  })

  it('docks cut pieces as far apart as the plan says', () => {
    const cut = { kind: 'cut', length_mm: 40, width_mm: 20, grown_length_mm: 40, grown_width_mm: 20 } as const
    expect(top({ round: false, docking: 10 }, cut).findAll('.hole')).toHaveLength(2 * 4 * 2)
    expect(top({ round: false, docking: 0 }, cut).findAll('.hole')).toHaveLength(0)
  })

  it('lays a folded disc as a half moon along its fold', () => {
    const fold = { kind: 'fold', length_mm: 120, width_mm: 60, grown_length_mm: 120, grown_width_mm: 60 } as const
    const flat = [{ x_mm: 80, y_mm: 80, width_mm: 120, height_mm: 60 }]
    expect(top({ round: false, places: flat }, fold).get('.dough').attributes('d')).toBe('M 20 110 A 60 60 0 0 1 140 110 Z')
  })
})
