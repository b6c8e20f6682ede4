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

/** Keep the steps for this session, so that a reload does not lose them. */
export function remember(key: string, history: History<unknown>): void {
  const kept = { past: history.past.slice(-REMEMBERED), present: history.present, future: history.future.slice(0, REMEMBERED) }
  try {
    sessionStorage.setItem(key, JSON.stringify(kept))
  } catch {
    // No room: the steps of this page still stand in memory.
    sessionStorage.removeItem(key)
  }
}

/** The history of a state with the steps that were kept for it; a plain one where the state has moved on since. */
export function recall<T>(key: string, present: T): History<T> {
  try {
    const kept = JSON.parse(sessionStorage.getItem(key) ?? 'null') as History<T> | null
    if (kept && JSON.stringify(kept.present) === JSON.stringify(present)) return { ...kept, present }
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
