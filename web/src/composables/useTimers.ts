/** The timers of the run at the bench: they ring once on each device, show in the title, and can be started, drawn out and stopped. */
import { useDocumentVisibility, useIntervalFn, useNow, useTitle } from '@vueuse/core'
import { computed, watch } from 'vue'
import type { RunStep } from '@/api/types'
import { clock, due, MORE_WORD, startWord, STOP_WORD, type Timer } from '@/domain/timers'
import { useRun } from '@/stores/run'
import { useToasts } from '@/stores/toasts'
import { ring } from './useAlarm'
import { t } from '@/messages'

const RUNG = 'rung'
const MOST_KEPT = 400

function rungBefore(): Set<string> {
  try {
    return new Set(JSON.parse(localStorage.getItem(RUNG) ?? '[]') as string[])
  } catch {
    return new Set()
  }
}

export function useTimers() {
  const run = useRun()
  const toasts = useToasts()
  const now = useNow({ interval: 500 })
  const rung = rungBefore()
  const title = useTitle()
  const before = title.value
  const running = computed(() => run.timers.filter((t) => !t.stopped))
  const next = computed<Timer | null>(() => running.value[0] ?? null)
  const visible = useDocumentVisibility()

  function check(): void {
    const rows = due(run.timers, Date.now(), rung)
    if (!rows.length) return
    for (const row of rows) rung.add(row.key)
    localStorage.setItem(RUNG, JSON.stringify([...rung].slice(-MOST_KEPT)))
    ring(rows.every((row) => row.look))
    for (const row of rows)
      toasts.show(
        row.look ? t('frame-use-timers-look', { name: row.timer.name }) : t('frame-use-timers-time-is-up', { name: row.timer.name }),
      )
  }

  useIntervalFn(check, 500)
  // A tablet that slept looks at once when it wakes.
  watch(visible, check)
  watch([now, next], () => {
    const timer = next.value
    title.value = timer ? `${clock(timer.endsAt - now.value.getTime())} ${timer.name}` : before
  })

  const of = (step: RunStep): Timer | null => run.timers.find((t) => t.id === step.id) ?? null
  const begin = (step: RunStep): Promise<void> =>
    run.write({ kind: 'timer', what: step.id, value: step.minutes ?? 5, word: startWord(step.text, step.check_min ?? null) })
  const more = (id: string, minutes: number): Promise<void> => run.write({ kind: 'timer', what: id, value: minutes, word: MORE_WORD })
  const stop = (id: string): Promise<void> => run.write({ kind: 'timer', what: id, word: STOP_WORD })

  return { now, running, next, of, begin, more, stop }
}
