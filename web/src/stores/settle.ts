/** Settle: what is wished for, the answer to it, and which of its edits are ticked. The bench is changed only by accepting. */
import { defineStore } from 'pinia'
import { computed, reactive, ref, shallowRef, watch } from 'vue'
import type { FormulaDocument, LineChange, Relax, Settlement, ShapeChange, Way, Wish, MergeConflict } from '@/api/types'
import { useJob } from '@/composables/useJob'
import { withChanges, withTarget } from '@/domain/edits'
import { useBench } from './bench'
import { useToasts } from './toasts'
import { t } from '@/messages'

const NOTHING_WISHED = (): Wish => ({
  handling: '',
  texture: {},
  minutes_most: null,
  thickness_most: null,
  without: [],
  without_lines: [],
  locked: [],
  released: [],
  steps: 'kitchen',
  may_bring: true,
  only_stock: false,
  may_change_mass: false,
  may_change_pieces: false,
  may_change_thickness: false,
  margin: 0,
})

/** One edit of a way, to tick. */
export interface Edit {
  key: string
  text: string
  change: LineChange | ShapeChange
}

export const useSettle = defineStore('settle', () => {
  const bench = useBench()
  const toasts = useToasts()
  const jobs = useJob()
  const wish = reactive<Wish>(NOTHING_WISHED())
  const answer = shallowRef<Settlement | null>(null)
  const asked = shallowRef<FormulaDocument | null>(null)
  const number = ref(0)
  const unticked = ref<ReadonlySet<string>>(new Set())

  /** The last answer stays until the new one is there. */
  watch(jobs.job, (job) => {
    if (job?.state !== 'done' || !job.settlement) return
    answer.value = job.settlement
    number.value = 0
    unticked.value = new Set()
  })
  watch(
    () => bench.formulaId,
    () => {
      drop()
      Object.assign(wish, NOTHING_WISHED())
    },
  )

  /** Whether the answer is for the dough that is on the bench. */
  const fresh = computed(() => answer.value !== null && asked.value === bench.document)
  const way = computed<Way | null>(() => answer.value?.ways[number.value] ?? null)
  /** All that a way changes: how the dough is made into pieces, and its lines. */
  const edits = computed<readonly Edit[]>(() => [
    ...(way.value?.shape ?? []).map((change) => ({ key: `shape:${change.kind}`, text: change.text, change })),
    ...(way.value?.changes ?? []).map((change) => ({ key: change.line, text: change.text, change })),
  ])
  const ticked = computed(() => edits.value.filter((edit) => !unticked.value.has(edit.key)))
  /** Another dough that is looked at beside the core: a point of a trade-off. */
  const looked = shallowRef<FormulaDocument | null>(null)
  /** What a trial proposes to change of a formula: seen as a ghost before it is taken. */
  const proposal = shallowRef<{
    formulaId: number
    text: string
    edits: readonly string[]
    document: FormulaDocument
    conflicts: readonly MergeConflict[]
  } | null>(null)
  const proposed = computed(() => (proposal.value?.formulaId === bench.formulaId ? proposal.value : null))
  /** The formula as it would be, with what is ticked. */
  const preview = computed<FormulaDocument | null>(() =>
    proposed.value
      ? proposed.value.document
      : looked.value
        ? looked.value
        : fresh.value && way.value && bench.document
          ? withChanges(
              bench.document,
              ticked.value.map((edit) => edit.change),
              way.value.document,
            )
          : null,
  )

  async function start(): Promise<void> {
    const document = bench.document
    if (!document || !bench.mayEdit) return
    asked.value = document
    await jobs.start({ kind: 'settle', document, formula_id: bench.formulaId, wish: { ...wish } })
  }

  function drop(): void {
    answer.value = null
    asked.value = null
    number.value = 0
    jobs.follow(null)
  }

  function tick(line: string, on: boolean): void {
    const next = new Set(unticked.value)
    if (on) next.delete(line)
    else next.add(line)
    unticked.value = next
  }

  function choose(to: number): void {
    number.value = to
    unticked.value = new Set()
  }

  /** Take what is ticked, as one step that can be undone. */
  function accept(): boolean {
    const made = preview.value
    const count = ticked.value.length
    if (!made || !count) return false
    bench.edit(() => made)
    toasts.show(t('frame-settle-taken', { count }), { action: { label: t('frame-settle-undo'), run: () => void bench.goBack() } })
    drop()
    return true
  }

  /** Take what the trial proposes, as one step that can be undone; or leave it. */
  function answerProposal(take: boolean): void {
    const made = proposed.value
    proposal.value = null
    if (!made || !take) return
    bench.edit(() => made.document)
    toasts.show(t('frame-settle-the-suggested-changes-are-now-in'), {
      action: { label: t('frame-settle-undo'), run: () => void bench.goBack() },
    })
  }

  /** Let a limit go as far as it has to, and settle again. */
  async function relax(limit: Relax): Promise<void> {
    const [kind, name] = limit.key.split(':')
    if (kind === 'texture' && name) wish.texture = { [name]: { low: limit.low ?? null, high: limit.high ?? null } }
    else if (limit.key === 'minutes') wish.minutes_most = limit.high ?? null
    else if (limit.kind === 'target') {
      const now = bench.document?.targets?.[limit.key]
      const window = { low: limit.low ?? now?.low ?? null, high: limit.high ?? now?.high ?? null }
      bench.edit((doc) => withTarget(doc, limit.key, window))
    } else if (limit.key === 'mass') wish.may_change_mass = true
    else if (limit.key === 'pieces') wish.may_change_pieces = true
    else if (limit.key === 'thickness') wish.may_change_thickness = true
    else wish.released = [...(wish.released ?? []), limit.key]
    await start()
  }

  return {
    wish, looked, proposal, proposed, answerProposal, answer, way, number, edits, unticked, ticked, fresh, preview,
    job: jobs.job, underWay: jobs.underWay, trouble: jobs.trouble,
    start, stop: jobs.stop, drop, tick, choose, accept, relax,
  } // prettier-ignore
})
