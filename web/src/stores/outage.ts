/** The server out of reach: since when, and when it is looked for again. Work goes on; what changes is kept and goes out later. */
import { defineStore } from 'pinia'
import { ref } from 'vue'
import { onReach } from '@/api/client'
import { queries } from '@/api/policy'

/** Seconds between two looks: soon at first, then less often. */
const PAUSES = [2, 3, 5, 8, 13] as const

export const useOutage = defineStore('outage', () => {
  const away = ref(false)
  const left = ref(0)
  let tries = 0
  let ticking = 0

  function wait(): void {
    left.value = PAUSES[Math.min(tries, PAUSES.length - 1)] ?? 13
    tries += 1
    clearInterval(ticking)
    ticking = window.setInterval(() => {
      left.value -= 1
      if (left.value <= 0) void look()
    }, 1000)
  }
  async function look(): Promise<void> {
    clearInterval(ticking)
    left.value = 0
    const reply = await fetch('/health/ready').catch(() => null)
    if (reply?.ok) back()
    else wait()
  }
  function back(): void {
    away.value = false
    tries = 0
    clearInterval(ticking)
    void queries.invalidateQueries()
  }
  onReach((reached) => {
    if (reached && away.value) back()
    else if (!reached && !away.value) {
      away.value = true
      wait()
    }
  })
  return { away, left, look }
})
