/**
 * The core speaks in degrees Celsius, millimetres and grams; a kitchen that measures otherwise reads the same sentences in its own units.
 * Nutrition stays in grams everywhere, as labels have it.
 */
import { length, temperature, weight, type Units } from './format'

const NUMBER = String.raw`(\d+(?:[.,]\d+)?)`
const TO = String.raw`(–| to | and | × | by )`
const DEGREES_APART = /(±\s*)?(\d+(?:\.\d+)?) °C (cooler|lower|hotter|hot|cold|warmer|colder|higher|more|less)(?: ± (\d+(?:\.\d+)?))?/g
/** The law's figures stand in both: "71 °C (160 °F)". */
const SAID_TWICE = /\d+ °C \((\d+ °F)\)/g
const PLUS_MINUS = /± (\d+(?:\.\d+)?) °C/g
const DEGREES = new RegExp(`(−|-)?${NUMBER}(?:${TO}${NUMBER})? °C`, 'g')
const MILLIMETRES = new RegExp(`${NUMBER}(?:${TO}${NUMBER})?(?:${TO}${NUMBER})? mm\\b`, 'g')
const CENTIMETRES = new RegExp(`${NUMBER}(?:${TO}${NUMBER})?(?:${TO}${NUMBER})? cm\\b(?!²)`, 'g')
const SQUARE = new RegExp(`${NUMBER} cm²`, 'g')
const ALTITUDE = /(\d{3,5}) m\b(?! ?[a-zA-Z/])/g
const WEIGHT = new RegExp(`${NUMBER}(?:${TO}${NUMBER})? (k?g)\\b(?!/)`, 'g')

const value = (text: string): number => Number(text.replace(',', '.'))
const apart = (kelvin: string): string => String(Math.round(value(kelvin) * 1.8))
const fahrenheit = (celsius: number): string => temperature(celsius, 'us').replace(' °F', '')

/** A sentence of the core in the kitchen's units; `weights`: its grams are weighed, and none of them is a nutrient. */
export function said(text: string, units: Units, weights = false): string {
  if (units !== 'us' || !/\d/.test(text)) return text
  const some = (unit: string, convert: (n: number) => string) => (_: string, a: string, to?: string, b?: string, by?: string, c?: string) =>
    [convert(value(a)), to && b ? to + convert(value(b)) : '', by && c ? by + convert(value(c)) : '', ` ${unit}`].join('')
  const spoken = text
    .replace(SAID_TWICE, '$1')
    .replace(DEGREES_APART, (_, pm: string | undefined, a: string, word: string, half: string | undefined) =>
      [pm ?? '', apart(a), ' °F ', word, half ? ` ± ${apart(half)}` : ''].join(''),
    )
    .replace(PLUS_MINUS, (_, a: string) => `± ${apart(a)} °F`)
    .replace(
      DEGREES,
      (_, minus: string | undefined, a: string, to: string | undefined, b: string | undefined) =>
        `${fahrenheit((minus ? -1 : 1) * value(a))}${to && b ? to + fahrenheit(value(b)) : ''} °F`,
    )
    .replace(
      MILLIMETRES,
      some('in', (n) => length(n, 'us')),
    )
    .replace(
      CENTIMETRES,
      some('in', (n) => length(10 * n, 'us')),
    )
    .replace(SQUARE, (_, a: string) => `${(value(a) / 6.4516).toFixed(0)} sq in`)
    .replace(ALTITUDE, (_, m: string) => `${Math.round(value(m) / 30.48) * 100} ft`)
  if (!weights) return spoken
  return spoken.replace(WEIGHT, (_, a: string, to: string | undefined, b: string | undefined, unit: string) => {
    const grams = (n: string): string => weight(value(n) * (unit === 'kg' ? 1000 : 1), 'us')
    return `${grams(a)}${to && b ? to + grams(b) : ''} oz`
  })
}

/** An answer of the core with every sentence in it said so; numbers stay what they are. */
export function saidIn<T>(answer: T, units: Units, weights = false): T {
  if (units !== 'us') return answer
  if (typeof answer === 'string') return said(answer, units, weights) as T
  if (Array.isArray(answer)) return answer.map((part: unknown) => saidIn(part, units, weights)) as T
  if (answer === null || typeof answer !== 'object') return answer
  return Object.fromEntries(Object.entries(answer).map(([key, part]) => [key, saidIn(part as unknown, units, weights)])) as T
}
