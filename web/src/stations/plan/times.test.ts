import { describe, expect, it } from 'vitest'
import { dayOf, days, stacked, ticks, timeOf, written } from './times'

const BEGINS = '2026-11-28T05:30:00'

describe('times of a plan', () => {
  it('are the kitchen’s own wall clock, whatever the browser’s zone', () => {
    expect(timeOf(BEGINS, 0)).toBe('05:30')
    expect(timeOf(BEGINS, 24 * 60 + 45)).toBe('06:15')
    expect(dayOf(BEGINS, 0)).toBe('Sat')
    expect(dayOf(BEGINS, 24 * 60)).toBe('Sun')
    expect(written(BEGINS, 90)).toBe('2026-11-28T07:00')
    expect(timeOf(`${BEGINS}+01:00`, 30)).toBe('06:00')
  })

  it('are ticked at whole steps of the clock', () => {
    expect(ticks(BEGINS, 0, 100, 30).map((t) => t.text)).toEqual(['05:30', '06:00', '06:30', '07:00'])
    expect(ticks(BEGINS, 7, 100, 60).map((t) => t.text)).toEqual(['06:00', '07:00'])
  })

  it('are counted in days from the first midnight', () => {
    expect(days(BEGINS, 600)).toEqual([{ from: -330, text: 'Sat 28' }])
    expect(days(BEGINS, 1500).map((d) => [d.from, d.text])).toEqual([
      [-330, 'Sat 28'],
      [1110, 'Sun 29'],
    ])
  })

  it('are stacked so that nothing lies over another', () => {
    const items = [
      { start_min: 0, end_min: 10 },
      { start_min: 5, end_min: 15 },
      { start_min: 10, end_min: 20 },
    ]
    const { rows, count } = stacked(items)
    expect(count).toBe(2)
    expect(items.map((i) => rows.get(i))).toEqual([0, 1, 0])
    expect(stacked([]).count).toBe(1)
  })
})
