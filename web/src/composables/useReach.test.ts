// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, ref } from 'vue'
import { DOCUMENT, onTheBench } from '@/testing/kitchen'
import { answering, asked } from '@/testing/server'

vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api: (await import('@/testing/server')).api }))

import { useReach, type Ends } from './useReach'

const jobs = (): { keys: string[] }[] => asked.filter((a) => a.path.endsWith('/jobs')).map((a) => a.body as { keys: string[] })
const ENDS = [
  { key: 'protein', now: 9, low: 6, high: 14 },
  { key: 'fat', now: 1, low: null, high: 2 },
]
const done = { id: 4, kind: 'reach', state: 'done', reach: ENDS }

describe('how far it can go', () => {
  beforeEach(() => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
  })
  async function panel(keys: string[]) {
    const bench = await onTheBench(DOCUMENT)
    const wanted = ref(keys)
    let ends = new Map() as ReadonlyMap<string, Ends>
    mount(
      defineComponent({
        setup() {
          const told = useReach(() => wanted.value)
          return () => {
            ends = told.value
            return null
          }
        },
      }),
    )
    return { bench, wanted, ends: () => ends }
  }
  const rest = async (): Promise<void> => {
    await vi.advanceTimersByTimeAsync(700)
    await vi.advanceTimersByTimeAsync(50)
  }

  it('is asked for when the dough rests, once, for what is looked at', async () => {
    const { wanted, ends } = await panel([])
    answering('/jobs', done)
    await rest()
    expect(jobs()).toHaveLength(0)
    wanted.value = ['protein', 'fat']
    await rest()
    expect(jobs().map((j) => j.keys)).toEqual([['protein', 'fat']])
    expect([...ends()]).toEqual([['protein', { low: 6, high: 14 }]])
    wanted.value = ['fat']
    await rest()
    expect(jobs()).toHaveLength(1)
  })

  it('belongs to that dough alone', async () => {
    const { bench, ends } = await panel(['protein'])
    answering('/jobs', done)
    await rest()
    expect(ends().size).toBe(1)
    bench.edit((doc) => ({ ...doc, name: 'Another' }))
    await flushPromises()
    expect(ends().size).toBe(0)
    await rest()
    expect(jobs()).toHaveLength(2)
  })
})
