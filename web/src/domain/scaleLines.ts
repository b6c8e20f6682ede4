/**
 * What a scale says that is plugged into this computer: a line of text over a serial port, or a measurement of the Bluetooth
 * Weight Scale service. Lines are read by the same rules as at the bench's bridge; a list of examples is shared with its tests.
 */
export interface WeightReading {
  /** Null while it is overloaded. */
  grams: number | null
  stable: boolean
  overload: boolean
}

const GRAMS: Record<string, number> = { g: 1, kg: 1000, oz: 28.349523125, lb: 453.59237 }
const LINE = /^\s*(?:(ST|US|OL)\s*[, ]\s*)?(?:(?:GS|NT)\s*[, ]\s*)?([+-]?)\s*(\d{1,7}(?:[.,]\d{1,4})?)\s*(kg|g|oz|lb)\s*$/i
const OVER = /^\s*OL\b/i
/** Longer lines are noise. */
const LONGEST = 80

/** A line of a scale; null where it is no reading. */
export function weightLine(text: string): WeightReading | null {
  if (text.length > LONGEST) return null
  if (OVER.test(text)) return { grams: null, stable: false, overload: true }
  const [whole, state = 'ST', sign = '', number = '', unit = ''] = LINE.exec(text) ?? []
  if (whole === undefined) return null
  const value = Number(number.replace(',', '.')) * (GRAMS[unit.toLowerCase()] ?? 1)
  const grams = Math.round((sign === '-' ? -value : value) * 10_000) / 10_000
  return { grams, stable: state.toUpperCase() === 'ST', overload: false }
}

/** Steps of the Weight Scale service: 5 g, or a hundredth of a pound (Bluetooth SIG, Weight Scale Service 1.0). */
const SI_G = 5
const POUND_G = 4.5359237
const IMPERIAL = 1
/** A value that says the weight could not be taken. */
const UNSUCCESSFUL = 0xffff

/** A measurement of the Weight Scale service; such a scale sends one when it has come to rest. */
export function weightMeasured(data: DataView): WeightReading | null {
  if (data.byteLength < 3) return null
  const steps = data.getUint16(1, true)
  if (steps === UNSUCCESSFUL) return { grams: null, stable: false, overload: true }
  const grams = steps * (data.getUint8(0) & IMPERIAL ? POUND_G : SI_G)
  return { grams: Math.round(grams * 10) / 10, stable: true, overload: false }
}

/** Whole lines out of pieces as they come; what has no end yet stays. */
export function linesOf(kept: string, piece: string): { lines: string[]; rest: string } {
  const parts = (kept + piece).split(/[\r\n]+/)
  const rest = parts.pop() ?? ''
  return { lines: parts.filter((line) => line.trim()), rest: rest.length > LONGEST ? '' : rest }
}
