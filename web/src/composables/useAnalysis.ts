/**
 * Ask for the judgement of a document while it changes under a finger.
 *
 * One question is on its way at a time and only the newest waits behind it, so answers come as fast as the
 * server gives them and never in the wrong order; an answer that a newer one has overtaken is dropped.
 */
import { shallowRef, type ShallowRef } from 'vue'
import { api, Refusal, settled } from '@/api/client'
import type { Analysis, FormulaDocument } from '@/api/types'

export interface Judgement {
  analysis: ShallowRef<Analysis | null>
  refusal: ShallowRef<Refusal | null>
  ask: (kitchenId: number, document: FormulaDocument) => void
  clear: () => void
}

export function useAnalysis(onAnswer: (analysis: Analysis, document: FormulaDocument) => void): Judgement {
  const analysis = shallowRef<Analysis | null>(null)
  const refusal = shallowRef<Refusal | null>(null)
  let waiting: { kitchenId: number; document: FormulaDocument } | null = null
  let busy = false
  let epoch = 0

  function ask(kitchenId: number, document: FormulaDocument): void {
    waiting = { kitchenId, document }
    if (!busy) void run()
  }

  async function run(): Promise<void> {
    busy = true
    while (waiting) {
      const { kitchenId, document } = waiting
      waiting = null
      const asked = epoch
      try {
        const answer = await settled(
          api.POST('/api/kitchens/{kitchen_id}/analyse', { params: { path: { kitchen_id: kitchenId } }, body: document }),
        )
        if (asked === epoch) {
          analysis.value = answer
          refusal.value = null
          onAnswer(answer, document)
        }
      } catch (error) {
        if (!(error instanceof Refusal)) throw error
        if (asked === epoch) refusal.value = error
      }
    }
    busy = false
  }

  function clear(): void {
    epoch++
    waiting = null
    analysis.value = null
    refusal.value = null
  }

  return { analysis, refusal, ask, clear }
}
