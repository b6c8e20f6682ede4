/** Which bracket shows where it comes from. */
import { ref, type Ref } from 'vue'

const open = ref('')
const sheet = ref(false)

export interface Balance {
  open: Ref<string>
  /** Whether it is up on a phone, where it has no place beside the work. */
  sheet: Ref<boolean>
  toggle: (key: string) => void
  /** Open a bracket and bring it into sight: the sentence's words lead here. */
  show: (key: string) => void
}

export function useBalance(): Balance {
  return {
    open,
    sheet,
    toggle(key) {
      open.value = open.value === key ? '' : key
    },
    show(key) {
      open.value = key
      sheet.value = true
      requestAnimationFrame(() => {
        document.querySelector(`[data-bracket="${key}"]`)?.scrollIntoView({ block: 'nearest' })
      })
    },
  }
}
