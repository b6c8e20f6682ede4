/** Places on a bracket's ruler, in pixels. */

export interface Span {
  low: number
  high: number
}

/** Where a value stands on a ruler of some width; values beyond its ends stand at the end. */
export function place(value: number, ruler: Span, width: number): number {
  const length = ruler.high - ruler.low || 1
  return Math.min(Math.max((value - ruler.low) / length, 0), 1) * width
}

/** The value under a place. */
export function valueAt(x: number, ruler: Span, width: number): number {
  return ruler.low + (Math.min(Math.max(x, 0), width) / (width || 1)) * (ruler.high - ruler.low)
}

export const isBeyond = (value: number, ruler: Span): boolean => value < ruler.low || value > ruler.high
