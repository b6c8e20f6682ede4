/** Which panel of the bench is open in the work area. */
import { ref, type Ref } from 'vue'

export type Panel = 'lines' | 'versions' | 'paste'

const open = ref<Panel>('lines')
const pasted = ref('')

export interface Panels {
  open: Ref<Panel>
  /** Text that waits to be read in the paste panel. */
  pasted: Ref<string>
  toggle: (panel: Panel) => void
  paste: (text: string) => void
}

export function usePanels(): Panels {
  return {
    open,
    pasted,
    toggle(panel) {
      open.value = open.value === panel ? 'lines' : panel
    },
    paste(text) {
      pasted.value = text
      open.value = 'paste'
    },
  }
}
