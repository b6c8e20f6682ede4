/** Which panel of the bench is open in the work area. */
import { ref, shallowRef, type Ref } from 'vue'
import type { Ingredient } from '@/api/types'
import { t } from '@/messages'

export type Panel = 'lines' | 'versions' | 'paste' | 'scale' | 'settle' | 'what-if' | 'front' | 'mix' | 'parts'

const open = ref<Panel>('lines')
/** More than this is no ingredient list, and would only make the page slow. */
const PASTE_ROOM = 200_000

const pasted = ref('')
const refused = ref('')
const version = ref(0)
const wanted = shallowRef<Ingredient | null>(null)

export interface Panels {
  open: Ref<Panel>
  /** An ingredient that was chosen and waits for its amount: nothing is added without one. */
  wanted: Ref<Ingredient | null>
  /** Text that waits to be read in the paste panel. */
  pasted: Ref<string>
  /** Why the last paste was not taken. */
  refused: Ref<string>
  /** The version that stands beside the one before it; 0 shows the list. */
  version: Ref<number>
  toggle: (panel: Panel) => void
  /** Leaf through the versions: −1 older, 1 newer; past the newest comes the list. */
  leaf: (step: -1 | 1, newest: number) => void
  paste: (text: string) => void
  /** Whether a paste can be taken; says why when it cannot. What was there stays. */
  takes: (text: string) => boolean
}

function takes(text: string): boolean {
  refused.value =
    text.length > PASTE_ROOM ? t('frame-use-panels-that-text-is-too-long-million', { millions: (text.length / 1e6).toFixed(1) }) : ''
  return refused.value === ''
}

export function usePanels(): Panels {
  return {
    open,
    pasted,
    refused,
    takes,
    version,
    wanted,
    leaf(step, newest) {
      open.value = 'versions'
      const now = version.value || newest + 1
      version.value = Math.max(now + step, 1) > newest ? 0 : Math.max(now + step, 1)
    },
    toggle(panel) {
      open.value = open.value === panel ? 'lines' : panel
    },
    paste(text) {
      if (takes(text)) pasted.value = text
      open.value = 'paste'
    },
  }
}
