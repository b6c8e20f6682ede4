/** Ask for the judgement of a document while it changes. */
import type { ShallowRef } from 'vue'
import { api, settled, type Refusal } from '@/api/client'
import type { Analysis, FormulaDocument } from '@/api/types'
import { useLatest } from './useLatest'

export interface Judgement {
  analysis: ShallowRef<Analysis | null>
  refusal: ShallowRef<Refusal | null>
  ask: (kitchenId: number, document: FormulaDocument) => void
  clear: () => void
}

export function useAnalysis(onAnswer: (analysis: Analysis, document: FormulaDocument) => void): Judgement {
  const latest = useLatest(
    ({ kitchenId, document }: { kitchenId: number; document: FormulaDocument }) =>
      settled(api.POST('/api/kitchens/{kitchen_id}/analyse', { params: { path: { kitchen_id: kitchenId } }, body: document })),
    (analysis, { document }) => {
      onAnswer(analysis, document)
    },
  )
  return {
    analysis: latest.answer,
    refusal: latest.refusal,
    ask: (kitchenId, document) => {
      latest.ask({ kitchenId, document })
    },
    clear: latest.clear,
  }
}
