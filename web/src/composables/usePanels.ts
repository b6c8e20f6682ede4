/** Which panel of the bench is open in the work area. */
import { ref, type Ref } from 'vue'

type Panel = 'lines' | 'versions' | 'paste'

const open = ref<Panel>('lines')
/** More than this is no ingredient list, and would only make the page slow. */
const PASTE_ROOM = 200_000

const pasted = ref('')
const refused = ref('')

export interface Panels {
  open: Ref<Panel>
  /** Text that waits to be read in the paste panel. */
  pasted: Ref<string>
  /** Why the last paste was not taken. */
  refused: Ref<string>
  toggle: (panel: Panel) => void
  paste: (text: string) => void
  /** Whether a paste can be taken; says why when it cannot. What was there stays. */
  takes: (text: string) => boolean
}

function takes(text: string): boolean {
  refused.value = text.length > PASTE_ROOM
    ? `That is ${(text.length / 1e6).toFixed(1)} million characters; paste the ingredient list only. Nothing was taken, what was here stays.`
    : ''
  return refused.value === ''
}

export function usePanels(): Panels {
  return {
    open,
    pasted,
    refused,
    takes,
    toggle(panel) {
      open.value = open.value === panel ? 'lines' : panel
    },
    paste(text) {
      if (takes(text)) pasted.value = text
      open.value = 'paste'
    },
  }
}
