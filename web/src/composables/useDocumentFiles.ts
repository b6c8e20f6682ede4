/** Formulas, kitchens and packs as files: kept from a button, brought back by another or by dropping them. */
import { download } from '@/domain/download'
import { useRouter } from 'vue-router'
import { api, settled } from '@/api/client'
import type { LotDocument } from '@/api/types'
import { useSession } from '@/stores/session'
import { useToasts } from '@/stores/toasts'
import { useDo } from './useDo'
import { t } from '@/messages'

const LARGEST_FILE = 9_500_000

function save(content: unknown, name: string | undefined, kind: 'substrata' | 'pack'): void {
  const plain = name?.replace(/[^\p{L}\p{N} -]/gu, '').trim() || kind
  download(`${plain}.${kind}.json`, JSON.stringify(content, null, 1), 'application/json')
}

export const savePack = (document: LotDocument): void => {
  save(document, document.name, 'pack')
}

/** A file's content; throws a sentence that says what is wrong. The core checks the rest. */
async function readFile(file: File): Promise<Record<string, unknown>> {
  if (file.size > LARGEST_FILE) throw new Error(t('frame-use-document-files-is-too-large-to-be-read', { name: file.name }))
  try {
    const read = JSON.parse(await file.text()) as unknown
    if (typeof read === 'object' && read !== null && ('lines' in read || 'substrata_file' in read)) return read as Record<string, unknown>
  } catch {
    // Said below, in the same words as for JSON of another kind.
  }
  throw new Error(t('frame-use-document-files-is-not-a-substrata-formula-file', { name: file.name }))
}

export interface Files {
  exportFormula: (formulaId: number, name: string, versions: boolean) => Promise<void>
  exportKitchen: () => Promise<void>
  take: (files: Iterable<File>, settings?: boolean) => Promise<void>
}

export function useFiles(): Files {
  const session = useSession()
  const toasts = useToasts()
  const router = useRouter()
  const taking = useDo(
    (given: { file: Record<string, unknown>; settings: boolean }, at) =>
      settled(api.POST('/api/kitchens/{kitchen_id}/file', { params: { path: at }, body: given })),
    { here: true },
  )
  const formulaFile = useDo((given: { formula_id: number; versions: boolean }, at) =>
    settled(
      api.GET('/api/kitchens/{kitchen_id}/formulas/{formula_id}/file', {
        params: { path: { ...at, formula_id: given.formula_id }, query: { versions: given.versions } },
      }),
    ),
  )
  const kitchenFile = useDo((_: undefined, at) => settled(api.GET('/api/kitchens/{kitchen_id}/file', { params: { path: at } })))

  async function exportFormula(formulaId: number, name: string, versions: boolean): Promise<void> {
    const content = await formulaFile.run({ formula_id: formulaId, versions })
    if (content) save(content, name, 'substrata')
  }

  async function exportKitchen(): Promise<void> {
    const content = await kitchenFile.run(undefined)
    if (content) save(content, session.kitchen?.name, 'substrata')
  }

  async function take(files: Iterable<File>, settings = false): Promise<void> {
    for (const file of files) {
      const content = await readFile(file).catch((error: unknown) => {
        toasts.show((error as Error).message, { tone: 'act' })
      })
      const taken = content ? await taking.run({ file: content, settings }) : null
      if (taking.trouble.value) toasts.show(`${file.name}: ${taking.trouble.value}`, { tone: 'act' })
      if (!taken) continue
      const [first] = taken.formulas
      const many = taken.formulas.length
      const packs = taken.packs_added ? ' ' + t('frame-use-document-files-with', { packs_added: taken.packs_added }) : ''
      const what = many === 1 && first ? first.name : t('frame-use-document-files-formulas', { many })
      toasts.show(
        t('frame-use-document-files-imported', { what, packs }),
        first && many === 1
          ? { action: { label: t('frame-use-document-files-open'), run: () => void router.push(`/formula/${first.id}`) } }
          : {},
      )
      if (settings) await session.load()
    }
  }
  return { exportFormula, exportKitchen, take }
}
