/** Undo and redo over immutable states. */

export interface History<T> {
  past: readonly T[]
  present: T
  future: readonly T[]
}

const DEPTH = 200

export const begin = <T>(present: T): History<T> => ({ past: [], present, future: [] })

/** A new state; the one before can be had back. */
export function push<T>(history: History<T>, next: T): History<T> {
  if (next === history.present) return history
  return { past: [...history.past.slice(1 - DEPTH), history.present], present: next, future: [] }
}

/** A new state that replaces the present one: a drag is one step, however many states it passes. */
export const replace = <T>(history: History<T>, next: T): History<T> => ({ ...history, present: next })

export function undo<T>(history: History<T>): History<T> {
  const last = history.past.at(-1)
  if (last === undefined) return history
  return { past: history.past.slice(0, -1), present: last, future: [history.present, ...history.future] }
}

const REMEMBERED = 40
const PREFIX = 'steps:'

/** Where the steps of a formula are kept. */
export const stepsOf = (kitchenId: number, formulaId: number): string => `${PREFIX}${kitchenId}:${formulaId}`

interface Kept<T> extends History<T> {
  /** Lock of the draft that the present state was saved as; 0 while it was not saved yet. */
  lock: number
  /** When it was kept: of many formulas the oldest makes room. */
  at: number
}

/** Keep the steps for this session, so that neither a reload nor another formula loses them. */
export function remember(key: string, history: History<unknown>): void {
  const kept: Kept<unknown> = {
    past: history.past.slice(-REMEMBERED),
    present: history.present,
    future: history.future.slice(0, REMEMBERED),
    lock: 0,
    at: Date.now(),
  }
  const text = JSON.stringify(kept)
  for (;;) {
    try {
      sessionStorage.setItem(key, text)
      return
    } catch {
      if (!forgetOldest(key)) {
        // No room for these alone: the steps of this page still stand in memory.
        sessionStorage.removeItem(key)
        return
      }
    }
  }
}

/** The present state was saved under a lock: by it the steps are found again, whatever the server makes of the document's order. */
export function rememberLock(key: string, saved: unknown, lock: number): void {
  try {
    const kept = JSON.parse(sessionStorage.getItem(key) ?? 'null') as Kept<unknown> | null
    if (kept && JSON.stringify(kept.present) === JSON.stringify(saved)) sessionStorage.setItem(key, JSON.stringify({ ...kept, lock }))
  } catch {
    sessionStorage.removeItem(key)
  }
}

/** Make room by the steps of the formula that was left alone longest; false when there is none. */
function forgetOldest(but: string): boolean {
  const keys = Object.keys(sessionStorage).filter((key) => key.startsWith(PREFIX) && key !== but)
  const age = (key: string): number => {
    try {
      return (JSON.parse(sessionStorage.getItem(key) ?? 'null') as Kept<unknown> | null)?.at ?? 0
    } catch {
      return 0
    }
  }
  const oldest = keys.sort((a, b) => age(a) - age(b))[0]
  if (oldest === undefined) return false
  sessionStorage.removeItem(oldest)
  return true
}

/**
 * The history of a state with the steps that were kept for it; a plain one where the state has moved on since. The server writes a
 * document in its own order and fills in what is usual: the lock says that it is the same.
 */
export function recall<T>(key: string, present: T, lock = 0): History<T> {
  try {
    const kept = JSON.parse(sessionStorage.getItem(key) ?? 'null') as Kept<T> | null
    const same = kept && ((lock > 0 && kept.lock === lock) || JSON.stringify(kept.present) === JSON.stringify(present))
    if (same) return { past: kept.past, future: kept.future, present }
  } catch {
    sessionStorage.removeItem(key)
  }
  return begin(present)
}

export function redo<T>(history: History<T>): History<T> {
  const [next, ...rest] = history.future
  if (next === undefined) return history
  return { past: [...history.past, history.present], present: next, future: rest }
}
