// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, expect, it, vi } from 'vitest'
import { defineComponent, ref } from 'vue'
import { queries } from '@/api/policy'
import { onTheBench } from '@/testing/kitchen'

vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api: (await import('@/testing/server')).api }))

import { usePages, type Pages } from './usePages'

type Page = { items: number[]; total: number }
const word = ref('a')

function listed(ask: (offset: number) => Promise<Page>): Pages<number> {
  let pages: Pages<number> | undefined
  mount(
    defineComponent({
      setup() {
        pages = usePages(
          () => ['numbers', word.value],
          (_, offset) => ask(offset),
        )
        return () => null
      },
    }),
  )
  return pages as Pages<number>
}

beforeEach(async () => {
  word.value = 'a'
  await onTheBench()
  queries.clear()
})

it('goes on page after page to the very end, and a new question begins at the beginning', async () => {
  const asked: [string, number][] = []
  const list = listed((offset) => {
    asked.push([word.value, offset])
    return Promise.resolve({ items: [offset, offset + 1].filter((n) => n < 5), total: 5 })
  })
  await flushPromises()
  expect([list.items.value, list.total.value]).toEqual([[0, 1], 5])
  await list.more()
  await list.more()
  await list.more()
  await flushPromises()
  expect(list.items.value).toEqual([0, 1, 2, 3, 4])
  word.value = 'b'
  await flushPromises()
  expect(asked).toEqual([
    ['a', 0],
    ['a', 2],
    ['a', 4],
    ['b', 0],
  ])
})

it('tells a refusal and keeps nothing shown as if it were all', async () => {
  const list = listed(() => Promise.reject(new Error('refused')))
  await flushPromises()
  expect([list.items.value, list.waiting.value, list.trouble.value !== '']).toEqual([[], false, true])
})
