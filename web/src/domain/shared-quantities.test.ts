/** The page writes a figure as the core writes it in a sentence: both are held to one table of examples. */
import { describe, expect, it } from 'vitest'
import examples from '../../../messages/quantities.json'
import { degreesApart, dial, inArea, inLength, inWeight, percent, temperature, type Units } from './format'

interface Example {
  value: number
  unit: string
  high?: number
  bare?: boolean
  digits?: number
  metric: string
  us: string
}

const EXAMPLES: Example[] = examples
const WRITERS: Record<string, (value: number, units: Units) => string> = {
  g: inWeight,
  C: temperature,
  oven: dial,
  K: degreesApart,
  mm: inLength,
  cm2: inArea,
  share: percent,
}
const SHARED = EXAMPLES.filter((row) => row.high === undefined && !row.bare && WRITERS[row.unit])

describe('a quantity of the shared table', () => {
  it.each(SHARED)('$value $unit', ({ value, unit, metric, us }) => {
    expect([WRITERS[unit]?.(value, 'metric'), WRITERS[unit]?.(value, 'us')]).toEqual([metric, us])
  })

  it('is compared for every unit that the page writes', () => {
    expect(new Set(SHARED.map((row) => row.unit))).toEqual(new Set(Object.keys(WRITERS)))
  })
})
