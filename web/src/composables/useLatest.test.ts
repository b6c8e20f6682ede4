import { describe, expect, it, vi } from 'vitest'
import { Refusal } from '@/api/client'
import { AGAIN_MS } from '@/api/policy'
import { useLatest } from './useLatest'

/** A server whose answers come when the test says so. */
function slow(): { reply: (q: number) => Promise<string>; answer: () => Promise<void>; refuse: () => Promise<void>; asked: number[] } {
  const asked: number[] = []
  let settle: { yes: (a: string) => void; no: (e: Error) => void } | null = null
  const soon = async (): Promise<void> => {
    for (let i = 0; i < 5; i++) await Promise.resolve()
  }
  return {
    asked,
    reply: (q) => {
      asked.push(q)
      return new Promise((yes, no) => {
        settle = { yes, no }
      })
    },
    answer: async () => {
      settle?.yes(`answer ${asked.at(-1)}`)
      await soon()
    },
    refuse: async () => {
      settle?.no(new Refusal({ title: 'no', status: 422 }))
      await soon()
    },
  }
}

describe('the latest question', () => {
  it('waits alone behind the one that is on its way', async () => {
    const server = slow()
    const latest = useLatest(server.reply)
    for (const q of [1, 2, 3]) latest.ask(q)
    expect(server.asked).toEqual([1])
    await server.answer()
    expect(latest.answer.value).toBe('answer 1')
    expect(server.asked).toEqual([1, 3])
    await server.answer()
    expect(latest.answer.value).toBe('answer 3')
  })

  it('keeps the last answer beside a refusal, and drops what was asked before a clearing', async () => {
    const server = slow()
    const latest = useLatest(server.reply)
    latest.ask(1)
    await server.answer()
    latest.ask(2)
    await server.refuse()
    expect([latest.answer.value, latest.refusal.value?.status]).toEqual(['answer 1', 422])
    latest.ask(3)
    latest.clear()
    await server.answer()
    expect([latest.answer.value, latest.refusal.value]).toEqual([null, null])
  })

  it('is asked again by itself when the network was lost, and then only the newest', async () => {
    vi.useFakeTimers()
    const asked: number[] = []
    let reached = false
    const latest = useLatest((q: number) => {
      asked.push(q)
      return reached ? Promise.resolve(`answer ${q}`) : Promise.reject(new Refusal({ title: 'the server cannot be reached', status: 0 }))
    })
    latest.ask(1)
    await vi.advanceTimersByTimeAsync(1)
    expect(latest.refusal.value?.status).toBe(0)
    latest.ask(2)
    reached = true
    await vi.advanceTimersByTimeAsync(AGAIN_MS)
    expect(asked).toEqual([1, 2])
    expect([latest.answer.value, latest.refusal.value]).toEqual(['answer 2', null])
    vi.useRealTimers()
  })
})
