/** How a kind of number is written and read in the kitchen's units; the core's are g, °C, mm and m. */
import {
  altitude,
  altitudeUnit,
  celsiusOf,
  degrees,
  dialDegrees,
  gramsOf,
  length,
  lengthUnit,
  metresOf,
  millimetresOf,
  temperatureUnit,
  weight,
  weightUnit,
  type Units,
} from './format'

export type QuantityKind =
  'weight' | 'temperature' | 'dial' | 'length' | 'altitude' | 'minutes' | 'hours' | 'percent' | 'watts' | 'count' | 'number'

interface Quantity {
  unit: string
  /** Whether the unit follows the kitchen's choice. */
  chosen: boolean
  whole: boolean
  text: (value: number) => string
  /** Nothing for an empty text, undefined for what is no number. */
  read: (text: string) => number | null | undefined
}

/** As many digits as it has, two at most. */
const plain = (value: number): string => String(Number(value.toFixed(2)))

function read(text: string, convert: (typed: number) => number): number | null | undefined {
  const trimmed = text.trim().replace(',', '.')
  if (!trimmed) return null
  const typed = Number(trimmed)
  return Number.isFinite(typed) ? convert(typed) : undefined
}

const UNITS = { minutes: 'min', hours: 'h', percent: '%', watts: 'W', count: '', number: '' } as const

export function quantity(kind: QuantityKind, units: Units): Quantity {
  const chosen = (unit: string, text: (v: number) => string, convert: (v: number) => number): Quantity => ({
    unit,
    chosen: true,
    whole: false,
    text,
    read: (typed) => read(typed, convert),
  })
  if (kind === 'weight')
    return chosen(
      weightUnit(units),
      (v) => weight(v, units),
      (v) => gramsOf(v, units),
    )
  if (kind === 'length')
    return chosen(
      lengthUnit(units),
      (v) => length(v, units),
      (v) => millimetresOf(v, units),
    )
  if (kind === 'temperature' || kind === 'dial') {
    const text = (v: number): string => (kind === 'dial' ? String(dialDegrees(v, units)) : degrees(v, units).toFixed(0))
    const tenth = (v: number): number => Math.round(celsiusOf(v, units) * 10) / 10
    return { ...chosen(temperatureUnit(units), text, tenth), chosen: false }
  }
  if (kind === 'altitude')
    return chosen(
      altitudeUnit(units),
      (v) => altitude(v, units),
      (v) => metresOf(v, units),
    )
  const whole = kind === 'count'
  return { unit: UNITS[kind], chosen: false, whole, text: plain, read: (typed) => read(typed, (v) => (whole ? Math.round(v) : v)) }
}
