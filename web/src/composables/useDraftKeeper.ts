/**
 * A draft that saves itself: kept in this browser at once, sent to the server when the hand rests.
 *
 * The server's lock tells when somebody else saved in between; then nothing is overwritten and a choice is offered.
 */
import { ref, shallowRef, type Ref, type ShallowRef } from 'vue'
import { api, csrfToken, Refusal, settled } from '@/api/client'
import type { FormulaDocument, FormulaOut } from '@/api/types'
import { rememberLock, stepsOf } from '@/domain/history'

interface Clash {
  document: FormulaDocument
  lock: number
  by: string
  differences: string[]
}

type SaveState = 'saved' | 'waiting' | 'saving' | 'offline' | 'refused' | 'clash'

export interface DraftKeeper {
  state: Ref<SaveState>
  lock: Ref<number>
  changed: Ref<boolean>
  clash: ShallowRef<Clash | null>
  refusal: ShallowRef<Refusal | null>
  open: (kitchenId: number, formula: FormulaOut) => FormulaDocument
  keep: (document: FormulaDocument) => void
  flush: () => Promise<boolean>
  takeTheirs: () => FormulaDocument | null
  keepMine: () => Promise<void>
  close: () => void
}

const REST_MS = 500
const RETRY_MS = 3000

/** This open page, also after it was loaded anew: an answer that got lost is no conflict with itself. */
function ownPage(): string {
  const kept = sessionStorage.getItem('page') ?? crypto.randomUUID()
  sessionStorage.setItem('page', kept)
  return kept
}

interface Kept {
  document: FormulaDocument
  lock: number
}

export function useDraftKeeper(onSaved: (formula: FormulaOut) => void): DraftKeeper {
  const state = ref<SaveState>('saved')
  const lock = ref(0)
  const changed = ref(false)
  const clash = shallowRef<Clash | null>(null)
  const refusal = shallowRef<Refusal | null>(null)
  let place = { kitchenId: 0, formulaId: 0 }
  let unsent: FormulaDocument | null = null
  let timer = 0
  let sending: Promise<boolean> | null = null

  const shelf = (): string => `draft:${place.kitchenId}:${place.formulaId}`

  function open(kitchenId: number, formula: FormulaOut): FormulaDocument {
    place = { kitchenId, formulaId: formula.id }
    lock.value = formula.lock
    changed.value = formula.changed
    clash.value = null
    refusal.value = null
    unsent = null
    state.value = 'saved'
    const served = formula.document as FormulaDocument
    const kept = readKept(shelf())
    if (!kept) return served
    // Work that never reached the server, from before a reload or a lost connection.
    lock.value = kept.lock
    keep(kept.document)
    return kept.document
  }

  function keep(document: FormulaDocument): void {
    unsent = document
    localStorage.setItem(shelf(), JSON.stringify({ document, lock: lock.value } satisfies Kept))
    if (state.value === 'clash') return
    state.value = 'waiting'
    clearTimeout(timer)
    timer = window.setTimeout(() => void flush(), REST_MS)
  }

  async function flush(): Promise<boolean> {
    clearTimeout(timer)
    // Each waiter looks again: another may have begun to send meanwhile.
    while (sending) await sending
    if (!unsent || state.value === 'clash') return state.value === 'saved'
    sending = send(unsent)
    const done = await sending
    sending = null
    return done
  }

  async function send(document: FormulaDocument): Promise<boolean> {
    state.value = 'saving'
    const at = { kitchen_id: place.kitchenId, formula_id: place.formulaId }
    const where = shelf()
    try {
      const saved = await settled(
        api.PUT('/api/kitchens/{kitchen_id}/formulas/{formula_id}/draft', {
          params: { path: at },
          body: { document, lock: lock.value, page: ownPage() },
        }),
      )
      rememberLock(stepsOf(at.kitchen_id, at.formula_id), document, saved.lock)
      if (where !== shelf()) return true
      lock.value = saved.lock
      changed.value = saved.changed
      refusal.value = null
      onSaved(saved)
      if (unsent === document) {
        unsent = null
        localStorage.removeItem(where)
        state.value = 'saved'
      } else if (unsent) {
        keep(unsent)
      }
      return true
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      refuse(error)
      return false
    }
  }

  function refuse(error: Refusal): void {
    if (error.status === 409 && error.problem.current) {
      clash.value = error.problem.current as unknown as Clash
      state.value = 'clash'
    } else if (error.status === 0 || error.status >= 500) {
      state.value = 'offline'
      timer = window.setTimeout(() => void flush(), RETRY_MS)
    } else {
      refusal.value = error
      state.value = 'refused'
    }
  }

  function takeTheirs(): FormulaDocument | null {
    const theirs = clash.value
    if (!theirs) return null
    lock.value = theirs.lock
    clash.value = null
    unsent = null
    localStorage.removeItem(shelf())
    state.value = 'saved'
    return theirs.document
  }

  async function keepMine(): Promise<void> {
    if (!clash.value || !unsent) return
    lock.value = clash.value.lock
    clash.value = null
    state.value = 'waiting'
    keep(unsent)
    await flush()
  }

  /** On leaving: what is unsent goes out even while the page is being closed. */
  function close(): void {
    clearTimeout(timer)
    if (!unsent || state.value === 'clash' || sending) return
    const where = shelf()
    void fetch(`/api/kitchens/${place.kitchenId}/formulas/${place.formulaId}/draft`, {
      method: 'PUT',
      keepalive: true,
      headers: { 'Content-Type': 'application/json', 'X-CSRFToken': csrfToken() },
      body: JSON.stringify({ document: unsent, lock: lock.value, page: ownPage() }),
    }).then(
      (response) => {
        if (response.ok) localStorage.removeItem(where)
      },
      () => undefined,
    )
  }

  return { state, lock, changed, clash, refusal, open, keep, flush, takeTheirs, keepMine, close }
}

function readKept(key: string): Kept | null {
  const text = localStorage.getItem(key)
  if (!text) return null
  try {
    return JSON.parse(text) as Kept
  } catch {
    localStorage.removeItem(key)
    return null
  }
}
