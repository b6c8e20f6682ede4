// @vitest-environment happy-dom
import { enableAutoUnmount, flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, h, ref } from 'vue'
import { AGAIN_MS } from '@/api/policy'
import { answering, asked, losing, refusing, slowly } from '@/testing/server'
import { onTheBench } from '@/testing/kitchen'

vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api: (await import('@/testing/server')).api }))

import { api, settled } from '@/api/client'
import { useAsk } from './useAsk'
import { useDo } from './useDo'
import { useJob } from './useJob'

const PATH = '/api/kitchens/{kitchen_id}/stock'
const key = ref('one')
const View = defineComponent(() => {
  const stock = useAsk(
    () => ['stock', key.value],
    (at) => settled(api.GET(PATH, { params: { path: at, query: { search: key.value } as never } })),
    { keep: true },
  )
  return () => h('p', `${JSON.stringify(stock.answer.value)} ${stock.trouble.value}`)
})
const times = (end: string): number => asked.filter((a) => a.path.endsWith(end)).length

enableAutoUnmount(afterEach)
beforeEach(async () => {
  vi.useRealTimers()
  key.value = 'one'
  await onTheBench()
})

describe('a question', () => {
  it('is answered by its own answer: a late one to an older question never takes the place of a newer one', async () => {
    const waiting = slowly('/stock')
    const view = mount(View)
    await flushPromises()
    key.value = 'two'
    await flushPromises()
    waiting[1]?.answer('newer')
    await flushPromises()
    waiting[0]?.answer('older')
    await flushPromises()
    expect(view.text()).toContain('newer')
  })

  it('that is refused is told at once and not asked again', async () => {
    refusing('/stock', 404, 'kitchen not found')
    const view = mount(View)
    await flushPromises()
    expect(view.text()).toContain('Kitchen not found')
    expect(times('/stock')).toBe(1)
  })

  it('that is lost on the way says so and is asked again until it is answered', async () => {
    vi.useFakeTimers()
    losing('/stock')
    const view = mount(View)
    await vi.advanceTimersByTimeAsync(10)
    expect(view.text()).toContain('cannot be reached')
    answering('/stock', 'back')
    await vi.advanceTimersByTimeAsync(AGAIN_MS + 10)
    expect(view.text()).toContain('back')
    expect(view.text()).not.toContain('cannot be reached')
  })
})

describe('a deed', () => {
  const doing = (here: boolean): { view: ReturnType<typeof mount>; run: () => Promise<unknown> } => {
    let run = (): Promise<unknown> => Promise.resolve(null)
    const view = mount(
      defineComponent(() => {
        const deed = useDo(
          (n: number, at) =>
            settled(api.POST('/api/kitchens/{kitchen_id}/ovens', { params: { path: at }, body: { name: String(n), altitude_m: 0 } })),
          { here },
        )
        run = () => deed.run(7)
        return () => h('p', deed.trouble.value)
      }),
    )
    return { view, run }
  }

  it('that is refused says why where it was asked to, is done once, and gives nothing', async () => {
    refusing('/ovens', 422, 'the oven has no name')
    const { view, run } = doing(true)
    expect(await run()).toBeNull()
    await flushPromises()
    expect(view.text()).toContain('The oven has no name')
    expect(times('/ovens')).toBe(1)
  })

  it('that worked has everything the kitchen was asked asked anew', async () => {
    answering('/ovens', { key: 'deck' })
    answering('/stock', [])
    mount(View)
    await flushPromises()
    expect(await doing(false).run()).toEqual({ key: 'deck' })
    await flushPromises()
    expect(times('/stock')).toBe(2)
  })
})

describe('a job', () => {
  const job = (change: object): object => ({
    id: 5,
    kind: 'oven-map',
    state: 'running',
    done: 3,
    total: 20,
    map: null,
    rows: null,
    problem: null,
    ...change,
  })

  it('is followed while it is under way, and a failure says why', async () => {
    vi.useFakeTimers()
    answering('/jobs', job({ state: 'waiting', done: 0 }))
    answering('/jobs/{job_id}', job({}))
    let jobs = null as ReturnType<typeof useJob> | null
    const view = mount(
      defineComponent(() => {
        const mine = (jobs = useJob())
        return () => h('p', `${mine.job.value?.done} ${mine.underWay.value} ${mine.trouble.value}`)
      }),
    )
    await jobs?.start({ kind: 'import-check', import_id: 1 })
    await vi.advanceTimersByTimeAsync(600)
    expect(view.text()).toBe('3 true')
    answering('/jobs/{job_id}', job({ state: 'failed', problem: { what: 'this mixture cannot be baked as a dough', got: '97 % water' } }))
    await vi.advanceTimersByTimeAsync(600)
    expect(view.text()).toContain('3 false this mixture cannot be baked as a dough; got 97 % water')
    const looked = times('/jobs/{job_id}')
    await vi.advanceTimersByTimeAsync(3000)
    expect(times('/jobs/{job_id}')).toBe(looked)
  })
})
