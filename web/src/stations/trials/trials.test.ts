// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import { LIMITS, onTheBench } from '@/testing/kitchen'
import { answering, asked, refusing } from '@/testing/server'

vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api: (await import('@/testing/server')).api }))

import { useSession } from '@/stores/session'
import { useSettle } from '@/stores/settle'
import CrustPhotos from './CrustPhotos.vue'
import TrialsView from './TrialsView.vue'
import TrialView from './TrialView.vue'

const router = createRouter({ history: createMemoryHistory(), routes: [{ path: '/:any(.*)*', component: { template: '<i />' } }] })
const ROW = {
  id: 3, key: 'k', formula_id: 1, name: 'Rolls', form: 'bun', number: 2, batches: 1, oven: '', started_at: new Date().toISOString(),
  finished_at: new Date().toISOString(), liked: '', faults: ['gummy'], judged: false, left_out: false, by: 'baker',
} // prettier-ignore
const RUN = { run: ROW, document: {}, plan: { steps: [] }, verdict: null, entries: [], formula_archived: false }
const DIAGNOSIS = {
  faults: ['gummy'],
  formula: [{ cause: 'psy', words: 'too much psyllium', probability: 0.8, said: 'likely', evidence: ['exact'] }],
  making: [
    {
      cause: 'early',
      words: 'taken out too early',
      probability: 0.6,
      said: 'likely',
      scope: 'run',
      evidence: ['the log: 20 min'],
      against: [],
    },
  ],
  nothing: 0.1,
  questions: [{ cause: 'cut_warm', text: 'Was it cut while warm?', gain: 0.5 }],
  next: [
    {
      actions: ['longer'],
      text: '15 % longer',
      edits: ['28 → 32 min'],
      document: { name: 'x', lines: [] },
      gain: 0.5,
      before: 1,
      after: 0.5,
    },
  ],
  checks: [],
  text: 'In the making, likely: taken out too early.',
  rests_on: 'common practice',
}

beforeEach(async () => {
  await onTheBench()
  useSession().words = {
    limits: LIMITS,
    faults: [
      { id: 'gummy', name: 'gummy centre', group: 'crumb', forms: ['bun'], picture: 'gummy' },
      { id: 'leaks', name: 'leaks', group: 'out', forms: ['pocket'], picture: 'burst' },
    ],
    textures: [{ id: 'moist', name: 'Moist' }],
  } as never
  answering('/runs/{run_id}', RUN)
  answering('/photos', [])
})
const shown = async () => {
  const view = mount(TrialView, { props: { runId: 3 }, global: { plugins: [router] } })
  await flushPromises()
  return view
}

describe('a verdict', () => {
  it('asks only for what this form can have, and sends what was pressed', async () => {
    const view = await shown()
    expect(view.text()).toContain('gummy centre')
    expect(view.text()).not.toContain('leaks')
    answering('/verdict', ROW)
    answering('/jobs', { id: 1, kind: 'why', state: 'waiting', done: 0, total: 1, problem: null })
    await view
      .findAll('.word')
      .find((b) => b.text() === 'bad')
      ?.trigger('click')
    await view.get('.fault').trigger('click')
    await view.findAll('.chip').at(3)?.trigger('click')
    await view.get('form').trigger('submit')
    await flushPromises()
    expect(asked.find((a) => a.path.endsWith('/verdict'))?.body).toMatchObject({
      liked: 'bad',
      colour: 1,
      faults: [{ id: 'gummy', where: '' }],
      scores: {},
    })
  })

  it('says why it was refused and keeps what was pressed', async () => {
    const view = await shown()
    refusing('/verdict', 422, 'the score is out of range')
    await view
      .findAll('.word')
      .find((b) => b.text() === 'good')
      ?.trigger('click')
    await view.get('form').trigger('submit')
    await flushPromises()
    expect(view.get('[role=alert]').text()).toContain('out of range')
    expect(
      view
        .findAll('.word')
        .find((b) => b.text() === 'good')
        ?.attributes('aria-pressed'),
    ).toBe('true')
  })
})

describe('why', () => {
  it('tells formula and making apart, asks, and lays a proposal on the bench', async () => {
    answering('/runs/{run_id}', {
      ...RUN,
      run: { ...ROW, judged: true, liked: 'bad' },
      verdict: { liked: 'bad', faults: [{ id: 'gummy', where: '' }], scores: {}, asked: {}, note: '', colour: null },
    })
    answering('/jobs', { id: 1, kind: 'why', state: 'done', done: 1, total: 1, problem: null, why: DIAGNOSIS })
    const view = await shown()
    expect(view.get('[aria-label="The formula as written"]').text()).toContain('too much psyllium')
    expect(view.get('[aria-label="In how it was made"]').text()).toContain('taken out too early')
    answering('/verdict', ROW)
    await view
      .findAll('.question button')
      .find((b) => b.text() === 'Yes')
      ?.trigger('click')
    await flushPromises()
    expect(asked.find((a) => a.path.endsWith('/verdict'))?.body).toMatchObject({ asked: { cut_warm: true } })
    answering('/proposal', { document: DIAGNOSIS.next[0]?.document, conflicts: [{ what: 'bake oven c', present: '170', proposed: '200' }] })
    await view
      .findAll('button')
      .find((b) => b.text() === 'Open changed formula')
      ?.trigger('click')
    await flushPromises()
    expect(useSettle().proposal).toMatchObject({ formulaId: 1, edits: ['28 → 32 min'], conflicts: [{ present: '170' }] })
  })
})

describe('trials', () => {
  it('are listed with their faults in words, and two are put side by side', async () => {
    answering('/runs', { runs: [ROW, { ...ROW, id: 4, judged: true, liked: 'good', faults: [] }], total: 2 })
    const view = mount(TrialsView, { global: { plugins: [router] } })
    await flushPromises()
    expect(view.text()).toContain('not rated yet')
    expect(view.text()).toContain('gummy centre')
    const compare = view.findAll('button').find((b) => b.text().startsWith('Compare'))
    expect(compare?.attributes('disabled')).toBeDefined()
    for (const box of view.findAll('input[type=checkbox]')) await box.setValue(true)
    await compare?.trigger('click')
    await flushPromises()
    expect(router.currentRoute.value.fullPath).toBe('/trials/compare?runs=3,4')
  })
})

describe('photos', () => {
  it('asks for a touch on the paper where none is found, and reads the same picture from there', async () => {
    refusing('/photos', 422, 'no white paper is seen')
    const view = mount(CrustPhotos, { props: { runId: 3 } })
    const input = view.find('input[type=file]')
    const file = new File(['x'], 'crust.jpg', { type: 'image/jpeg' })
    Object.defineProperty(input.element, 'files', { value: [file] })
    await input.trigger('change')
    await flushPromises()
    expect(view.text()).toContain('No white paper is seen')
    const picture = view.find('.touch button')
    vi.spyOn(picture.element, 'getBoundingClientRect').mockReturnValue({ left: 100, top: 50, width: 400, height: 200 } as DOMRect)
    answering('/photos', Object.assign([], { id: 1, lightness: 61.7 }))
    await picture.trigger('click', { clientX: 140, clientY: 190 })
    await flushPromises()
    expect(asked.filter((a) => a.method === 'POST').at(-1)?.query).toEqual({ x: 0.1, y: 0.7, reference: 'paper' })
    expect(view.emitted('read')?.at(-1)).toEqual([61.7])
    expect(view.find('.touch').exists()).toBe(false)
  })

  it('refuse what is too large before it is sent, and tell the lightness that was read', async () => {
    const view = mount(CrustPhotos, { props: { runId: 3 } })
    await flushPromises()
    const input = view.get('input[type=file]')
    const choose = async (size: number): Promise<void> => {
      const file = new File(['x'], 'crust.jpg')
      Object.defineProperty(file, 'size', { value: size })
      Object.defineProperty(input.element, 'files', { value: [file], configurable: true })
      await input.trigger('change')
      await flushPromises()
    }
    await choose(40e6)
    expect(view.get('[role=alert]').text()).toContain('40 MB')
    expect(asked.some((a) => a.method === 'POST' && a.path.endsWith('/photos'))).toBe(false)
    // The list that is asked for afterwards has the same address: an empty one that has a photo's figures.
    answering('/photos', Object.assign([], { id: 1, lightness: 61.73 }))
    await choose(2e6)
    expect(view.emitted('read')).toEqual([[61.7]])
  })
})
