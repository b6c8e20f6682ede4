import { describe, expect, it } from 'vitest'
import { quantity } from './quantities'

describe('quantities', () => {
  it('are written and read back in the kitchen’s units', () => {
    for (const [kind, value, metric, us] of [
      ['weight', 500, '500', '17.6'],
      ['temperature', 180, '180', '356'],
      ['length', 10, '10', '0.39'],
      ['altitude', 1200, '1200', '3937'],
    ] as const) {
      expect(quantity(kind, 'metric').text(value)).toBe(metric)
      expect(quantity(kind, 'us').text(value)).toBe(us)
      const back = quantity(kind, 'us').read(us)
      expect(Math.abs((back ?? 0) - value) / value).toBeLessThan(0.01)
    }
  })
  it('take a comma for a point, an empty text for nothing, and refuse what is no number', () => {
    const minutes = quantity('minutes', 'metric')
    expect([minutes.read('7,5'), minutes.read('  '), minutes.read('soon')]).toEqual([7.5, null, undefined])
    expect([minutes.text(10), minutes.text(7.5), minutes.text(100)]).toEqual(['10', '7.5', '100'])
    expect(quantity('count', 'metric').read('3.4')).toBe(3)
  })
})
