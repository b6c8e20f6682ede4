/** What is marked in the pantry to be looked at side by side; it stays while one moves about the station. */
import { ref, type Ref } from 'vue'

const MOST = 6
const keys = ref<string[]>([])

export interface CompareList {
  keys: Ref<string[]>
  full: () => boolean
  toggle: (key: string) => void
  clear: () => void
}

export function useCompareList(): CompareList {
  return {
    keys,
    full: () => keys.value.length >= MOST,
    toggle(key) {
      if (keys.value.includes(key)) keys.value = keys.value.filter((k) => k !== key)
      else if (keys.value.length < MOST) keys.value = [...keys.value, key]
    },
    clear() {
      keys.value = []
    },
  }
}
