/** One plan: kept, planned in the background, shown while it gets better. */
import { computed, ref, shallowRef, watch, type ComputedRef, type Ref } from 'vue'
import { api, settled } from '@/api/client'
import type { Plan, PlanDocument, Planned } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { useJob, type Jobs } from '@/composables/useJob'

export interface OnePlan {
  plan: Ref<Plan | null>
  planned: ComputedRef<Planned | null>
  work: Jobs
  missing: ComputedRef<string>
  again: () => Promise<void>
  save: (document: PlanDocument) => Promise<void>
  slip: (task: string, minutes: number) => Promise<void>
  feed: (on: boolean) => Promise<void>
  go: () => Promise<void>
  busy: ComputedRef<boolean>
}

export function usePlan(id: () => number): OnePlan {
  const at = (kitchen: { kitchen_id: number }) => ({ ...kitchen, plan_id: id() })
  const asked = useAsk(
    () => ['plan', id()],
    (kitchen) => settled(api.GET('/api/kitchens/{kitchen_id}/plans/{plan_id}', { params: { path: at(kitchen) } })),
    { keep: true },
  )
  const plan = ref<Plan | null>(null) as Ref<Plan | null>
  const work = useJob()
  // The best that was seen of the plan as it is now; an older plan's answer is told to be old by `stale`.
  const seen = shallowRef<Planned | null>(null)
  watch(
    () => asked.answer.value,
    (answer) => {
      if (answer && (plan.value === null || plan.value.id !== answer.id || answer.lock >= plan.value.lock)) plan.value = answer
    },
    { immediate: true },
  )
  watch(
    () => work.job.value?.planned,
    (better) => {
      if (better) seen.value = better
    },
  )
  // The answer is kept with the plan: it is not stale any more.
  watch(
    () => work.job.value?.state,
    (state) => {
      if (state === 'done') void asked.again()
    },
  )
  const planned = computed(() => seen.value ?? plan.value?.planned ?? null)

  const go = async (): Promise<void> => work.start({ kind: 'plan', plan_id: id() })
  async function kept(saved: Plan | null): Promise<void> {
    if (!saved) return
    plan.value = saved
    await go()
  }
  const saving = useDo((document: PlanDocument, kitchen) =>
    settled(
      api.PUT('/api/kitchens/{kitchen_id}/plans/{plan_id}', {
        params: { path: at(kitchen) },
        body: { document, lock: plan.value?.lock ?? 0 },
      }),
    ),
  )
  const slipping = useDo((body: { task: string; minutes: number }, kitchen) =>
    settled(api.POST('/api/kitchens/{kitchen_id}/plans/{plan_id}/slip', { params: { path: at(kitchen) }, body })),
  )
  const feeding = useDo((on: boolean, kitchen) =>
    settled(api.POST('/api/kitchens/{kitchen_id}/plans/{plan_id}/feed', { params: { path: at(kitchen) }, body: { on } })),
  )
  return {
    plan,
    planned,
    work,
    missing: asked.missing,
    again: asked.again,
    save: async (document) => kept(await saving.run(document)),
    slip: async (task, minutes) => kept(await slipping.run({ task, minutes })),
    feed: async (on) => {
      const saved = await feeding.run(on)
      if (saved) plan.value = saved
    },
    go,
    busy: computed(() => saving.busy.value || slipping.busy.value),
  }
}
