/** The formula on the bench: its document with undo and redo, its judgement, and how it is saved. */
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { api, settled } from '@/api/client'
import { kitchenKey, queries } from '@/api/policy'
import type { Analysis, FormulaDocument, FormulaOut, LineDocument, Version } from '@/api/types'
import { useAnalysis } from '@/composables/useAnalysis'
import { useDraftKeeper } from '@/composables/useDraftKeeper'
import { withLine } from '@/domain/edits'
import { push, recall, redo, remember, replace, stepsOf, undo, type History } from '@/domain/history'
import { useSession } from './session'
import { t } from '@/messages'

/** What a formula is called before it has a name. */
export const NEW_NAME = t('frame-bench-new-formula')

export const useBench = defineStore('bench', () => {
  const session = useSession()
  const formulaId = ref(0)
  const history = shallowRef<History<FormulaDocument> | null>(null)
  const mayEdit = ref(false)
  const archived = ref(false)
  const baseNumber = ref(0)
  const selected = ref('')
  const versions = shallowRef<Version[]>([])
  const pulling = ref(false)

  const document = computed(() => history.value?.present ?? null)
  const lines = computed<LineDocument[]>(() => document.value?.lines ?? [])
  const canUndo = computed(() => (history.value?.past.length ?? 0) > 0)
  const canRedo = computed(() => (history.value?.future.length ?? 0) > 0)

  const judgement = useAnalysis(weighTyped)
  const keeper = useDraftKeeper((saved: FormulaOut) => {
    baseNumber.value = saved.base_number
  })

  const readings = computed(() => new Map((judgement.analysis.value?.lines ?? []).map((line) => [line.id, line])))
  /** What is known of an ingredient from any answer so far, for lines that the last answer had to leave out. */
  const known = new Map<string, Analysis['lines'][number]>()
  const reading = (line: LineDocument): Analysis['lines'][number] | undefined => readings.value.get(line.id) ?? known.get(line.ingredient)
  const problems = computed(() => new Map((judgement.analysis.value?.problems ?? []).map((p) => [p.line ?? '', p])))

  function at(): { kitchen_id: number; formula_id: number } {
    return { kitchen_id: session.kitchen?.id ?? 0, formula_id: formulaId.value }
  }

  const place = (): string => stepsOf(session.kitchen?.id ?? 0, formulaId.value)

  async function open(id: number): Promise<void> {
    const kitchenId = session.kitchen?.id ?? 0
    const formula = await settled(
      api.GET('/api/kitchens/{kitchen_id}/formulas/{formula_id}', { params: { path: { kitchen_id: kitchenId, formula_id: id } } }),
    )
    judgement.clear()
    formulaId.value = id
    mayEdit.value = formula.may_edit
    archived.value = formula.archived
    baseNumber.value = formula.base_number
    selected.value = ''
    history.value = recall(place(), keeper.open(kitchenId, formula), formula.lock)
    askAgain()
    await loadVersions()
  }

  function askAgain(): void {
    if (document.value && session.kitchen) judgement.ask(session.kitchen.id, document.value)
  }

  function take(next: History<FormulaDocument>): void {
    if (!mayEdit.value || next === history.value) return
    history.value = next
    remember(place(), next)
    keeper.keep(next.present)
    askAgain()
  }

  /** An edit that can be undone. */
  function edit(change: (doc: FormulaDocument) => FormulaDocument): void {
    if (history.value) take(push(history.value, change(history.value.present)))
  }

  /** A state on the way of a drag: answered at once, remembered as one step with its end. */
  function pull(change: (doc: FormulaDocument) => FormulaDocument): void {
    if (!history.value || !mayEdit.value) return
    const next = change(history.value.present)
    history.value = pulling.value ? replace(history.value, next) : push(history.value, next)
    pulling.value = true
    askAgain()
  }

  function endPull(): void {
    if (pulling.value && history.value) {
      remember(place(), history.value)
      keeper.keep(history.value.present)
    }
    pulling.value = false
  }

  function goBack(): void {
    if (history.value) take(undo(history.value))
  }

  function goForward(): void {
    if (history.value) take(redo(history.value))
  }

  /** The core has turned typed amounts into grams: put them into the lines they belong to. */
  function weighTyped(analysis: Analysis, asked: FormulaDocument): void {
    for (const line of analysis.lines) known.set(line.ingredient, line)
    if (!history.value || !(asked.lines ?? []).some((line) => line.grams == null)) return
    const weighed = new Map(analysis.lines.map((line) => [line.id, line.grams]))
    const typed = new Map((asked.lines ?? []).map((line) => [line.id, line.entered]))
    let next = history.value.present
    for (const line of next.lines ?? []) {
      const grams = weighed.get(line.id)
      if (line.grams == null && grams !== undefined && typed.get(line.id) === line.entered) {
        next = withLine(next, line.id, { grams: Math.round(grams * 100) / 100 })
      }
    }
    if (next === history.value.present) return
    history.value = replace(history.value, next)
    if (mayEdit.value && !pulling.value) {
      remember(place(), history.value)
      keeper.keep(next)
    }
  }

  /** A formula that was begun and left with nothing in it leaves nothing behind. */
  async function discardBlank(): Promise<void> {
    const doc = document.value
    const blank = doc && mayEdit.value && !baseNumber.value && !doc.lines?.length && !doc.notes && doc.name === NEW_NAME
    if (!blank || Object.keys(doc.targets ?? {}).length) return
    const place = at()
    await keeper.flush()
    formulaId.value = 0
    history.value = null
    // Refused where somebody else has put something into it meanwhile: then it stays.
    await settled(api.DELETE('/api/kitchens/{kitchen_id}/formulas/{formula_id}/blank', { params: { path: place } })).catch(() => undefined)
    await queries.invalidateQueries({ queryKey: kitchenKey(place.kitchen_id) })
  }

  async function loadVersions(): Promise<void> {
    versions.value = await settled(api.GET('/api/kitchens/{kitchen_id}/formulas/{formula_id}/versions', { params: { path: at() } }))
  }

  async function saveVersion(note: string): Promise<Version | null> {
    if (!(await keeper.flush())) return null
    const saved = await settled(
      api.POST('/api/kitchens/{kitchen_id}/formulas/{formula_id}/versions', {
        params: { path: at() },
        body: { lock: keeper.lock.value, note },
      }),
    )
    keeper.lock.value += 1
    keeper.changed.value = false
    baseNumber.value = saved.number
    await loadVersions()
    return saved
  }

  /** Bring an old version onto the bench, as an edit that can be undone. */
  async function recallVersion(number: number): Promise<void> {
    const old = await settled(
      api.GET('/api/kitchens/{kitchen_id}/formulas/{formula_id}/versions/{number}', { params: { path: { ...at(), number } } }),
    )
    edit(() => old.document as FormulaDocument)
  }

  function takeTheirs(): void {
    const theirs = keeper.takeTheirs()
    if (theirs && history.value) {
      history.value = push(history.value, theirs)
      askAgain()
    }
  }

  return {
    formulaId,
    document,
    lines,
    mayEdit,
    archived,
    baseNumber,
    selected,
    versions,
    pulling,
    canUndo,
    canRedo,
    analysis: computed(() => judgement.analysis.value),
    refusal: judgement.refusal,
    readings,
    reading,
    problems,
    saveState: keeper.state,
    changed: keeper.changed,
    clash: keeper.clash,
    saveRefusal: keeper.refusal,
    open,
    edit,
    pull,
    endPull,
    goBack,
    goForward,
    askAgain,
    loadVersions,
    saveVersion,
    recall: recallVersion,
    flush: keeper.flush,
    leave: keeper.close,
    discardBlank,
    keepMine: keeper.keepMine,
    takeTheirs,
  }
})
