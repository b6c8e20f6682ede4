/**
 * A long list of the kitchen, page after page as it is asked for: what was read stays, and a change of the question begins anew.
 * A change in the kitchen reads again what was read, so that whoever is far down the list stays there.
 */
import { keepPreviousData, useInfiniteQuery } from '@tanstack/vue-query'
import { computed, watch, type ComputedRef } from 'vue'
import { kitchenKey, queries, sentenceOf } from '@/api/policy'
import { useSession } from '@/stores/session'

interface Page<Item> {
  items: Item[]
  total: number
}

export interface Pages<Item, Told extends Page<Item> = Page<Item>> {
  items: ComputedRef<Item[]>
  total: ComputedRef<number>
  /** How many are yet to be read. */
  left: ComputedRef<number>
  /** The page that was read last, with whatever else it tells. */
  last: ComputedRef<Told | undefined>
  more: () => Promise<void>
  busy: ComputedRef<boolean>
  /** Nothing has been answered yet. */
  waiting: ComputedRef<boolean>
  trouble: ComputedRef<string>
  again: () => Promise<void>
}

export function usePages<Item, Told extends Page<Item> = Page<Item>>(
  key: () => readonly unknown[],
  ask: (at: { kitchen_id: number }, offset: number) => Promise<Told & Page<Item>>,
): Pages<Item, Told> {
  const session = useSession()
  const kitchenId = computed(() => session.kitchen?.id ?? 0)
  // As it was when the list was opened: what an older list had read is not shown again.
  const opened = session.kitchen?.revision ?? 0
  const query = useInfiniteQuery(
    {
      queryKey: computed(() => [...kitchenKey(kitchenId.value), opened, ...key()]),
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
  watch(
    () => session.kitchen?.revision,
    () => void query.refetch(),
  )
  const pages = computed(() => query.data.value?.pages ?? [])
  const items = computed(() => pages.value.flatMap((page) => page.items))
  const last = computed(() => pages.value.at(-1))
  const total = computed(() => last.value?.total ?? 0)
  return {
    items,
    total,
    left: computed(() => Math.max(total.value - items.value.length, 0)),
    last,
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
