// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { answering, asked, forget } from '@/testing/server'

vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api: (await import('@/testing/server')).api }))

import type { FormulaDocument, LineDocument, Settlement } from '@/api/types'
import { useBench } from './bench'
import { useSession } from './session'
import { useSettle } from './settle'
import { useToasts } from './toasts'

const line = (id: string, grams: number): LineDocument => ({ id, ingredient: id, lot: '', grams, entered: `${grams} g` }) as LineDocument
const dough = {
  name: 'Rolls',
  form: { kind: 'bun', pieces: 6 },
  lines: [line('flour', 150), line('water', 400)],
  targets: {},
} as FormulaDocument
const edit = (id: string, before: number, after: number) => ({
  line: id, ingredient: id, name: id, role: 'base', before, after, new: before === 0, text: `${before} to ${after} g ${id}`,
}) // prettier-ignore
const way = (name: string, ...changes: ReturnType<typeof edit>[]) => ({
  name, changes, shape: [], document: { ...dough, lines: changes.map((c) => line(c.line, c.after)) }, brackets: [], texture: [], handling: null,
  minutes: { before: 20, after: 21 }, dough_before_g: 550, dough_after_g: 540, cost: 40, new: 0, holds: [], prices: [], sure: [], lost: [],
  cautions: [], missed: [], met: true,
}) // prettier-ignore
const answer: Settlement = {
  status: 'settled', text: '2 edits bring everything inside.', nearest: '', clash: [], surer: '', moves: [], started: {},
  ways: [way('least change', edit('water', 400, 300), edit('fibre', 0, 20)), way('nothing new', edit('flour', 150, 170))],
} // prettier-ignore
const job = {
  id: 9,
  kind: 'settle',
  state: 'done',
  done: 100,
  total: 100,
  settlement: answer,
  problem: null,
  created_at: '2026-11-26T10:00:00Z',
}
const jobs = (): { kind: string; document: FormulaDocument; wish: object }[] =>
  asked.filter((a) => a.method === 'POST' && a.path.endsWith('/jobs')).map((a) => a.body as never)

async function settled() {
  const bench = useBench()
  bench.formulaId = 7
  bench.mayEdit = true
  await bench.open(7)
  const settle = useSettle()
  await settle.start()
  await flushPromises()
  return { bench, settle }
}

beforeEach(() => {
  forget()
  localStorage.clear()
  sessionStorage.clear()
  setActivePinia(createPinia())
  useSession().me = {
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
  } as never
  answering('/{formula_id}', {
    id: 7,
    document: dough,
    lock: 1,
    may_edit: true,
    archived: false,
    base_number: 1,
    changed: false,
    updated_by: '',
  })
  answering('/versions', [])
  answering('/jobs', job)
})

describe('settle', () => {
  it('asks for the dough on the bench and changes nothing until an answer is accepted', async () => {
    const { bench, settle } = await settled()
    expect(jobs()[0]?.kind).toBe('settle')
    expect(jobs()[0]?.document.lines?.map((l) => l.grams)).toEqual([150, 400])
    expect(settle.way?.name).toBe('least change')
    expect(settle.preview?.lines?.map((l) => [l.id, l.grams])).toEqual([
      ['flour', 150],
      ['water', 300],
      ['fibre', 20],
    ])
    expect(bench.lines.map((l) => l.grams)).toEqual([150, 400])
  })

  it('takes what is ticked as one step, and one undo takes it back', async () => {
    const { bench, settle } = await settled()
    settle.tick('fibre', false)
    expect(settle.accept()).toBe(true)
    expect(bench.lines.map((l) => [l.id, l.grams])).toEqual([
      ['flour', 150],
      ['water', 300],
    ])
    expect(useToasts().toasts.at(-1)?.text).toContain('1 edit')
    expect(settle.answer).toBeNull()
    bench.goBack()
    expect(bench.lines.map((l) => l.grams)).toEqual([150, 400])
  })

  it('an answer is for no other dough, and another way starts with all of its edits', async () => {
    const { bench, settle } = await settled()
    settle.tick('water', false)
    settle.choose(1)
    expect(settle.ticked.map((edit) => edit.key)).toEqual(['flour'])
    bench.edit((doc) => ({ ...doc, name: 'Other' }))
    expect(settle.fresh).toBe(false)
    expect(settle.preview).toBeNull()
    expect(settle.accept()).toBe(false)
  })

  it('other pieces are an edit among the others: ticked off, taken and taken back', async () => {
    const pieces = { kind: 'pieces' as const, before: 6, after: 8, text: '8 pieces instead of 6' }
    const first = way('least change', edit('water', 400, 300), edit('fibre', 0, 20))
    const made = { ...first.document, form: { ...dough.form, pieces: 8 } }
    answering('/jobs', { ...job, settlement: { ...answer, ways: [{ ...first, shape: [pieces], document: made }] } })
    const { bench, settle } = await settled()
    expect(settle.edits.map((edit) => edit.key)).toEqual(['shape:pieces', 'water', 'fibre'])
    settle.tick('shape:pieces', false)
    expect(settle.preview?.form.pieces).toBe(6)
    settle.tick('shape:pieces', true)
    settle.tick('water', false)
    settle.accept()
    expect([bench.document?.form.pieces, bench.lines.map((l) => l.grams)]).toEqual([8, [150, 400, 20]])
    bench.goBack()
    expect(bench.document?.form.pieces).toBe(6)
    await settle.relax({ text: '', kind: 'shape', key: 'pieces', price: '', enough: true, low: null, high: null })
    await settle.relax({ text: '', kind: 'shape', key: 'thickness', price: '', enough: true, low: null, high: null })
    expect([settle.wish.may_change_pieces, settle.wish.may_change_thickness]).toEqual([true, true])
  })

  it('lets a limit go as it is told and asks again', async () => {
    const { bench, settle } = await settled()
    await settle.relax({ text: '', kind: 'target', key: 'net_carbs', price: '', enough: true, low: null, high: 2.6 })
    expect(bench.document?.targets?.net_carbs).toEqual({ low: null, high: 2.6 })
    await settle.relax({ text: '', kind: 'rail', key: 'mass', price: '', enough: true, low: null, high: null })
    await settle.relax({ text: '', kind: 'rail', key: 'protein', price: '', enough: true, low: null, high: null })
    await settle.relax({ text: '', kind: 'target', key: 'texture:sturdy', price: '', enough: true, low: 6.5, high: null })
    expect(settle.wish.texture).toEqual({ sturdy: { low: 6.5, high: null } })
    expect(bench.document?.targets).not.toHaveProperty('texture:sturdy')
    expect(jobs()).toHaveLength(5)
    expect(jobs().at(-1)?.wish).toMatchObject({ may_change_mass: true, released: ['protein'] })
  })
})
