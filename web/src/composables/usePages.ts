/** A long list of the kitchen, page after page as it is asked for: what was read stays, and a change of the question begins anew. */
import { keepPreviousData, useInfiniteQuery } from '@tanstack/vue-query'
import { computed, type ComputedRef } from 'vue'
import { kitchenKey, queries, sentenceOf } from '@/api/policy'
import { useSession } from '@/stores/session'

interface Page<Item> {
  items: Item[]
  total: number
}

export interface Pages<Item> {
  items: ComputedRef<Item[]>
  total: ComputedRef<number>
  more: () => Promise<void>
  busy: ComputedRef<boolean>
  /** Nothing has been answered yet. */
  waiting: ComputedRef<boolean>
  trouble: ComputedRef<string>
  again: () => Promise<void>
}

export function usePages<Item>(
  key: () => readonly unknown[],
  ask: (at: { kitchen_id: number }, offset: number) => Promise<Page<Item>>,
): Pages<Item> {
  const session = useSession()
  const kitchenId = computed(() => session.kitchen?.id ?? 0)
  const query = useInfiniteQuery(
    {
      queryKey: computed(() => [...kitchenKey(kitchenId.value), session.kitchen?.revision ?? 0, ...key()]),
      queryFn: ({ pageParam }) => ask({ kitchen_id: kitchenId.value }, pageParam),
      initialPageParam: 0,
      getNextPageParam: (last: Page<Item>, all: Page<Item>[]) => {
        const read = all.reduce((sum, page) => sum + page.items.length, 0)
        return last.items.length && read < last.total ? read : undefined
      },
      enabled: () => kitchenId.value > 0,
      placeholderData: keepPreviousData,
    },
    queries,
  )
  const pages = computed(() => query.data.value?.pages ?? [])
  return {
    items: computed(() => pages.value.flatMap((page) => page.items)),
    total: computed(() => pages.value.at(-1)?.total ?? 0),
    more: async () => {
      await query.fetchNextPage()
    },
    busy: computed(() => query.isFetchingNextPage.value),
    waiting: computed(() => query.data.value === undefined && query.error.value === null),
    trouble: computed(() => (query.error.value ? sentenceOf(query.error.value) : '')),
    again: async () => {
      await query.refetch()
    },
  }
}
