/** The way to Settle from anywhere: the panel opens over the lines and the question is asked. */
import { useRouter } from 'vue-router'
import { useBench } from '@/stores/bench'
import { useSettle } from '@/stores/settle'
import { useBalance } from './useBalance'
import { usePanels } from './usePanels'

export interface Settling {
  open: () => void
  /** Leave something out and settle again. */
  without: (exclusion: string) => void
  /** Settle for another score of texture. */
  texture: (key: string, window: { low: number | null; high: number | null }) => void
  /** Do without one line. */
  withoutLine: (line: string) => void
  /** The panel alone, to say what is to be left out. */
  swap: () => void
}

export function useSettling(): Settling {
  const bench = useBench()
  const settle = useSettle()
  const panels = usePanels()
  const router = useRouter()
  const { sheet } = useBalance()

  async function show(ask: boolean): Promise<void> {
    if (!bench.document || !bench.mayEdit) return
    sheet.value = false
    panels.open.value = 'settle'
    const address = `/formula/${bench.formulaId}`
    if (router.currentRoute.value.path !== address) await router.push(address)
    panels.open.value = 'settle'
    if (ask) await settle.start()
  }
  return {
    open: () => void show(true),
    swap: () => void show(false),
    without: (exclusion) => {
      settle.wish.without = [...new Set([...(settle.wish.without ?? []), exclusion])]
      void show(true)
    },
    texture: (key, window) => {
      settle.wish.texture = { [key]: window }
      void show(true)
    },
    withoutLine: (line) => {
      settle.wish.without_lines = [line]
      void show(true)
    },
  }
}
