/**
 * How far the quantities can go with all else kept: asked for once the dough rests, for the bracket that is open, and for all that
 * are seen while the dough is being settled. The ends belong to that dough alone.
 */
import { watchDebounced } from '@vueuse/core'
import { computed, shallowRef, watch, type ComputedRef } from 'vue'
import type { FormulaDocument } from '@/api/types'
import { useBench } from '@/stores/bench'
import { useSettle } from '@/stores/settle'
import { useJob } from './useJob'

export interface Ends {
  low: number
  high: number
}

const RESTED_MS = 600
/** As many as are asked for at once. */
const MOST = 6

export function useReach(wanted: () => readonly string[]): ComputedRef<ReadonlyMap<string, Ends>> {
  const bench = useBench()
  const settle = useSettle()
  const jobs = useJob()
  const asked = shallowRef<{ document: FormulaDocument; keys: readonly string[] } | null>(null)
  // Not a copy made reactive: the answer is for this very document.
  const rested = shallowRef<FormulaDocument | null>(null)
  watchDebounced(
    () => bench.document,
    (document) => (rested.value = document),
    { debounce: RESTED_MS, immediate: true },
  )
  watch(
    [() => wanted().slice(0, MOST).join(' '), rested, () => settle.underWay],
    ([told, document, settling]) => {
      // Settle goes first: the ends are asked for when it has answered.
      if (settling) {
        if (jobs.underWay.value) {
          void jobs.stop()
          asked.value = null
        }
        return
      }
      const keys = told.split(' ').filter(Boolean)
      const known = asked.value?.document === document && keys.every((key) => asked.value?.keys.includes(key))
      if (!keys.length || !document || !bench.mayEdit || known) return
      asked.value = { document, keys }
      void jobs.start({ kind: 'reach', document, formula_id: bench.formulaId, keys })
    },
    { immediate: true },
  )
  return computed(() => {
    const ends = new Map<string, Ends>()
    if (asked.value?.document !== bench.document) return ends
    for (const end of jobs.job.value?.reach ?? []) {
      if (end.low != null && end.high != null) ends.set(end.key, { low: end.low, high: end.high })
    }
    return ends
  })
}
