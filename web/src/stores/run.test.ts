// @vitest-environment happy-dom
import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { RunEntry } from '@/api/types'
import { waitingOf } from '@/composables/useOutbox'
import { useRun } from './run'
import { useSession } from './session'

const RUN = {
  run: { id: 7, name: 'Rolls' },
  document: {},
  plan: { steps: [{ id: 'weigh:water', kind: 'weigh', group: 'weigh', text: 'Water', line: 'water', moment: '', slip: '' }] },
  verdict: null,
  entries: [],
  formula_archived: false,
}

/** A server that keeps what it is sent, and can be out of reach. */
const far = { up: true, loseAnswer: false, kept: new Map<string, RunEntry>() }

vi.mock('@/api/client', async (original) => {
  const ok = (data: unknown) => ({ data, response: { ok: true, status: 200 } })
  const reached = (): void => {
    if (!far.up) throw new TypeError('network')
  }
  return {
    ...(await original<object>()),
    api: {
      GET: () => Promise.resolve().then(() => (reached(), ok({ ...RUN, entries: [...far.kept.values()] }))),
      POST: (_: string, { body }: { body: { entries: RunEntry[]; since: number } }) =>
        Promise.resolve().then(() => {
          reached()
          for (const one of body.entries) if (!far.kept.has(one.id)) far.kept.set(one.id, { ...one, seq: far.kept.size + 1, by: 'baker' })
          if (far.loseAnswer) throw new TypeError('answer lost')
          return ok({ new: body.entries.length, entries: [...far.kept.values()].filter((e) => e.seq > body.since) })
        }),
    },
  }
})

beforeEach(() => {
  Object.assign(far, { up: true, loseAnswer: false, kept: new Map() })
  setActivePinia(createPinia())
  const session = useSession()
  session.me = {
    kitchens: [
      {
        id: 1,
        role: 'owner',
        rights: ['formulas.edit', 'bakes.edit', 'plans.edit', 'packs.edit', 'stock.edit'],
        units: 'metric',
        revision: 1,
      },
    ],
  } as never
})
afterEach(() => {
  useRun().close()
})

describe('the run at the bench', () => {
  it('keeps what is written without a network and sends it once when there is one', async () => {
    const run = useRun()
    await run.open(7)
    far.up = false
    await run.write({ kind: 'weighed', what: 'water', value: 418 })
    await run.write({ kind: 'note', what: 'step:weigh:water', word: 'done' })
    await vi.waitFor(() => expect(run.offline).toBe(true))
    expect(run.weights.get('water')).toBe(418)
    expect(run.at).toBe(1)
    expect(await waitingOf(7)).toHaveLength(2)
    far.up = true
    await run.send()
    expect([...far.kept.values()].map((e) => e.value)).toContain(418)
    expect(await waitingOf(7)).toHaveLength(0)
    expect(run.waiting).toHaveLength(0)
  })

  it('is opened again without a network, with what was not sent yet', async () => {
    let run = useRun()
    await run.open(7)
    far.up = false
    await run.write({ kind: 'weighed', what: 'water', value: 500 })
    setActivePinia(createPinia())
    useSession().me = {
      kitchens: [
        {
          id: 1,
          role: 'owner',
          rights: ['formulas.edit', 'bakes.edit', 'plans.edit', 'packs.edit', 'stock.edit'],
          units: 'metric',
          revision: 1,
        },
      ],
    } as never
    run = useRun()
    await run.open(7)
    expect(run.opened?.run.name).toBe('Rolls')
    expect(run.weights.get('water')).toBe(500)
    far.up = true
    await run.send()
    expect(far.kept.size).toBeGreaterThan(0)
  })

  it('sends again when only the answer was lost, and the server keeps it once', async () => {
    const run = useRun()
    await run.open(7)
    far.loseAnswer = true
    await run.write({ kind: 'weighed', what: 'water', value: 300 })
    await vi.waitFor(() => expect(run.offline).toBe(true))
    const there = far.kept.size
    far.loseAnswer = false
    await run.send()
    expect(far.kept.size).toBe(there)
    expect(run.waiting).toHaveLength(0)
    expect(run.entries.filter((e) => e.value === 300)).toHaveLength(1)
  })

  it('sees what another device wrote', async () => {
    const run = useRun()
    await run.open(7)
    far.kept.set('theirs', {
      seq: far.kept.size + 1,
      id: 'theirs',
      at: new Date().toISOString(),
      kind: 'weighed',
      what: 'salt',
      value: 8,
      word: '',
      source: '',
      by: 'partner',
    })
    await run.send()
    expect(run.weights.get('salt')).toBe(8)
  })
})
