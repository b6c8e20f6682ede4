/**
 * Timers of a run, by the clock on the wall: a timer is when it began and how long it runs, both kept as entries, so that a
 * reload, a sleeping tablet or another device changes nothing of it.
 */
import type { RunEntry } from '@/api/types'
import { standing } from './runs'

export interface Timer {
  /** Of the step that it is for. */
  id: string
  name: string
  startedAt: number
  /** When it rings, in milliseconds. */
  endsAt: number
  /** When to look first; 0 for none. */
  checkAt: number
  stopped: boolean
  /** The entry that began it: one ring belongs to one beginning and one length. */
  key: string
}

const START = 'start'
const MORE = 'more'
const STOP = 'stop'

/** The timers that entries tell of, in the order in which they end. */
export function timersOf(entries: readonly RunEntry[]): Timer[] {
  const found = new Map<string, Timer>()
  for (const entry of standing(entries)) {
    if (entry.kind !== 'timer') continue
    const [act = '', name = '', check = ''] = entry.word.split('|')
    const at = Date.parse(entry.at)
    const minutes = entry.value ?? 0
    const known = found.get(entry.what)
    if (act === START) {
      found.set(entry.what, {
        id: entry.what,
        name,
        startedAt: at,
        endsAt: at + minutes * 60_000,
        checkAt: check ? at + Number(check) * 60_000 : 0,
        stopped: false,
        key: entry.id,
      })
    } else if (act === MORE && known) {
      // "5 more" counts from its end, or from now where that is past.
      known.endsAt = Math.max(known.endsAt, at) + minutes * 60_000
      known.stopped = false
      known.key = entry.id
    } else if (act === STOP && known) known.stopped = true
  }
  return [...found.values()].sort((a, b) => a.endsAt - b.endsAt)
}

export const startWord = (name: string, checkMin: number | null): string => `${START}|${name}|${checkMin ?? ''}`
export const MORE_WORD = MORE
export const STOP_WORD = STOP

/** Rings that are due and were not rung on this device yet, each by a name of its own. */
export function due(timers: readonly Timer[], now: number, rung: ReadonlySet<string>): { key: string; timer: Timer; look: boolean }[] {
  const rows: { key: string; timer: Timer; look: boolean }[] = []
  for (const timer of timers) {
    if (timer.stopped) continue
    if (timer.checkAt && now >= timer.checkAt && now < timer.endsAt) rows.push({ key: `${timer.key}:look`, timer, look: true })
    if (now >= timer.endsAt) rows.push({ key: timer.key, timer, look: false })
  }
  return rows.filter((row) => !rung.has(row.key))
}

/** Minutes and seconds; what is over counts up behind a plus. */
export function clock(milliseconds: number): string {
  const seconds = Math.round(Math.abs(milliseconds) / 1000)
  const hours = Math.floor(seconds / 3600)
  const minutes = Math.floor((seconds % 3600) / 60)
  const rest = String(seconds % 60).padStart(2, '0')
  const text = hours ? `${hours}:${String(minutes).padStart(2, '0')}:${rest}` : `${minutes}:${rest}`
  return milliseconds < 0 && seconds ? `+${text}` : text
}
