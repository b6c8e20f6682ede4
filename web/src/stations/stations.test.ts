// @vitest-environment happy-dom
/** Every station mounted once, with answers recorded from the API (`tests/api/test_recorded.py`). */
import { mount, type VueWrapper } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick, type Component } from 'vue'
import { createMemoryHistory, createRouter } from 'vue-router'
import { queries } from '@/api/policy'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import recorded from '@/testing/generated/recorded.json'
import { answering, asked, forget } from '@/testing/server'

vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api: (await import('@/testing/server')).api }))

import CardView from './card/CardView.vue'
import BenchView from './formula/BenchView.vue'
import ShelfView from './formula/ShelfView.vue'
import OvenView from './oven/OvenView.vue'
import PantryList from './pantry/PantryList.vue'
import StockView from './pantry/StockView.vue'
import PrepView from './prep/PrepView.vue'
import ShapeView from './shape/ShapeView.vue'

const router = createRouter({ history: createMemoryHistory(), routes: [{ path: '/:rest(.*)*', component: { template: '<i />' } }] })
const ID = recorded['/{formula_id}'].id

async function open(view: Component, props: object = {}): Promise<VueWrapper> {
  const mounted = mount(view, { props, global: { plugins: [router] } })
  for (let turn = 0; turn < 12; turn++) await nextTick()
  await new Promise((rest) => setTimeout(rest, 450))
  return mounted
}

beforeEach(async () => {
  setActivePinia(createPinia())
  forget()
  queries.clear()
  localStorage.clear()
  sessionStorage.clear()
  for (const [path, answer] of Object.entries(recorded)) answering(path, answer)
  await useSession().load()
})

describe('the stations of a formula, with the answers of the demo', () => {
  beforeEach(() => useBench().open(ID))

  it('Formula says the sentence, draws a layer a line and judges every bracket', async () => {
    const view = await open(BenchView, { id: ID })
    const answer = recorded['/analyse']
    expect(view.get('.sentence').text().replace(/\s+/g, ' ')).toContain(answer.summary[0]?.text)
    expect(view.findAll('.stratum')).toHaveLength(recorded['/{formula_id}'].document.lines.length)
    expect(view.findAll('[data-bracket]').length).toBeGreaterThanOrEqual(answer.brackets.filter((b) => b.primary).length)
    for (const warning of answer.warnings) expect(view.text()).toContain(warning.text)
  })

  it('Prep has a card a task, each with what to do', async () => {
    const view = await open(PrepView, { id: ID })
    const tasks = recorded['/prep'].plan.tasks
    expect(tasks.length).toBeGreaterThan(2)
    for (const task of tasks) expect(view.text()).toContain(task.title)
  })

  it('Shape says the pieces and draws as many as fit', async () => {
    const view = await open(ShapeView, { id: ID })
    const plan = recorded['/shape']
    expect(view.get('.sentence').text()).toContain(plan.text)
    for (const note of plan.notes) expect(view.text()).toContain(note)
  })

  it('Oven says when it is done, and what else could be done', async () => {
    const view = await open(OvenView, { id: ID })
    const { forecast } = recorded['/bake']
    expect(view.get('.sentence').text()).toBe(forecast.text)
    for (const option of forecast.what_ifs) expect(view.text()).toContain(option.name)
    expect(view.findAll('.settings li')).toHaveLength(forecast.settings.length)
  })

  it('Card prints the panel, the statement and the cautions', async () => {
    localStorage.setItem('card side', 'panel')
    const view = await open(CardView, { id: ID })
    const card = recorded['/card']
    for (const line of card.us_panel.rows) expect(view.text()).toContain(line.name)
    for (const caution of card.cautions) expect(view.text()).toContain(caution.text)
  })
})

describe('the other stations', () => {
  it('Pantry lists packs, and Stock what is on hand', async () => {
    const pantry = await open(PantryList)
    for (const row of recorded['/pantry'].items) expect(pantry.text()).toContain(row.name)
    const stock = await open(StockView)
    for (const row of recorded['/stock'].items) expect(stock.text()).toContain(row.name)
  })

  it('the shelf shows every formula with what it brings', async () => {
    const view = await open(ShelfView)
    expect(view.findAll('.card')).toHaveLength(recorded['/formulas'].items.length)
    for (const item of recorded['/formulas'].items) expect(view.text()).toContain(item.name)
  })

  it('nothing was asked that is not answered', async () => {
    await open(ShelfView)
    const answered = Object.keys(recorded)
    expect(asked.filter((a) => !answered.some((end) => a.path.endsWith(end))).map((a) => a.path)).toEqual([])
  })
})
