/** The log as the page reads it, held to the examples that the core is held to (tests/execution/log_examples.json). */
import { describe, expect, it } from 'vitest'
import type { RunEntry } from '@/api/types'
import told from '../../../tests/execution/log_examples.json'
import { minutesInOven, momentAt, moved, over, readingOf, standing, weighed } from './runs'
import { timersOf } from './timers'

interface Example {
  name: string
  entries: Omit<RunEntry, 'seq' | 'by'>[]
  log: {
    steps_over: string[]
    weights: Record<string, number>
    targets: Record<string, number>
    into: string | null
    minutes: number | null
    readings: { what: string; value: number }[]
    timers: { id: string; name: string; started: string; ends: string; stopped: boolean }[]
  }
}
const examples = told as Example[]
const time = (text: string | null): number | null => (text === null ? null : Date.parse(text))

describe('a log', () => {
  it.each(examples.map((example) => [example.name, example] as const))('%s', (_, example) => {
    const entries = example.entries.map((entry): RunEntry => ({ ...entry, seq: 0, by: '' }))
    expect([...over(entries).keys()]).toEqual(example.log.steps_over)
    expect(Object.fromEntries(weighed(entries))).toEqual(example.log.weights)
    expect(Object.fromEntries(moved(entries))).toEqual(example.log.targets)
    expect(momentAt(entries, 'in')).toBe(time(example.log.into))
    expect(minutesInOven(entries)).toBe(example.log.minutes)
    const read = standing(entries).flatMap((e) => (readingOf(e) ? [{ what: readingOf(e), value: e.value }] : []))
    expect(read).toEqual(example.log.readings)
    const timers = timersOf(entries).map(({ id, name, startedAt, endsAt, stopped }) => ({ id, name, startedAt, endsAt, stopped }))
    expect(timers).toEqual(
      example.log.timers.map((t) => ({ id: t.id, name: t.name, startedAt: time(t.started), endsAt: time(t.ends), stopped: t.stopped })),
    )
  })
})
