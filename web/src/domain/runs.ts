/** A run as its entries tell it: what is done, what was weighed, which targets moved. Nothing here knows the job. */
import type { RunEntry, RunStep } from '@/api/types'

/** An entry that stands: each once, none that was undone, in the order of their times. */
export function standing(entries: readonly RunEntry[]): RunEntry[] {
  const once = new Map(entries.map((entry) => [entry.id, entry]))
  const gone = new Set([...once.values()].filter((e) => e.kind === 'undo').map((e) => e.what))
  return [...once.values()]
    .filter((e) => e.kind !== 'undo' && !gone.has(e.id))
    .sort((a, b) => Date.parse(a.at) - Date.parse(b.at) || a.id.localeCompare(b.id))
}

/** Steps that are over, by id, with the entry that says so. */
export function over(entries: readonly RunEntry[]): Map<string, RunEntry> {
  const found = new Map<string, RunEntry>()
  for (const entry of standing(entries)) if (entry.kind === 'note' && entry.what.startsWith('step:')) found.set(entry.what.slice(5), entry)
  return found
}

/** The step that stands on the screen: the first that is not over, or the one that was gone to. */
export function present(steps: readonly RunStep[], entries: readonly RunEntry[]): number {
  const done = over(entries)
  const next = steps.findIndex((step) => !done.has(step.id))
  return next < 0 ? steps.length : next
}

/** The newest weight of each line, of all batches. */
export function weighed(entries: readonly RunEntry[]): Map<string, number> {
  const found = new Map<string, number>()
  for (const entry of standing(entries)) if (entry.kind === 'weighed' && entry.value !== null) found.set(entry.what, entry.value)
  return found
}

/** Targets that an answer to a wrong weight has moved, by line. */
export function moved(entries: readonly RunEntry[]): Map<string, number> {
  const found = new Map<string, number>()
  for (const entry of standing(entries))
    if (entry.kind === 'note' && entry.what.startsWith('target:') && entry.value !== null) found.set(entry.what.slice(7), entry.value)
  return found
}

/** When a moment was, in milliseconds: of "in" and "out" the last one counts, of all else the first. */
export function momentAt(entries: readonly RunEntry[], moment: string): number | null {
  const found = standing(entries).filter((e) => e.kind === 'moment' && e.what === moment)
  const one = moment === 'in' || moment === 'out' ? found.at(-1) : found[0]
  return one ? Date.parse(one.at) : null
}

/** Minutes in the oven: from each "in" to the last "out" before the next; an "in" pressed again begins anew. */
export function minutesInOven(entries: readonly RunEntry[]): number | null {
  let before = 0
  let total: number | null = null
  let into: number | null = null
  let out = false
  for (const entry of standing(entries)) {
    if (entry.kind !== 'moment') continue
    if (entry.what === 'in') {
      if (out) before = total ?? 0
      into = Date.parse(entry.at)
      out = false
    } else if (entry.what === 'out' && into !== null) {
      total = before + (Date.parse(entry.at) - into) / 60_000
      out = true
    }
  }
  return total
}

const READS = ['weight', 'core', 'oven', 'colour'] as const

/** What an entry reads while it bakes; "" for one that reads nothing. Earlier releases kept it as a note. */
export function readingOf(entry: RunEntry): Seen['kind'] | '' {
  if (entry.value === null) return ''
  const what = entry.kind === 'reading' ? entry.what : entry.kind === 'note' ? entry.what.replace(/^read:/, '') : ''
  if (entry.kind === 'note' && !entry.what.startsWith('read:')) return ''
  return READS.find((kind) => kind === what) ?? ''
}

/** Readings of the bake, by minutes from when it went in. */
export interface Seen {
  minute: number
  kind: 'weight' | 'core' | 'oven' | 'colour'
  value: number
}

export function readings(entries: readonly RunEntry[], beforeG: number | null): Seen[] {
  const into = momentAt(entries, 'in')
  if (into === null) return []
  const rows: Seen[] = []
  for (const entry of standing(entries)) {
    const kind = readingOf(entry)
    if (!kind || entry.value === null) continue
    const minute = (Date.parse(entry.at) - into) / 60_000
    if (minute < 0) continue
    if (kind === 'weight') {
      if (beforeG) rows.push({ minute, kind, value: 1 - entry.value / beforeG })
    } else rows.push({ minute, kind, value: entry.value })
  }
  return rows
}
