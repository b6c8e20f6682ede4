// @vitest-environment happy-dom
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { Refusal, settled } from '@/api/client'
import { isLost, queries } from '@/api/policy'
import { useOutage } from './outage'

const answer = (status: number): Promise<{ data: number; response: Response }> =>
  Promise.resolve({ data: 1, response: new Response('{}', { status }) })

beforeEach(() => {
  setActivePinia(createPinia())
  vi.useFakeTimers()
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

it('a server that is away is looked for again, less often each time, and what was shown is asked anew when it is back', async () => {
  let up = false
  const looks = vi.fn(() => Promise.resolve(new Response('', { status: up ? 200 : 503 })))
  vi.stubGlobal('fetch', looks)
  const asked = vi.spyOn(queries, 'invalidateQueries')
  const outage = useOutage()
  await expect(settled(Promise.reject(new TypeError('Failed to fetch')))).rejects.toBeInstanceOf(Refusal)
  expect([outage.away, outage.left]).toEqual([true, 2])
  await vi.advanceTimersByTimeAsync(2000)
  expect([looks.mock.calls.length, outage.left]).toEqual([1, 3])
  await vi.advanceTimersByTimeAsync(3000)
  expect([looks.mock.calls.length, outage.left]).toEqual([2, 5])
  up = true
  await vi.advanceTimersByTimeAsync(5000)
  expect([outage.away, asked.mock.calls.length]).toEqual([false, 1])
})

it('a server without its database is away, one that refuses is not, and any answer ends it', async () => {
  const outage = useOutage()
  const refused: unknown = await settled(answer(503)).catch((error: unknown) => error)
  expect([isLost(refused), outage.away]).toEqual([true, true])
  await settled(answer(200))
  expect(outage.away).toBe(false)
  const wrong: unknown = await settled(answer(422)).catch((error: unknown) => error)
  expect([isLost(wrong), outage.away]).toEqual([false, false])
})
