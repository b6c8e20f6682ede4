// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, expect, it, vi } from 'vitest'
import { defineComponent, ref } from 'vue'
import { queries } from '@/api/policy'
import MoreRows from '@/components/frame/MoreRows.vue'
import { useSession } from '@/stores/session'
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

it('stays where it was read to when the kitchen changes', async () => {
  let grams = 1
  const list = listed((offset) => Promise.resolve({ items: [offset, offset + 1].map((n) => n * grams), total: 5 }))
  await flushPromises()
  await list.more()
  await flushPromises()
  expect([list.items.value, list.left.value]).toEqual([[0, 1, 2, 3], 1])
  grams = 10
  const session = useSession()
  if (session.kitchen) session.changed({ ...session.kitchen, revision: 2 })
  await vi.waitFor(() => {
    expect(list.items.value).toEqual([0, 10, 20, 30])
  })
})

it('goes on by itself while its end is in sight, and once for each page', async () => {
  const row = mount(MoreRows, { props: { left: 3, busy: false } })
  const seen = row.vm as unknown as { inSight: boolean }
  seen.inSight = true
  await flushPromises()
  await row.setProps({ busy: true })
  await row.setProps({ left: 1, busy: false })
  await row.setProps({ left: 0 })
  expect([row.emitted('more')?.length, row.find('button').exists()]).toEqual([2, false])
})

it('tells a refusal and keeps nothing shown as if it were all', async () => {
  const list = listed(() => Promise.reject(new Error('refused')))
  await flushPromises()
  expect([list.items.value, list.waiting.value, list.trouble.value !== '']).toEqual([[], false, true])
})
