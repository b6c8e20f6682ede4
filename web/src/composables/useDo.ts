/**
 * Do something in the kitchen: one way for every button that changes what is remembered.
 *
 * What was refused is said (in a toast, or `here`), nothing is tried twice, and whatever the kitchen was asked is asked anew.
 */
import { useMutation } from '@tanstack/vue-query'
import { computed, ref, type ComputedRef, type Ref } from 'vue'
import { kitchenKey, queries, sentenceOf } from '@/api/policy'
import { useSession } from '@/stores/session'
import { useToasts } from '@/stores/toasts'

export interface Doing<Given, Out> {
  /** What came of it; null when it was refused. */
  run: (given: Given) => Promise<Out | null>
  busy: ComputedRef<boolean>
  trouble: Ref<string>
}

interface Options<Given, Out> {
  /** The component shows `trouble` itself. */
  here?: boolean
  /** What else is to be done when it worked. */
  then?: (out: Out, given: Given) => unknown
}

export function useDo<Given, Out>(
  act: (given: Given, at: { kitchen_id: number }) => Promise<Out>,
  options: Options<Given, Out> = {},
): Doing<Given, Out> {
  const session = useSession()
  const toasts = useToasts()
  const trouble = ref('')
  const mutation = useMutation<Out, Error, Given>(
    {
      mutationFn: (given) => act(given, { kitchen_id: session.kitchen?.id ?? 0 }),
    },
    queries,
  )

  async function run(given: Given): Promise<Out | null> {
    trouble.value = ''
    let out: Out
    try {
      out = await mutation.mutateAsync(given)
    } catch (error) {
      if (options.here) trouble.value = sentenceOf(error)
      else toasts.show(sentenceOf(error), { tone: 'act' })
      return null
    }
    void queries.invalidateQueries({ queryKey: kitchenKey(session.kitchen?.id ?? 0) })
    await options.then?.(out, given)
    return out
  }

  return { run, busy: computed(() => mutation.isPending.value), trouble }
}
