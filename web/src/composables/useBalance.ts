/** Which bracket shows where it comes from. */
import { ref, type Ref } from 'vue'

const open = ref('')

export interface Balance {
  open: Ref<string>
  toggle: (key: string) => void
  /** Open a bracket and bring it into sight: the sentence's words lead here. */
  show: (key: string) => void
}

export function useBalance(): Balance {
  return {
    open,
    toggle(key) {
      open.value = open.value === key ? '' : key
    },
    show(key) {
      open.value = key
      requestAnimationFrame(() => {
        document.querySelector(`[data-bracket="${key}"]`)?.scrollIntoView({ block: 'nearest' })
      })
    },
  }
}
