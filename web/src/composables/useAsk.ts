/**
 * Ask the kitchen something, and keep what it answers up to date.
 *
 * The key tells questions apart; the kitchen and its revision belong to every one. An answer to an older question never
 * takes the place of a newer one, a refusal is told at once, and a lost network is told while it is tried again.
 */
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, type ComputedRef } from 'vue'
import { Refusal } from '@/api/client'
import { kitchenKey, queries } from '@/api/policy'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

export interface Asked<Answer> {
  answer: ComputedRef<Answer | null>
  /** Why there is no answer, or none to the newest question. */
  trouble: ComputedRef<string>
  /** The same, while nothing at all has been answered. */
  missing: ComputedRef<string>
  /** Nothing has been answered yet. */
  waiting: ComputedRef<boolean>
  again: () => Promise<void>
}

interface Options<Answer> {
  /** Keep showing the answer before while a newer question is under way. */
  keep?: boolean
  when?: () => boolean
  /** Ask again after so many milliseconds; 0 does not. */
  every?: (answer: Answer | null) => number
}

export function useAsk<Answer>(
  key: () => readonly unknown[],
  ask: (at: { kitchen_id: number }) => Promise<Answer>,
  options: Options<Answer> = {},
): Asked<Answer> {
  const session = useSession()
  const kitchenId = computed(() => session.kitchen?.id ?? 0)
  const query = useQuery<Answer>(
    {
      queryKey: computed(() => [...kitchenKey(kitchenId.value), session.kitchen?.revision ?? 0, ...key()]),
      queryFn: () => ask({ kitchen_id: kitchenId.value }),
      enabled: () => kitchenId.value > 0 && (options.when?.() ?? true),
      ...(options.keep ? { placeholderData: keepPreviousData as never } : {}),
      refetchInterval: (asked) => options.every?.((asked.state.data as Answer | undefined) ?? null) || false,
    },
    queries,
  )
  const answer = computed<Answer | null>(() => query.data.value ?? null)
  const trouble = computed(() => {
    const error = query.error.value ?? query.failureReason.value
    return error === null ? '' : error instanceof Refusal ? error.sentence : t('frame-use-ask-something-went-wrong-try-again')
  })
  const missing = computed(() => (answer.value === null ? trouble.value : ''))
  return {
    answer,
    trouble,
    missing,
    waiting: computed(() => answer.value === null && !trouble.value),
    again: async () => {
      await query.refetch()
    },
  }
}
