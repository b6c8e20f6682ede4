/** Long work in the background: asked for, followed while it is under way, stopped; the same for every kind. */
import { computed, shallowRef, type ComputedRef } from 'vue'
import { api, settled } from '@/api/client'
import type { Job, JobAsked } from '@/api/types'
import { useAsk, type Asked } from './useAsk'
import { useDo } from './useDo'
import { t } from '@/messages'

const LOOK_MS = 250
const isUnderWay = (job: Job | null): boolean => job?.state === 'waiting' || job?.state === 'running'

export interface Jobs {
  job: ComputedRef<Job | null>
  underWay: ComputedRef<boolean>
  trouble: ComputedRef<string>
  start: (asked: JobAsked) => Promise<void>
  /** Follow a job that was asked for before; null follows none. */
  follow: (job: Job | null) => void
  stop: () => Promise<void>
}

export function useJob(): Jobs {
  const begun = shallowRef<Job | null>(null)
  const seen: Asked<Job> = useAsk(
    () => ['job', begun.value?.id],
    (at) => settled(api.GET('/api/kitchens/{kitchen_id}/jobs/{job_id}', { params: { path: { ...at, job_id: begun.value?.id ?? 0 } } })),
    { when: () => isUnderWay(begun.value), every: (now) => (isUnderWay(now ?? begun.value) ? LOOK_MS : 0) },
  )
  const job: ComputedRef<Job | null> = computed(() =>
    begun.value !== null && seen.answer.value?.id === begun.value.id && isUnderWay(begun.value) ? seen.answer.value : begun.value,
  )
  const asking = useDo(
    (asked: JobAsked, at) => settled(api.POST('/api/kitchens/{kitchen_id}/jobs', { params: { path: at }, body: asked })),
    { here: true },
  )
  const stopping = useDo((id: number, at) =>
    settled(api.POST('/api/kitchens/{kitchen_id}/jobs/{job_id}/stop', { params: { path: { ...at, job_id: id } } })),
  )
  const failed = computed(() => {
    const problem = job.value?.problem
    return job.value?.state === 'failed' && problem
      ? [problem.what, problem.got && t('frame-use-job-got', { got: problem.got }), problem.remedy].filter(Boolean).join('; ')
      : ''
  })
  return {
    job,
    underWay: computed(() => isUnderWay(job.value)),
    trouble: computed(() => asking.trouble.value || seen.trouble.value || failed.value),
    start: async (asked) => {
      begun.value = (await asking.run(asked)) ?? begun.value
    },
    follow: (known) => {
      begun.value = known
    },
    stop: async () => {
      if (job.value) begun.value = (await stopping.run(job.value.id)) ?? begun.value
    },
  }
}
