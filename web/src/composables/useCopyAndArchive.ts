/** A formula copied, or put in the archive and brought back: from the shelf and from its own menu. */
import { useRouter } from 'vue-router'
import { api, settled } from '@/api/client'
import { useToasts } from '@/stores/toasts'
import { useDo } from './useDo'
import { t } from '@/messages'

interface Shelved {
  id: number
  name: string
  archived: boolean
}

/**
 * @param then is told where the formula now is.
 */
export function useCopyAndArchive(then: (out: Shelved) => void = () => undefined) {
  const router = useRouter()
  const toasts = useToasts()
  const copying = useDo(
    (id: number, at) =>
      settled(
        api.POST('/api/kitchens/{kitchen_id}/formulas/{formula_id}/fork', {
          params: { path: { ...at, formula_id: id } },
          body: { name: '' },
        }),
      ),
    { then: (made) => router.push(`/formula/${made.id}`) },
  )
  const archiving = useDo(
    ({ id, archived }: { id: number; archived: boolean }, at) =>
      settled(
        api.POST('/api/kitchens/{kitchen_id}/formulas/{formula_id}/archive', {
          params: { path: { ...at, formula_id: id } },
          body: { archived },
        }),
      ),
    {
      then: (out) => {
        then(out)
        toasts.show(
          out.archived
            ? t('frame-use-copy-and-archive-archived', { name: out.name })
            : t('frame-use-copy-and-archive-is-back-among-the-formulas', { name: out.name }),
          {
            action: { label: t('frame-use-copy-and-archive-undo'), run: () => void archiving.run({ id: out.id, archived: !out.archived }) },
          },
        )
      },
    },
  )
  return {
    copy: (id: number): void => void copying.run(id),
    archive: (id: number, archived: boolean): void => void archiving.run({ id, archived }),
  }
}
