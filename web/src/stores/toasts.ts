/** Short messages that can carry an undo. */
import { defineStore } from 'pinia'
import { ref } from 'vue'

export interface Toast {
  id: number
  text: string
  tone: 'plain' | 'act'
  action?: { label: string; run: () => void }
}

const SHOWN_MS = 7000

export const useToasts = defineStore('toasts', () => {
  const toasts = ref<Toast[]>([])
  let next = 1

  function close(id: number): void {
    toasts.value = toasts.value.filter((toast) => toast.id !== id)
  }

  function show(text: string, options: Partial<Pick<Toast, 'tone' | 'action'>> = {}): void {
    const id = next++
    toasts.value = [...toasts.value.slice(-2), { id, text, tone: 'plain', ...options }]
    setTimeout(() => {
      close(id)
    }, SHOWN_MS)
  }

  return { toasts, show, close }
})
