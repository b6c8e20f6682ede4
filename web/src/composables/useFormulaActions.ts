/** What can be done with the formula on the bench as a whole: the same list for its menu and for the command box. */
import { useRouter } from 'vue-router'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { useCopyAndArchive } from './useCopyAndArchive'
import { useFiles } from './useDocumentFiles'
import { usePanels } from './usePanels'
import { useSettling } from './useSettling'
import { t } from '@/messages'

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
      {
        key: 'a-versions',
        text: t('frame-use-formula-actions-versions'),
        also: t('frame-use-formula-actions-history-compare-side-by-side'),
        run: () => lines('versions'),
      },
      {
        key: 'a-export',
        text: t('frame-use-formula-actions-export'),
        also: t('frame-use-formula-actions-save-download-file-keep-share'),
        run: () => void save(false),
      },
      {
        key: 'a-export-all',
        text: t('frame-use-formula-actions-export-with-version-history'),
        also: t('frame-use-formula-actions-save-download-file'),
        run: () => void save(true),
      },
      {
        key: 'a-print',
        text: t('frame-use-formula-actions-print-the-card'),
        also: 'label',
        run: () => void router.push(`/formula/${bench.formulaId}/card`),
      },
    ]
    if (!session.may('formulas.edit')) return reading
    return [
      {
        key: 'a-settle',
        text: t('frame-use-formula-actions-balance-formula'),
        also: t('frame-use-formula-actions-balance-settle-solve-targets-fix-repair'),
        run: () => settling.open(),
      },
      {
        key: 'a-swap',
        text: t('frame-use-formula-actions-exclude-an-ingredient'),
        also: t('frame-use-formula-actions-swap-replace-without-free'),
        run: () => settling.swap(),
      },
      {
        key: 'a-front',
        text: t('frame-use-formula-actions-trade-offs'),
        also: t('frame-use-formula-actions-trade-off-front'),
        run: () => lines('front'),
      },
      {
        key: 'a-scale',
        text: t('frame-use-formula-actions-scale'),
        also: t('frame-use-formula-actions-double-half-batch-pieces-multiply-more'),
        run: () => lines('scale'),
      },
      {
        key: 'a-parts',
        text: t('frame-use-formula-actions-sub-recipes-and-varieties'),
        also: t('frame-use-formula-actions-filling-sauce-premix-sub-recipe-part'),
        run: () => lines('parts'),
      },
      {
        key: 'a-paste',
        text: t('frame-use-formula-actions-paste-an-ingredient-list'),
        also: t('frame-use-formula-actions-add-lines-recipe'),
        run: () => lines('paste'),
      },
      ...reading,
      {
        key: 'a-copy',
        text: t('frame-use-formula-actions-copy'),
        also: t('frame-use-formula-actions-duplicate-fork-another'),
        run: () => shelf.copy(bench.formulaId),
      },
      {
        key: 'a-archive',
        text: bench.archived ? t('frame-use-formula-actions-restore-from-archive') : t('frame-use-formula-actions-archive'),
        also: t('frame-use-formula-actions-delete-remove-put-away'),
        run: () => shelf.archive(bench.formulaId, !bench.archived),
      },
    ]
  }
}
