/** What can be done with the formula on the bench as a whole: the same list for its menu and for the command box. */
import { useRouter } from 'vue-router'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { useCopyAndArchive } from './useCopyAndArchive'
import { useFiles } from './useDocumentFiles'
import { usePanels } from './usePanels'
import { useSettling } from './useSettling'

export interface FormulaAction {
  key: string
  text: string
  /** Other words for it. */
  also: string
  run: () => void
}

export function useFormulaActions(): () => FormulaAction[] {
  const bench = useBench()
  const session = useSession()
  const router = useRouter()
  const panels = usePanels()
  const files = useFiles()
  const shelf = useCopyAndArchive((out) => {
    bench.archived = out.archived
  })
  const settling = useSettling()
  const lines = (panel: 'scale' | 'versions' | 'paste' | 'front' | 'parts'): void => {
    void router.push(`/formula/${bench.formulaId}`).then(() => {
      if (panel === 'paste') panels.paste('')
      else panels.open.value = panel
    })
  }
  const save = async (versions: boolean): Promise<void> => {
    if (await bench.flush()) await files.exportFormula(bench.formulaId, bench.document?.name ?? '', versions)
  }

  return () => {
    if (!bench.formulaId || !bench.document) return []
    const reading: FormulaAction[] = [
      { key: 'a-versions', text: 'Versions', also: 'history compare side by side', run: () => lines('versions') },
      { key: 'a-export', text: 'Export', also: 'save download file keep share', run: () => void save(false) },
      { key: 'a-export-all', text: 'Export with version history', also: 'save download file', run: () => void save(true) },
      { key: 'a-print', text: 'Print the card', also: 'label', run: () => void router.push(`/formula/${bench.formulaId}/card`) },
    ]
    if (!session.may('formulas.edit')) return reading
    return [
      { key: 'a-settle', text: 'Balance formula', also: 'balance settle solve targets fix repair', run: () => settling.open() },
      { key: 'a-swap', text: 'Exclude an ingredient', also: 'swap replace without free', run: () => settling.swap() },
      { key: 'a-front', text: 'Trade-offs', also: 'trade-off front', run: () => lines('front') },
      { key: 'a-scale', text: 'Scale', also: 'double half batch pieces multiply more less', run: () => lines('scale') },
      {
        key: 'a-parts',
        text: 'Sub-recipes and varieties',
        also: 'filling sauce premix sub-recipe part sort variety several fillings toppings',
        run: () => lines('parts'),
      },
      { key: 'a-paste', text: 'Paste an ingredient list', also: 'add lines recipe', run: () => lines('paste') },
      ...reading,
      { key: 'a-copy', text: 'Copy', also: 'duplicate fork another', run: () => shelf.copy(bench.formulaId) },
      {
        key: 'a-archive',
        text: bench.archived ? 'Restore from archive' : 'Archive',
        also: 'delete remove put away',
        run: () => shelf.archive(bench.formulaId, !bench.archived),
      },
    ]
  }
}
