/** Layout maths of the core column: heights of strata, their uneven edges, and pulling a boundary. */

interface Stratum {
  top: number
  height: number
}

export interface StrataLayout {
  strata: Stratum[]
  /** Pixels a gram takes, for strata that are not at their least height. */
  pixelsPerGram: number
}

/**
 * Share a column's height among weights; every stratum keeps a least height so that it can be seen and pulled.
 * The strata fill the height exactly unless their least heights alone exceed it.
 */
export function layStrata(grams: readonly number[], height: number, least: number): StrataLayout {
  const small = new Set<number>()
  let scale = 0
  for (;;) {
    const left = height - small.size * least
    const weight = grams.reduce((sum, g, i) => (small.has(i) ? sum : sum + g), 0)
    scale = weight > 0 ? Math.max(left, 0) / weight : 0
    const more = grams.findIndex((g, i) => !small.has(i) && g * scale < least)
    if (more < 0) break
    small.add(more)
  }
  return stack(grams, scale, least)
}

/** Strata at a given scale: while a boundary is pulled the scale rests and the column grows or shrinks. */
export function stack(grams: readonly number[], pixelsPerGram: number, least: number): StrataLayout {
  let top = 0
  const strata = grams.map((g) => {
    const height = Math.max(g * pixelsPerGram, least)
    const stratum = { top, height }
    top += height
    return stratum
  })
  return { strata, pixelsPerGram }
}

/** Grams of a stratum whose lower boundary was pulled by some pixels. */
export function pulledGrams(start: number, pixels: number, pixelsPerGram: number): number {
  if (pixelsPerGram <= 0) return start
  const raw = Math.max(start + pixels / pixelsPerGram, 0)
  return raw < 20 ? Math.round(raw * 10) / 10 : Math.round(raw)
}

/** A boundary as if drawn in the ground by hand: always the same for the same stratum. */
export function unevenEdge(seed: number, width: number, y: number, swing: number): string {
  const points: string[] = []
  const steps = 6
  for (let i = 0; i <= steps; i++) {
    const x = (width * i) / steps
    points.push(`${x.toFixed(1)} ${(y + wobble(seed, i) * swing).toFixed(2)}`)
  }
  return points.join(' L ')
}

function wobble(seed: number, i: number): number {
  return Math.sin(seed * 12.9898 + i * 1.7) * 0.6 + Math.sin(seed * 4.1 + i * 0.9) * 0.4
}
