/**
 * The run at the bench. Everything that is done is an entry; what is shown follows from the entries, its own and those of other
 * devices. Written first into the browser's database, then sent; without a network it goes on and sends later.
 */
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { api, Refusal, settled } from '@/api/client'
import { isLost, sentenceOf } from '@/api/policy'
import type { RunEntry, RunOut, RunStep } from '@/api/types'
import { keep, remember, remembered, sent, waitingOf } from '@/composables/useOutbox'
import { moved, over, present, standing, weighed } from '@/domain/runs'
import { timersOf } from '@/domain/timers'
import { useSession } from './session'

const LOOK_MS = 4000

export interface Written {
  kind: string
  what?: string
  value?: number | null
  word?: string
  /** Who or what gave the number: typed, scale, thermometer, simulated. */
  source?: string
}

export const useRun = defineStore('run', () => {
  const session = useSession()
  const opened = shallowRef<RunOut | null>(null)
  const kept = shallowRef<RunEntry[]>([]) // as the server has them
  const waiting = shallowRef<RunEntry[]>([])
  const trouble = ref('')
  const offline = ref(false)
  let since = 0
  let looking: ReturnType<typeof setTimeout> | undefined
  let sending: Promise<void> | null = null
  let wanted = false

  const entries = computed(() => standing([...kept.value, ...waiting.value]))
  const steps = computed<RunStep[]>(() => opened.value?.plan.steps ?? [])
  const done = computed(() => over(entries.value))
  const timers = computed(() => timersOf(entries.value))
  const weights = computed(() => weighed(entries.value))
  const targets = computed(() => moved(entries.value))
  const chosen = ref<string | null>(null) // step that was gone to, instead of the first that is open
  const at = computed(() => {
    const gone = chosen.value === null ? -1 : steps.value.findIndex((s) => s.id === chosen.value)
    return gone >= 0 ? gone : present(steps.value, entries.value)
  })
  const step = computed<RunStep | null>(() => steps.value[at.value] ?? null)
  const mayWrite = computed(() => session.may('bakes.edit') && opened.value !== null)

  const place = () => ({ kitchen_id: session.kitchen?.id ?? 0, run_id: opened.value?.run.id ?? 0 })

  async function open(id: number): Promise<void> {
    close()
    trouble.value = ''
    const known = await remembered(id)
    if (known) take(known)
    waiting.value = await waitingOf(id)
    try {
      const found = await settled(
        api.GET('/api/kitchens/{kitchen_id}/runs/{run_id}', { params: { path: { kitchen_id: session.kitchen?.id ?? 0, run_id: id } } }),
      )
      offline.value = false
      take(found)
      await remember(found)
    } catch (error) {
      offline.value = isLost(error)
      if (!known || !offline.value) trouble.value = sentenceOf(error)
      if (!offline.value) opened.value = null
    }
    if (opened.value) void look()
  }

  function take(found: RunOut): void {
    opened.value = found
    kept.value = found.entries
    since = Math.max(0, ...found.entries.map((e) => e.seq))
  }

  function close(): void {
    clearTimeout(looking)
    opened.value = null
    kept.value = []
    waiting.value = []
    chosen.value = null
    since = 0
  }

  /** Write something down; it is there at once. */
  async function write(...told: Written[]): Promise<void> {
    const run = opened.value?.run.id
    if (run === undefined) return
    const now = Date.now()
    const made = told.map((one, n): RunEntry => ({
      seq: 0,
      id: crypto.randomUUID(),
      at: new Date(now + n).toISOString(),
      kind: one.kind,
      what: one.what ?? '',
      value: one.value ?? null,
      word: one.word ?? '',
      source: one.source ?? '',
      by: '',
    }))
    waiting.value = [...waiting.value, ...made]
    for (const entry of made) await keep(run, entry)
    void send()
  }

  const undo = (id: string): Promise<void> => write({ kind: 'undo', what: id })

  /** A step is over: what it marks is marked with it. */
  async function finishStep(finished: RunStep, more: Written[] = []): Promise<void> {
    const told: Written[] = [...more]
    if (finished.moment) told.push({ kind: 'moment', what: finished.moment })
    if (finished.slip) told.push({ kind: 'done', what: finished.slip })
    told.push({ kind: 'note', what: `step:${finished.id}`, word: 'done' })
    chosen.value = null
    await write(...told)
  }

  async function skipStep(left: RunStep): Promise<void> {
    chosen.value = null
    await write(...(left.slip ? [{ kind: 'skipped', what: left.slip }] : []), { kind: 'note', what: `step:${left.id}`, word: 'skipped' })
  }

  /** Send what waits, and hear what other devices did; asked while it is under way, it is done once more. */
  async function send(): Promise<void> {
    wanted = true
    while ((wanted || sending) && opened.value !== null) {
      sending ??= sendAll().finally(() => {
        sending = null
      })
      await sending
    }
  }

  async function sendAll(): Promise<void> {
    while (wanted && opened.value !== null) {
      wanted = false
      await sendOnce()
    }
  }

  async function sendOnce(): Promise<void> {
    if (opened.value === null) return
    const run = opened.value.run.id
    try {
      const batch = waiting.value.slice(0, 200)
      const answer = await settled(
        api.POST('/api/kitchens/{kitchen_id}/runs/{run_id}/entries', {
          params: { path: place() },
          body: {
            entries: batch.map(({ id, at: moment, kind, what, value, word, source }) => ({
              id,
              at: moment,
              kind,
              what,
              value,
              word,
              source,
            })),
            since,
          },
        }),
      )
      offline.value = false
      trouble.value = ''
      if (opened.value.run.id !== run) return
      await sent(batch.map((e) => e.id))
      const gone = new Set(batch.map((e) => e.id))
      if (answer.entries.length || batch.length) {
        // What was taken stays, even if the answer should not tell it again; its own place in the log comes with the answer.
        kept.value = [...kept.value, ...batch, ...answer.entries]
        since = Math.max(since, ...answer.entries.map((e) => e.seq))
        waiting.value = waiting.value.filter((e) => !gone.has(e.id))
        await remember({ ...opened.value, entries: kept.value })
      }
    } catch (error) {
      offline.value = isLost(error)
      if (!offline.value && error instanceof Refusal) trouble.value = error.sentence
    }
  }

  /** Other devices write too: look now and then, and send what waits. */
  async function look(): Promise<void> {
    clearTimeout(looking)
    if (opened.value === null) return
    if (mayWrite.value) await send()
    looking = setTimeout(() => void look(), LOOK_MS)
  }

  const go = (id: string | null): void => {
    chosen.value = id
  }

  return {
    opened,
    entries,
    waiting,
    steps,
    done,
    timers,
    weights,
    targets,
    at,
    step,
    trouble,
    offline,
    mayWrite,
    open,
    close,
    write,
    undo,
    finishStep,
    skipStep,
    send,
    go,
    place,
  }
})
