import { describe, expect, it } from 'vitest'
import type { RunEntry } from '@/api/types'
import { clock, due, MORE_WORD, startWord, STOP_WORD, timersOf } from './timers'
import { momentAt, moved, over, present, readings, standing, weighed } from './runs'

const START = Date.parse('2026-05-02T06:00:00Z')
let number = 0
const entry = (kind: string, what: string, minute: number, more: Partial<RunEntry> = {}): RunEntry => ({
  seq: 0,
  id: `e${number++}`,
  at: new Date(START + minute * 60_000).toISOString(),
  kind,
  what,
  value: null,
  word: '',
  source: '',
  by: '',
  ...more,
})
const begin = (what: string, minute: number, minutes: number, check: number | null = null): RunEntry =>
  entry('timer', what, minute, { value: minutes, word: startWord(what, check) })

describe('timers', () => {
  it('count by the clock on the wall', () => {
    const [timer] = timersOf([begin('bake', 0, 20, 15)])
    expect(timer?.endsAt).toBe(START + 20 * 60_000)
    expect(timer?.checkAt).toBe(START + 15 * 60_000)
  })

  it('run several at once, the next to ring first', () => {
    const found = timersOf([begin('bake', 0, 20), begin('turn', 2, 8), begin('rest', 3, 30)])
    expect(found.map((t) => t.id)).toEqual(['turn', 'bake', 'rest'])
  })

  it('take five more from their end, or from now where that is past', () => {
    const early = [begin('bake', 0, 20), entry('timer', 'bake', 10, { value: 5, word: MORE_WORD })]
    const late = [begin('bake', 0, 20), entry('timer', 'bake', 24, { value: 5, word: MORE_WORD })]
    expect(timersOf(early)[0]?.endsAt).toBe(START + 25 * 60_000)
    expect(timersOf(late)[0]?.endsAt).toBe(START + 29 * 60_000)
  })

  it('stop, and stopping is undone', () => {
    const stop = entry('timer', 'bake', 5, { word: STOP_WORD })
    expect(timersOf([begin('bake', 0, 20), stop])[0]?.stopped).toBe(true)
    expect(timersOf([begin('bake', 0, 20), stop, entry('undo', stop.id, 6)])[0]?.stopped).toBe(false)
  })

  it('look before they ring, each once', () => {
    const timers = timersOf([begin('bake', 0, 20, 15)])
    const at = (minute: number, rung: string[] = []): string[] =>
      due(timers, START + minute * 60_000, new Set(rung)).map((row) => `${row.look}`)
    expect(at(14)).toEqual([])
    expect(at(16)).toEqual(['true'])
    expect(at(21)).toEqual(['false'])
    expect(at(21, [timers[0]?.key ?? ''])).toEqual([])
  })

  it('are neither lost nor rung twice through a thousand reloads, sleeps and late looks', () => {
    let seed = 7
    const random = (): number => {
      seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648
      return seed / 2_147_483_648
    }
    for (let round = 0; round < 1000; round++) {
      const log: RunEntry[] = []
      let rung = new Set<string>()
      const rings: string[] = []
      let now = 0
      const wanted = new Set<string>()
      for (let step = 0; step < 14; step++) {
        now += random() * 12 // a nap, or a lid that was closed
        const what = `t${Math.floor(random() * 3)}`
        const chance = random()
        if (chance < 0.4) log.push(begin(what, now, 1 + Math.floor(random() * 9)))
        else if (chance < 0.55 && timersOf(log).some((t) => t.id === what))
          log.push(entry('timer', what, now, { value: 5, word: MORE_WORD }))
        else if (chance < 0.7) log.push(entry('timer', what, now, { word: STOP_WORD }))
        // A reload reads what was kept, and entries come in any order.
        if (random() < 0.5) rung = new Set([...rung])
        const shuffled = [...log].sort(() => random() - 0.5)
        for (const row of due(timersOf(shuffled), START + now * 60_000, rung)) {
          rung.add(row.key)
          rings.push(row.key)
        }
        for (const timer of timersOf(log)) if (!timer.stopped && timer.endsAt <= START + now * 60_000) wanted.add(timer.key)
      }
      expect(new Set(rings).size).toBe(rings.length)
      for (const key of wanted) expect(rings).toContain(key)
    }
  })

  it('are told in minutes and seconds, and over time with a plus', () => {
    expect(clock(65_000)).toBe('1:05')
    expect(clock(3_725_000)).toBe('1:02:05')
    expect(clock(-61_000)).toBe('+1:01')
    expect(clock(0)).toBe('0:00')
  })
})

describe('a run', () => {
  const steps = ['a', 'b', 'c'].map((id) => ({ id, group: 'weigh', kind: 'weigh', text: id }) as never)

  it('stands at the first step that is not over, whatever the order in which entries come', () => {
    const log = [entry('note', 'step:b', 2, { word: 'done' }), entry('note', 'step:a', 1, { word: 'skipped' })]
    expect(present(steps, log)).toBe(2)
    expect(present(steps, [...log].reverse())).toBe(2)
    expect(over(log).get('a')?.word).toBe('skipped')
    expect(present(steps, [])).toBe(0)
  })

  it('keeps the newest weight, and none that was undone', () => {
    const first = entry('weighed', 'water', 1, { value: 400 })
    const second = entry('weighed', 'water', 2, { value: 420 })
    expect(weighed([second, first]).get('water')).toBe(420)
    expect(weighed([first, second, entry('undo', second.id, 3)]).get('water')).toBe(400)
  })

  it('counts an entry that two devices sent once', () => {
    const one = entry('moment', 'mixed', 1)
    expect(standing([one, { ...one, seq: 9 }])).toHaveLength(1)
    expect(momentAt([one], 'mixed')).toBe(START + 60_000)
    expect(momentAt([one], 'out')).toBeNull()
  })

  it('moves a target and tells readings by minutes in the oven', () => {
    const log = [
      entry('note', 'target:water', 1, { value: 450 }),
      entry('moment', 'in', 10),
      entry('note', 'read:weight', 20, { value: 900 }),
      entry('note', 'read:core', 21, { value: 80 }),
      entry('note', 'read:core', 5, { value: 20 }),
    ]
    expect(moved(log).get('water')).toBe(450)
    const seen = readings(log, 1000)
    expect(seen.map((r) => r.kind)).toEqual(['weight', 'core'])
    expect(seen[0]?.value).toBeCloseTo(0.1)
    expect(seen[0]?.minute).toBeCloseTo(10)
    expect(readings(log, null)).toHaveLength(1)
  })
})
