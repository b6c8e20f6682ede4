import { describe, expect, it } from 'vitest'
import type { FormulaDocument, LineChange, LineDocument, ShapeChange } from '@/api/types'
import {
  enteredAmount,
  freeId,
  movedLine,
  withBake,
  withChanges,
  withLine,
  withLineOfWhole,
  withLines,
  withoutLine,
  withPrep,
  withSize,
  withTarget,
} from './edits'
import { ago, day, length, lengthUnit, minutes, money, range, temperature, weight, localDay } from './format'
import { begin, push, redo, replace, undo } from './history'
import { areaPath, linear, linePath, mixed, shades } from './chart'
import { layStrata, pulledGrams, stack, unevenEdge } from './strata'

const line = (id: string, grams = 10): LineDocument => ({
  id,
  ingredient: id,
  lot: '',
  grams,
  entered: '',
  role: '',
  stage: '',
  treatment: '',
  note: '',
  locked: false,
})
const doc = (...lines: LineDocument[]): FormulaDocument => ({
  substrata: 1,
  uid: '',
  name: 'x',
  notes: '',
  form: { kind: 'bun', pieces: 1, serving_pieces: 1 },
  lines,
  targets: {},
})
const ids = (d: FormulaDocument): string[] => (d.lines ?? []).map((l) => l.id)

describe('strata', () => {
  it('fill the height, keep their order and a least height', () => {
    const { strata } = layStrata([240, 90, 1, 0.2], 500, 9)
    expect(strata.reduce((sum, s) => sum + s.height, 0)).toBeCloseTo(500)
    expect(Math.min(...strata.map((s) => s.height))).toBeCloseTo(9)
    expect(strata[1]?.top).toBeCloseTo(strata[0]?.height ?? 0)
  })

  it.each([[[]], [[0, 0]], [[1e9, 1e-9]]])('survive %j', (grams) => {
    for (const s of layStrata(grams, 300, 9).strata) expect(Number.isFinite(s.height)).toBe(true)
  })

  it('pulled by as many pixels as they stand high, double', () => {
    const { strata, pixelsPerGram } = layStrata([240, 90], 500, 9)
    expect(pulledGrams(240, strata[0]?.height ?? 0, pixelsPerGram)).toBe(480)
    expect(pulledGrams(5, -1e6, pixelsPerGram)).toBe(0)
    expect(stack([480, 90], pixelsPerGram, 9).strata[0]?.height).toBeCloseTo(2 * (strata[0]?.height ?? 0))
  })

  it('have the same uneven edge every time', () => {
    expect(unevenEdge(3, 132, 50, 2)).toBe(unevenEdge(3, 132, 50, 2))
    expect(unevenEdge(3, 132, 50, 2)).not.toBe(unevenEdge(4, 132, 50, 2))
  })
})

describe('what is set on the Prep station', () => {
  it('joins what was set, and nothing goes back to the usual', () => {
    const warm = withPrep({ ...doc(), prep: { room_c: 24 } }, { cool_on: 'stone' })
    expect(warm.prep).toEqual({ room_c: 24, cool_on: 'stone' })
    expect(withPrep(warm, { room_c: null }).prep).toEqual({ cool_on: 'stone' })
  })
})

describe('shape and oven', () => {
  it('change one thing and leave the rest', () => {
    const thin = withSize(doc(line('a')), { held: 'thickness', thickness_mm: 4 })
    expect(withSize(thin, { tray: 'eu-tray' }).form.size).toEqual({ held: 'thickness', thickness_mm: 4, tray: 'eu-tray' })
    expect(thin.form.pieces).toBe(1)
    expect(withBake(withBake(doc(), { oven_c: 200 }), { fan: true }).bake).toEqual({ oven_c: 200, fan: true })
    expect(ids(thin)).toEqual(['a'])
  })

  it.each([
    [4, 'metric', '4'],
    [9.44, 'metric', '9.4'],
    [159.3, 'metric', '159'],
    [25.4, 'us', '1.00'],
    [254, 'us', '10.0'],
  ] as const)('measure %d mm in %s as %s', (mm, units, text) => {
    expect(length(mm, units)).toBe(text)
    expect(lengthUnit(units)).toBe(units === 'us' ? 'in' : 'mm')
  })

  it.each([
    [0.4, '½'],
    [1, '1'],
    [2.5, '2½'],
    [9.8, '10'],
    [16.4, '16'],
  ])('say %d minutes as %s', (value, text) => {
    expect(minutes(value)).toBe(text)
  })
})

describe('history', () => {
  it('goes back and forth, and a new edit forgets the future', () => {
    const edited = push(push(begin('a'), 'b'), 'c')
    expect(undo(edited).present).toBe('b')
    expect(redo(undo(edited)).present).toBe('c')
    expect(redo(push(undo(edited), 'd')).present).toBe('d')
    expect(undo(begin('a')).present).toBe('a')
  })

  it('takes a drag as one step', () => {
    const dragged = replace(replace(push(begin(0), 1), 2), 3)
    expect(undo(dragged).present).toBe(0)
  })

  it('forgets the oldest before it grows without end', () => {
    let history = begin(0)
    for (let n = 1; n < 500; n++) history = push(history, n)
    expect(history.past.length).toBe(200)
  })
})

describe('edits', () => {
  it('leave the document they got as it was', () => {
    const before = doc(line('a'), line('b'))
    const frozen = JSON.stringify(before)
    withLine(before, 'a', { grams: 5 })
    withoutLine(before, 'a')
    movedLine(before, 'a', 1)
    withTarget(before, 'salt', { low: 1, high: 2 })
    expect(JSON.stringify(before)).toBe(frozen)
  })

  it('move, add with free ids, and take out', () => {
    expect(ids(movedLine(doc(line('a'), line('b'), line('c')), 'a', 9))).toEqual(['b', 'c', 'a'])
    expect(ids(movedLine(doc(line('a')), 'nobody', 0))).toEqual(['a'])
    expect(ids(withLines(doc(line('egg')), [line('egg'), line('egg')]))).toEqual(['egg', 'egg-2', 'egg-3'])
    expect(freeId('', new Set())).toBe('line')
  })

  it('set and lift a target', () => {
    const set = withTarget(doc(), 'salt', { low: null, high: 2 })
    expect(set.targets).toEqual({ salt: { low: null, high: 2 } })
    expect(withTarget(set, 'salt', null).targets).toEqual({})
  })

  it.each([
    ['90', 'g', '90 g'],
    ['1,5', 'oz', '1,5 oz'],
    [' 1 1/2 cup ', 'g', '1 1/2 cup'],
    ['2 lg eggs', 'g', '2 lg eggs'],
  ] as const)('hand %s on to be read', (text, unit, entered) => {
    expect(enteredAmount(text, unit)).toEqual({ entered, grams: null })
  })
})

describe('format', () => {
  it('shows small money finer and temperature by the units', () => {
    expect([money(1.111), money(0.0123), money(0)]).toEqual(['1.11', '0.012', '0.00'])
    expect([temperature(71, 'metric'), temperature(71, 'us')]).toEqual(['71 °C', '160 °F'])
  })

  it('names the year of a day only when it is another', () => {
    const now = new Date('2026-11-25T10:00:00')
    expect(day('2026-12-07', now)).toBe('7 Dec')
    expect(day('2027-01-04', now)).toBe('4 Jan 2027')
  })

  it.each([
    [13.5, 'metric', '13.5'],
    [5, 'metric', '5'],
    [240.4, 'metric', '240'],
    [100, 'us', '3.53'],
    [600, 'us', '21.2'],
  ] as const)('writes %d in %s as %s', (grams, units, text) => {
    expect(weight(grams, units)).toBe(text)
  })

  it('writes ranges and days', () => {
    const now = new Date('2026-11-25T12:00:00')
    expect(range(1.23, 4.56, 1)).toBe('1.2–4.6')
    expect([0, 1, 5].map((d) => ago(new Date(now.getTime() - d * 86_400_000).toISOString(), now))).toEqual([
      'today',
      'yesterday',
      '5 days ago',
    ])
  })
})

describe('charts', () => {
  it('place values, keep them inside when clamped, and read places back', () => {
    const at = linear([2, 6], [3, 103], true)
    expect([at(4), at(99), at(-1)]).toEqual([53, 103, 3])
    expect(at.invert(at(3))).toBeCloseTo(3)
    expect(linear([2, 6], [0, 100])(8)).toBe(150)
    // Nothing is divided by nothing: what has no length stands at the beginning.
    expect(linear([5, 5], [10, 90])(5)).toBe(10)
  })
  it('draw lines and areas with a digit', () => {
    expect(
      linePath([
        [0, 1],
        [2.04, 3.06],
      ]),
    ).toBe('M0,1L2,3.1')
    expect(linePath([])).toBe('')
    expect(
      areaPath([
        [0, 1, 2],
        [5, 1, 3],
      ]),
    ).toBe('M0,2L5,3L5,1L0,1Z')
  })
  it('mix colours and numbers between their stops', () => {
    const shade = shades([
      [0, 'rgb(0, 0, 0)'],
      [1, 'rgb(100, 200, 50)'],
    ])
    expect([shade(0.5), shade(2)]).toEqual(['rgb(50, 100, 25)', 'rgb(100, 200, 50)'])
    expect(
      mixed([
        [0, [0, 10]],
        [10, [20, 30]],
      ])(5),
    ).toEqual([10, 20])
  })
})

describe('a day', () => {
  it('is the one where the baker stands', () => {
    const evening = new Date(2026, 2, 4, 23, 30)
    expect(localDay(evening)).toBe('2026-03-04')
  })
})

describe('edits of several lines', () => {
  const one = (id: string, grams: number, more: object = {}) =>
    ({ id, ingredient: id, grams, entered: `${grams} g`, ...more }) as LineDocument
  const dough = { lines: [one('a', 100), one('b', 60), one('c', 40, { locked: true })] } as FormulaDocument
  const change = (line: string, after: number) =>
    ({ line, ingredient: line, name: line, role: 'base', before: 0, after, new: false, text: '' }) satisfies LineChange

  it('take what is ticked: new weights, lines that go, lines that come as the answer has them', () => {
    const made = { lines: [one('a', 90), one('d', 15, { lot: 'pack' })] } as FormulaDocument
    const after = withChanges(dough, [change('a', 90), change('b', 0), change('d', 15)], made)
    expect(after.lines?.map((l) => [l.id, l.grams, l.lot])).toEqual([
      ['a', 90, undefined],
      ['c', 40, undefined],
      ['d', 15, 'pack'],
    ])
    expect(dough.lines?.[0]?.grams).toBe(100)
  })

  it('take other pieces as the answer has them, the count and the thickness each by itself', () => {
    const form = { kind: 'bun', pieces: 8, size: { held: '', thickness_mm: null }, serving_pieces: 1 }
    const buns = { ...dough, form } as unknown as FormulaDocument
    const made = { ...dough, form: { ...form, pieces: 10, size: { held: 'thickness', thickness_mm: 33 } } } as unknown as FormulaDocument
    const shape = (kind: 'pieces' | 'thickness') => ({ kind, before: 0, after: 0, text: '' }) satisfies ShapeChange
    expect(withChanges(buns, [shape('pieces')], made).form).toMatchObject({ pieces: 10, size: { held: '' }, serving_pieces: 1 })
    expect(withChanges(buns, [shape('thickness')], made).form).toMatchObject({ pieces: 8, size: { thickness_mm: 33 } })
    expect(withChanges(buns, [], made).form.pieces).toBe(8)
  })

  it('keep the whole where one is pulled and the others may give', () => {
    const after = withLineOfWhole(dough, 'a', 130, ['a', 'b', 'c'])
    expect(after.lines?.map((l) => l.grams)).toEqual([130, 30, 40])
    expect(withLineOfWhole(dough, 'a', 500, ['a', 'b', 'c']).lines?.map((l) => l.grams)).toEqual([160, 0, 40])
    expect(withLineOfWhole(dough, 'a', 130, ['c'])).toBe(dough)
  })
})
