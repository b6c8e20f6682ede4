/** A plan's minutes as times of day, and where they lie on the page. Times are the kitchen's own wall clock. */

const clock = (begins: string): number => Date.parse(`${begins.slice(0, 19)}Z`)

/** "14:32" of a minute of the plan. */
export function timeOf(begins: string, minute: number): string {
  return new Date(clock(begins) + minute * 60_000).toISOString().slice(11, 16)
}

/** "Sat" of a minute of the plan. */
export function dayOf(begins: string, minute: number): string {
  const at = new Date(clock(begins) + minute * 60_000)
  return ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'][at.getUTCDay()] ?? ''
}

/** The days between the plan's first midnight and a minute: each with its name and the minute at which it begins. */
export function days(begins: string, to: number): { from: number; text: string }[] {
  const at = new Date(clock(begins))
  const first = -(at.getUTCHours() * 60 + at.getUTCMinutes())
  const told = []
  for (let from = first; from < to; from += 1440) {
    const day = new Date(clock(begins) + from * 60_000)
    told.push({ from, text: `${dayOf(begins, from)} ${day.getUTCDate()}` })
  }
  return told
}

/** The same as a document writes it. */
export function written(begins: string, minute: number): string {
  return new Date(clock(begins) + minute * 60_000).toISOString().slice(0, 16)
}

/** Clock times at whole steps between two minutes, with their minute. */
export function ticks(begins: string, from: number, to: number, step: number): { minute: number; text: string }[] {
  const offset = (clock(begins) / 60_000) % step
  const first = Math.ceil((from + offset) / step) * step - offset
  const told = []
  for (let minute = first; minute <= to; minute += step) told.push({ minute, text: timeOf(begins, minute) })
  return told
}

/** A day and a time, as a field for both has them, so many days from today. */
export function inDays(days: number, hour: number): string {
  const at = new Date()
  at.setDate(at.getDate() + days)
  const two = (n: number): string => String(n).padStart(2, '0')
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}T${two(hour)}:00`
}

interface Lying {
  start_min: number
  end_min: number
}

/** Rows in which nothing lies over another: for each of them its row, and how many there are. */
export function stacked<T extends Lying>(items: readonly T[]): { rows: Map<T, number>; count: number } {
  const ends: number[] = []
  const rows = new Map<T, number>()
  for (const item of [...items].sort((a, b) => a.start_min - b.start_min)) {
    const free = ends.findIndex((end) => end <= item.start_min)
    const row = free < 0 ? ends.length : free
    ends[row] = item.end_min
    rows.set(item, row)
  }
  return { rows, count: Math.max(ends.length, 1) }
}
