/** Edits of a formula document. Each gives a new document; none changes the one it got. */
import type { FormulaDocument, LineChange, LineDocument, ShapeChange } from '@/api/types'

export function withLine(doc: FormulaDocument, id: string, change: Partial<LineDocument>): FormulaDocument {
  return { ...doc, lines: (doc.lines ?? []).map((line) => (line.id === id ? { ...line, ...change } : line)) }
}

export function withoutLine(doc: FormulaDocument, id: string): FormulaDocument {
  return { ...doc, lines: (doc.lines ?? []).filter((line) => line.id !== id) }
}

export function withLines(doc: FormulaDocument, added: readonly LineDocument[], at?: number): FormulaDocument {
  const lines = [...(doc.lines ?? [])]
  const taken = new Set(lines.map((line) => line.id))
  const fresh = added.map((line) => {
    const id = freeId(line.id, taken)
    taken.add(id)
    return { ...line, id }
  })
  lines.splice(at ?? lines.length, 0, ...fresh)
  return { ...doc, lines }
}

export function movedLine(doc: FormulaDocument, id: string, to: number): FormulaDocument {
  const lines = [...(doc.lines ?? [])]
  const from = lines.findIndex((line) => line.id === id)
  const [line] = from < 0 ? [] : lines.splice(from, 1)
  if (!line) return doc
  lines.splice(Math.max(0, Math.min(to, lines.length)), 0, line)
  return { ...doc, lines }
}

export function withTarget(doc: FormulaDocument, key: string, window: { low: number | null; high: number | null } | null): FormulaDocument {
  const targets = { ...doc.targets }
  // eslint-disable-next-line @typescript-eslint/no-dynamic-delete -- a target set back to the house window is no target
  if (window === null) delete targets[key]
  else targets[key] = window
  return { ...doc, targets }
}

/** Several edits at once: new weights, lines that go, lines that come and other pieces, each as it stands in `made`. */
export function withChanges(doc: FormulaDocument, changes: readonly (LineChange | ShapeChange)[], made: FormulaDocument): FormulaDocument {
  const here = new Set((doc.lines ?? []).map((line) => line.id))
  return changes.reduce((now, change) => {
    if (!('line' in change)) {
      const { pieces, size } = made.form
      return { ...now, form: { ...now.form, ...(change.kind === 'pieces' ? { pieces } : { size }) } }
    }
    if (change.after <= 0) return withoutLine(now, change.line)
    if (here.has(change.line)) return withLine(now, change.line, { grams: change.after, entered: `${change.after} g` })
    const line = made.lines?.find((own) => own.id === change.line)
    return line ? withLines(now, [line]) : now
  }, doc)
}

/** A line's weight with the whole kept: the lines that may give do so in the shares that they have. */
export function withLineOfWhole(doc: FormulaDocument, id: string, grams: number, giving: readonly string[]): FormulaDocument {
  const lines = doc.lines ?? []
  const before = lines.find((line) => line.id === id)?.grams ?? 0
  const others = lines.filter((line) => line.id !== id && giving.includes(line.id) && !line.locked && (line.grams ?? 0) > 0)
  const room = others.reduce((sum, line) => sum + (line.grams ?? 0), 0)
  if (!room) return doc
  const now = Math.min(Math.max(grams, 0), before + room)
  const share = (room - (now - before)) / room
  return others.reduce(
    (made, line) => {
      const left = Math.round((line.grams ?? 0) * share * 10) / 10
      return withLine(made, line.id, { grams: left, entered: `${left} g` })
    },
    withLine(doc, id, { grams: now, entered: `${now} g` }),
  )
}

/** An id that no line has, made from a wish: "egg", "egg-2". */
export function freeId(wish: string, taken: ReadonlySet<string>): string {
  const base = wish.slice(0, 36) || 'line'
  if (!taken.has(base)) return base
  let n = 2
  while (taken.has(`${base}-${n}`)) n++
  return `${base}-${n}`
}

/** What the typed text means: a bare number is in the shown unit, anything else goes to the core to be read. */
export function enteredAmount(text: string, unit: 'g' | 'oz'): Pick<LineDocument, 'entered' | 'grams'> {
  const typed = text.trim()
  const bare = /^\d+(?:[.,]\d+)?$/.exec(typed)
  return { entered: bare ? `${typed} ${unit}` : typed, grams: null }
}

/** What is set on the Prep station; nothing goes back to the usual. */
export function withPrep(doc: FormulaDocument, change: Record<string, number | string | null>): FormulaDocument {
  const kept = Object.entries({ ...doc.prep, ...change }).filter((entry): entry is [string, number | string] => entry[1] !== null)
  return { ...doc, prep: Object.fromEntries(kept) }
}

type Size = NonNullable<FormulaDocument['form']['size']>
type Bake = NonNullable<FormulaDocument['bake']>

/** How a piece is shaped: what is held, and its measures. */
export function withSize(doc: FormulaDocument, change: Partial<Size>): FormulaDocument {
  return { ...doc, form: { ...doc.form, size: { ...doc.form.size, ...change } as Size } }
}

/** What is wanted of the oven. */
export function withBake(doc: FormulaDocument, change: Partial<Bake>): FormulaDocument {
  return { ...doc, bake: { ...doc.bake, ...change } as Bake }
}
