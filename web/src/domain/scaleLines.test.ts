import { describe, expect, it } from 'vitest'
import examples from '../../../tests/devices/weight_lines.json'
import { linesOf, weightLine, weightMeasured } from './scaleLines'

describe('a line of a scale', () => {
  it.each(examples as { line: string; grams?: number; stable?: boolean; overload?: boolean }[])(
    '$line',
    ({ line, grams, stable, overload }) => {
      const read = weightLine(line)
      if (overload) expect(read).toEqual({ grams: null, stable: false, overload: true })
      else if (grams === undefined) expect(read).toBeNull()
      else {
        expect(read?.grams).toBeCloseTo(grams, 4)
        expect(read?.stable).toBe(stable)
      }
    },
  )

  it('is put together from pieces, and noise without an end is let go', () => {
    let kept = ''
    const seen: string[] = []
    for (const piece of ['ST,GS,+ 16', '0.4 g\r\nUS,GS', ',+ 161.0 g\r', '\n', 'ST,']) {
      const { lines, rest } = linesOf(kept, piece)
      kept = rest
      seen.push(...lines)
    }
    expect(seen).toEqual(['ST,GS,+ 160.4 g', 'US,GS,+ 161.0 g'])
    expect(kept).toBe('ST,')
    expect(linesOf('x'.repeat(70), 'y'.repeat(70)).rest).toBe('')
  })
})

describe('the Weight Scale service', () => {
  const bytes = (...of: number[]): DataView => new DataView(Uint8Array.from(of).buffer)

  it('counts in 5 g or in hundredths of a pound, the low byte first (Bluetooth SIG)', () => {
    // 0x0064 = 100 steps.
    expect(weightMeasured(bytes(0x00, 0x64, 0x00))?.grams).toBe(500)
    expect(weightMeasured(bytes(0x01, 0x64, 0x00))?.grams).toBeCloseTo(453.6, 1)
    expect(weightMeasured(bytes(0x0e, 0x2c, 0x01, 1, 2, 3))?.grams).toBe(1500)
    expect(weightMeasured(bytes(0x00, 0xff, 0xff))).toEqual({ grams: null, stable: false, overload: true })
    expect(weightMeasured(bytes(0x00, 0x64))).toBeNull()
  })
})
