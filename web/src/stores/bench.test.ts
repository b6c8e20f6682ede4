import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Analysis, FormulaDocument, LineDocument } from '@/api/types'

/** A server of our own: answers are queued by the test, requests are remembered. */
const server = vi.hoisted(() => {
  const asked: { method: string; path: string; body: unknown }[] = []
  const waiting: { path: string; answer: (reply: unknown) => void }[] = []
  const call =
    (method: string) =>
    (path: string, options: { body?: unknown } = {}): Promise<unknown> => {
      asked.push({ method, path, body: options.body })
      return new Promise((answer) => waiting.push({ path, answer }))
    }
  return { asked, waiting, api: { GET: call('GET'), POST: call('POST'), PUT: call('PUT'), PATCH: call('PATCH') } }
})
vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api: server.api }))

import { useBench } from './bench'
import { useSession } from './session'

const line = (id: string, grams: number | null, entered = ''): LineDocument => ({
  id,
  lot: '',
  ingredient: id,
  grams,
  entered,
  role: '',
  stage: '',
  treatment: '',
  note: '',
  locked: false,
})
const document = (...lines: LineDocument[]): FormulaDocument => ({
  substrata: 1,
  uid: '',
  name: 'Rolls',
  notes: '',
  form: { kind: 'bun', pieces: 6, serving_pieces: 1 },
  lines,
  targets: {},
})
const judged = (...lines: [string, number][]): Analysis =>
  ({
    lines: lines.map(([id, grams]) => ({ id, ingredient: id, name: id, role: 'base', code: 'Ba', grams })),
    problems: [],
    brackets: [],
  }) as unknown as Analysis
const opened = (doc: FormulaDocument, lock = 1): object => ({
  id: 7,
  document: doc,
  lock,
  base_number: 0,
  changed: true,
  may_edit: true,
  archived: false,
  updated_by: '',
})

const settle = async (): Promise<void> => {
  for (let n = 0; n < 12; n++) await Promise.resolve()
}

/** Answer the oldest waiting request whose path ends so. */
async function answer(end: string, data: unknown, status = 200): Promise<void> {
  await settle()
  const at = server.waiting.findIndex((w) => w.path.endsWith(end))
  expect(at, `a request that ends in ${end}`).toBeGreaterThanOrEqual(0)
  const [found] = server.waiting.splice(at, 1)
  const ok = status < 400
  found?.answer({ [ok ? 'data' : 'error']: data, response: { ok, status } })
  await settle()
}
const requests = (method: string, end: string): unknown[] =>
  server.asked.filter((a) => a.method === method && a.path.endsWith(end)).map((a) => a.body)

async function openBench(doc: FormulaDocument, lock = 1): Promise<ReturnType<typeof useBench>> {
  const session = useSession()
  session.me = {
    id: 1,
    email: 'a@b.c',
    kitchens: [
      {
        id: 3,
        name: 'K',
        role: 'owner',
        rights: ['formulas.edit', 'bakes.edit', 'plans.edit', 'packs.edit', 'stock.edit'],
        units: 'metric',
      },
    ],
  } as unknown as typeof session.me
  const bench = useBench()
  const done = bench.open(7)
  await answer('{formula_id}', opened(doc, lock))
  await answer('/versions', [])
  await done
  return bench
}

beforeEach(() => {
  setActivePinia(createPinia())
  server.asked.length = server.waiting.length = 0
  const kept = new Map<string, string>()
  vi.stubGlobal('localStorage', {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => kept.set(k, v),
    removeItem: (k: string) => kept.delete(k),
  })
  vi.stubGlobal('sessionStorage', {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => kept.set(k, v),
    removeItem: (k: string) => kept.delete(k),
  })
  vi.stubGlobal('matchMedia', () => ({ matches: false }))
  vi.stubGlobal('document', { documentElement: { dataset: {} }, cookie: '' })
  vi.stubGlobal('window', globalThis)
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
})

describe('the judgement', () => {
  it('keeps one question on its way and asks only the newest that waited', async () => {
    const bench = await openBench(document(line('a', 1)))
    for (const grams of [2, 3, 4]) bench.edit((doc) => ({ ...doc, lines: [line('a', grams)] }))
    expect(requests('POST', '/analyse')).toHaveLength(1)
    await answer('/analyse', judged(['a', 1]))
    const sent = requests('POST', '/analyse') as FormulaDocument[]
    expect(sent.map((doc) => doc.lines?.[0]?.grams)).toEqual([1, 4])
  })

  it('drops the answer for a formula that has been left', async () => {
    const bench = await openBench(document(line('a', 1)))
    const again = bench.open(8)
    await answer('{formula_id}', { ...opened(document(line('b', 2))), id: 8 })
    await answer('/versions', [])
    await again
    await answer('/analyse', judged(['a', 1]))
    expect(bench.analysis).toBeNull()
    await answer('/analyse', judged(['b', 2]))
    expect(bench.analysis?.lines[0]?.id).toBe('b')
  })

  it('keeps the last good figures when a question is refused, and says why', async () => {
    const bench = await openBench(document(line('a', 1)))
    await answer('/analyse', judged(['a', 1]))
    bench.edit((doc) => ({ ...doc, form: { ...doc.form, pieces: 0 } }))
    await answer('/analyse', { title: 'pieces cannot be counted', status: 422 }, 422)
    expect(bench.analysis?.lines).toHaveLength(1)
    expect(bench.refusal?.sentence).toContain('Pieces cannot be counted')
  })

  it('puts typed amounts into their lines once they are weighed, and forgets answers to older words', async () => {
    const bench = await openBench(document(line('a', null, '1 cup')))
    bench.edit((doc) => ({ ...doc, lines: [line('a', null, '2 cups')] }))
    await answer('/analyse', judged(['a', 106]))
    expect(bench.lines[0]?.grams).toBeNull()
    await answer('/analyse', judged(['a', 212]))
    expect(bench.lines[0]?.grams).toBe(212)
  })
})

describe('undo', () => {
  it('takes a whole pull back in one step', async () => {
    const bench = await openBench(document(line('a', 1)))
    for (const grams of [5, 9, 14]) bench.pull((doc) => ({ ...doc, lines: [line('a', grams)] }))
    bench.endPull()
    expect(bench.lines[0]?.grams).toBe(14)
    bench.goBack()
    expect(bench.lines[0]?.grams).toBe(1)
    bench.goForward()
    expect(bench.lines[0]?.grams).toBe(14)
  })

  it('is still there after a reload, and not where the formula has moved on', async () => {
    const first = await openBench(document(line('a', 1)))
    first.edit((doc) => ({ ...doc, lines: [line('a', 5)] }))
    setActivePinia(createPinia())
    const again = await openBench(document(line('a', 5)))
    again.goBack()
    expect(again.lines[0]?.grams).toBe(1)
    localStorage.removeItem('draft:3:7')
    setActivePinia(createPinia())
    const other = await openBench(document(line('a', 9)))
    expect(other.canUndo).toBe(false)
  })
})

describe('the draft', () => {
  const edit = (bench: ReturnType<typeof useBench>, grams: number): void => {
    bench.edit((doc) => ({ ...doc, lines: [line('a', grams)] }))
  }
  const drafts = (): { lock: number; document: FormulaDocument }[] =>
    requests('PUT', '/draft') as { lock: number; document: FormulaDocument }[]

  it('is sent when the hand rests, once, with the lock it was read with', async () => {
    const bench = await openBench(document(line('a', 1)), 4)
    for (const grams of [2, 3]) edit(bench, grams)
    expect(drafts()).toHaveLength(0)
    vi.advanceTimersByTime(600)
    expect(drafts().map((d) => [d.lock, d.document.lines?.[0]?.grams])).toEqual([[4, 3]])
    await answer('/draft', opened(document(line('a', 3)), 5))
    expect(bench.saveState).toBe('saved')
    edit(bench, 9)
    vi.advanceTimersByTime(600)
    expect(drafts().at(-1)?.lock).toBe(5)
  })

  it('that meets somebody else asks, and keeps either', async () => {
    const bench = await openBench(document(line('a', 1)))
    edit(bench, 2)
    vi.advanceTimersByTime(600)
    const theirs = { document: document(line('a', 50)), lock: 6, by: 'p@b.c', differences: ['a 2 → 50 g'] }
    await answer('/draft', { title: 'in between', status: 409, current: theirs }, 409)
    expect(bench.clash?.by).toBe('p@b.c')
    edit(bench, 3)
    vi.advanceTimersByTime(5000)
    expect(drafts()).toHaveLength(1)
    void bench.keepMine()
    await settle()
    expect(drafts().at(-1)).toMatchObject({ lock: 6, document: { lines: [{ grams: 3 }] } })
  })

  it('can give way to theirs, and that too can be undone', async () => {
    const bench = await openBench(document(line('a', 1)))
    edit(bench, 2)
    vi.advanceTimersByTime(600)
    await answer(
      '/draft',
      { title: 'x', status: 409, current: { document: document(line('a', 50)), lock: 6, by: '', differences: ['d'] } },
      409,
    )
    bench.takeTheirs()
    expect(bench.lines[0]?.grams).toBe(50)
    bench.goBack()
    expect(bench.lines[0]?.grams).toBe(2)
  })

  it('that meets somebody else asks even when no words are found for the difference', async () => {
    const bench = await openBench(document(line('a', 1)))
    edit(bench, 2)
    vi.advanceTimersByTime(600)
    await answer(
      '/draft',
      { title: 'x', status: 409, current: { document: document(line('a', 2)), lock: 6, by: 'p@b.c', differences: [] } },
      409,
    )
    expect(bench.saveState).toBe('clash')
    vi.advanceTimersByTime(5000)
    expect(drafts()).toHaveLength(1)
  })

  it('is never sent twice at once', async () => {
    const bench = await openBench(document(line('a', 1)))
    edit(bench, 2)
    vi.advanceTimersByTime(600)
    edit(bench, 3)
    void bench.flush()
    void bench.flush()
    await settle()
    expect(drafts()).toHaveLength(1)
    await answer('/draft', opened(document(line('a', 2)), 2))
    expect(drafts().map((d) => d.lock)).toEqual([1, 2])
  })

  it('is kept here while the server is away, tried again, and found after a reload', async () => {
    const bench = await openBench(document(line('a', 1)))
    edit(bench, 2)
    vi.advanceTimersByTime(600)
    await answer('/draft', { title: 'away', status: 503 }, 503)
    expect(bench.saveState).toBe('offline')
    vi.advanceTimersByTime(3100)
    expect(drafts()).toHaveLength(2)
    setActivePinia(createPinia())
    server.waiting.length = 0
    expect((await openBench(document(line('a', 1)))).lines[0]?.grams).toBe(2)
  })
})
