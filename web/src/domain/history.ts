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

export function redo<T>(history: History<T>): History<T> {
  const [next, ...rest] = history.future
  if (next === undefined) return history
  return { past: [...history.past, history.present], present: next, future: rest }
}
