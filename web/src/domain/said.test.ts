import { describe, expect, it } from 'vitest'
import { said, saidIn } from './said'

describe('what the core says, in the units of the kitchen', () => {
  it.each([
    // NIST SP 811 appendix B.8: 1 in = 25.4 mm, 1 ft = 0.3048 m, t/degF = 1.8 t/degC + 32.
    ['the oven at 200 °C', 'the oven at 392 °F'],
    ['38–45 °C', '100–113 °F'],
    ['−5 °C', '23 °F'],
    ['Back oven: 12 °C hot ± 8, from 3 bakes', 'Back oven: 22 °F hot ± 14, from 3 bakes'],
    ['10 °C cooler', '18 °F cooler'],
    ['to 71 °C (160 °F) in the middle', 'to 160 °F in the middle'],
    ['159 mm across, 4 mm thick', '6.3 in across, 0.16 in thick'],
    ['480 × 330 × 20 mm', '18.9 × 13.0 × 0.79 in'],
    ['a 20 cm tin', 'a 7.9 in tin'],
    ['at 1500 m', 'at 4900 ft'],
    ['5.2 g net carbs a piece', '5.2 g net carbs a piece'],
    ['Rest it 5 min.', 'Rest it 5 min.'],
  ])('%s', (metric, us) => {
    expect(said(metric, 'us')).toBe(us)
    expect(said(metric, 'metric')).toBe(metric)
  })

  it('weighs in ounces where grams are weights', () => {
    // 1 oz = 28.349523125 g (NIST SP 811 appendix B, avoirdupois).
    expect(said('take it out at 386 g', 'us', true)).toBe('take it out at 13.6 oz')
    expect(said('usually 196–285 g', 'us', true)).toBe('usually 6.91–10.1 oz')
    expect(said('0.97 g/mL', 'us', true)).toBe('0.97 g/mL')
  })

  it('goes through a whole answer and leaves its numbers alone', () => {
    const answer = { text: '4 mm', at: 4, rows: [{ note: '20 °C' }, null] }
    expect(saidIn(answer, 'us')).toEqual({ text: '0.16 in', at: 4, rows: [{ note: '68 °F' }, null] })
    expect(saidIn(answer, 'metric')).toBe(answer)
  })
})
