/** Scales and paths of our drawings: numbers become places by d3-scale, points become paths by d3-shape. */
import { scaleLinear, type ScaleLinear } from 'd3-scale'
import { area, line } from 'd3-shape'

export type Scale = ScaleLinear<number, number>
type Ends = readonly [number, number]
type Point = readonly [number, number]

/** A straight scale; a clamped one keeps what lies beyond at its end. What has no length stands at the beginning. */
export function linear([low, high]: Ends, range: Ends, clamped = false): Scale {
  return scaleLinear([low, high === low ? low + 1 : high], range).clamp(clamped)
}

/** A path through points. */
export const linePath = (points: readonly Point[]): string =>
  line<Point>()
    .x((p) => p[0])
    .y((p) => p[1])
    .digits(1)(points) ?? ''

/** What lies between a lower and an upper line: x, low, high. */
export const areaPath = (points: readonly (readonly [number, number, number])[]): string =>
  area<readonly [number, number, number]>()
    .x((p) => p[0])
    .y0((p) => p[1])
    .y1((p) => p[2])
    .digits(1)(points) ?? ''

/** Colours between stops, as CSS. */
export const shades = (stops: readonly (readonly [number, string])[]): ((value: number) => string) =>
  scaleLinear(
    stops.map(([at]) => at),
    stops.map(([, colour]) => colour),
  ).clamp(true)

/** The same for values that are lists of numbers. */
export const mixed = (stops: readonly (readonly [number, readonly number[]])[]): ((value: number) => readonly number[]) =>
  scaleLinear(
    stops.map(([at]) => at),
    stops.map(([, values]) => values),
  ).clamp(true)
