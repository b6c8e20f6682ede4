/** How figures are written. Unit conversions of display only; no rule of the job lives here. */
import { t } from '@/messages'

export type Units = 'metric' | 'us'

const GRAMS_PER_OUNCE = 28.349523125

/** Grams as the kitchen reads them, without the unit: tenths below twenty. */
export function weight(grams: number, units: Units): string {
  if (units === 'us') {
    const ounces = grams / GRAMS_PER_OUNCE
    return ounces.toFixed(ounces < 10 ? 2 : 1)
  }
  return decimals(grams, grams < 20 && Math.abs(grams - Math.round(grams)) > 0.05 ? 1 : 0)
}

/** What was typed as a weight, in grams. */
export const gramsOf = (typed: number, units: Units): number => (units === 'us' ? typed * GRAMS_PER_OUNCE : typed)

export const weightUnit = (units: Units): string => (units === 'us' ? 'oz' : 'g')

export function decimals(value: number, digits: number): string {
  return value.toFixed(digits)
}

/** "3.1", "0.71", "118". */
export function figure(value: number, digits: number): string {
  return decimals(value, digits)
}

/** The 90 % range: "2.4–3.8". */
export function range(low: number, high: number, digits: number): string {
  return `${decimals(low, digits)}–${decimals(high, digits)}`
}

export const temperature = (celsius: number, units: Units): string =>
  units === 'us' ? `${Math.round(celsius * 1.8 + 32)} °F` : `${Math.round(celsius)} °C`

/** A setting of an oven, in the steps of its dial: 5 °F (common practice). */
export const dialDegrees = (celsius: number, units: Units): number =>
  units === 'us' ? Math.round((celsius * 1.8 + 32) / 5) * 5 : Math.round(celsius)
export const dial = (celsius: number, units: Units): string => `${dialDegrees(celsius, units)} ${temperatureUnit(units)}`

export const temperatureUnit = (units: Units): string => (units === 'us' ? '°F' : '°C')

/** What was typed as a temperature, in degrees Celsius. */
export const celsiusOf = (typed: number, units: Units): number => (units === 'us' ? (typed - 32) / 1.8 : typed)

/** A temperature as a number on an axis. */
export const degrees = (celsius: number, units: Units): number => (units === 'us' ? celsius * 1.8 + 32 : celsius)

export const percent = (share: number): string => `${Math.round(share * 100)} %`

/** "today", "yesterday", "5 days ago", then the date. */
export function ago(iso: string, now: Date = new Date()): string {
  const then = new Date(iso)
  const days = Math.floor((startOfDay(now) - startOfDay(then)) / 86_400_000)
  if (days <= 0) return 'today'
  if (days === 1) return 'yesterday'
  if (days < 21) return t('frame-format-days-ago', { days })
  return then.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: days > 300 ? 'numeric' : undefined })
}

function startOfDay(date: Date): number {
  return new Date(date.getFullYear(), date.getMonth(), date.getDate()).getTime()
}

/** Money without its currency: three figures where they matter. */
export function money(amount: number): string {
  return amount.toFixed(amount !== 0 && Math.abs(amount) < 0.1 ? 3 : 2)
}

/** A day as a shelf label has it: "7 Dec", with the year when it is another. */
export function day(iso: string, now: Date = new Date()): string {
  const then = new Date(`${iso}T12:00:00`)
  return then.toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'short',
    year: then.getFullYear() === now.getFullYear() ? undefined : 'numeric',
  })
}

/** Millimetres as the kitchen reads them, without the unit. */
export function length(mm: number, units: Units): string {
  if (units === 'us') return (mm / 25.4).toFixed(mm < 50 ? 2 : 1)
  return mm < 20 && Math.abs(mm - Math.round(mm)) > 0.05 ? mm.toFixed(1) : mm.toFixed(0)
}

export const lengthUnit = (units: Units): string => (units === 'us' ? 'in' : 'mm')

/** What was typed as a length, in millimetres. */
export const millimetresOf = (typed: number, units: Units): number => (units === 'us' ? typed * 25.4 : typed)

/** A length and a weight with their units. */
/** A surface of the dough with its unit. */
export const inArea = (cm2: number, units: Units): string =>
  units === 'us' ? t('frame-format-sq-in', { cm2: (cm2 / 6.4516).toFixed(0) }) : `${cm2.toFixed(0)} cm²`
export const inLength = (mm: number, units: Units): string => `${length(mm, units)} ${lengthUnit(units)}`
export const inWeight = (grams: number, units: Units): string => `${weight(grams, units)} ${weightUnit(units)}`

/** Degrees that lie between two temperatures. */
export const degreesApart = (kelvin: number, units: Units): string =>
  units === 'us' ? `${Math.round(kelvin * 1.8)} °F` : `${Math.round(kelvin)} °C`

/** A difference of temperatures with its half-range: "9 ± 8 °C". */
export const aboutApart = (kelvin: number, half: number, units: Units): string =>
  `${degreesApart(kelvin, units).split(' ')[0] ?? ''} ± ${degreesApart(half, units)}`

/** An altitude, and what was typed as one, in metres. */
export const altitude = (m: number, units: Units): string => String(Math.round(units === 'us' ? m / 0.3048 : m))
export const altitudeUnit = (units: Units): string => (units === 'us' ? 'ft' : 'm')
export const metresOf = (typed: number, units: Units): number => (units === 'us' ? typed * 0.3048 : typed)

/** Minutes as one says them: halves below ten. */
export function minutes(value: number): string {
  if (value >= 10) return value.toFixed(0)
  const halves = Math.round(value * 2)
  return halves % 2 ? `${halves > 1 ? Math.floor(halves / 2) : ''}½` : String(halves / 2)
}

/** The day of a moment where the baker stands, as documents write it: in the evening west of Greenwich it is not tomorrow yet. */
export const localDay = (moment: Date): string =>
  [moment.getFullYear(), moment.getMonth() + 1, moment.getDate()].map((n) => String(n).padStart(2, '0')).join('-')
