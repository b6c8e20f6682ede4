// @vitest-environment happy-dom
import { enableAutoUnmount, flushPromises, mount } from '@vue/test-utils'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import { DOCUMENT, onTheBench } from '@/testing/kitchen'
import { answering } from '@/testing/server'

vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api: (await import('@/testing/server')).api }))

import type { FormulaDocument } from '@/api/types'
import PartsPanel from './PartsPanel.vue'

const router = createRouter({ history: createMemoryHistory(), routes: [{ path: '/:any(.*)*', component: { template: '<i />' } }] })
enableAutoUnmount(afterEach)

const SAUCE = { formula: { name: 'Sauce' }, key: 'formula-9', number: 2, loss_percent: 0 }
const withPart = {
  ...DOCUMENT,
  lines: [...(DOCUMENT.lines ?? []), { ...DOCUMENT.lines?.[0], id: 'part', ingredient: 'part', grams: 80, part: SAUCE }],
} as unknown as FormulaDocument

describe('parts and sorts', () => {
  async function panel(document: FormulaDocument) {
    const bench = await onTheBench(document)
    answering('/formulas', { items: [{ id: 9, name: 'Sauce' }], total: 1 })
    answering('/newer-parts', [
      { line: 'part', name: 'Sauce', number: 2, newest: 3, changes: ['salt 3 → 4 g'], part: { ...SAUCE, number: 3 } },
    ])
    answering('/part', { part: SAUCE, name: 'Sauce', grams: 320 })
    const view = mount(PartsPanel, { global: { plugins: [router] } })
    await flushPromises()
    return { bench, view }
  }

  it('offers a newer version with what is different, and takes it when pressed', async () => {
    const { bench, view } = await panel(withPart)
    expect(view.text()).toContain('Version 3 is available: salt 3 → 4 g')
    await view
      .findAll('button')
      .find((b) => b.text() === 'Update')
      ?.trigger('click')
    expect(bench.lines.find((line) => line.id === 'part')?.part?.number).toBe(3)
  })

  it('takes a formula in as a line of its own', async () => {
    const { bench, view } = await panel(DOCUMENT)
    await view.get('[aria-label="Formula to add"]').setValue('9')
    expect(
      view
        .findAll('button')
        .find((b) => b.text() === 'Add sub-recipe')
        ?.attributes('disabled'),
    ).toBeUndefined()
    await view.get('[aria-label="Grams to use"]').setValue(120)
    await view
      .findAll('button')
      .find((b) => b.text() === 'Add sub-recipe')
      ?.trigger('click')
    await vi.waitFor(() => {
      expect(bench.lines).toHaveLength(2)
    })
    const line = bench.lines.at(-1)
    expect([line?.ingredient, line?.grams, line?.role, line?.part?.key]).toEqual(['part', 120, 'filling', 'formula-9'])
  })

  it('makes two sorts of the pieces, gives a line to one, and one of them leaves none', async () => {
    const { bench, view } = await panel(DOCUMENT)
    await view
      .findAll('button')
      .find((b) => b.text() === 'Split into two varieties')
      ?.trigger('click')
    expect(bench.document?.sorts?.map((sort) => sort.pieces)).toEqual([3, 3])
    view.findAllComponents({ name: 'VCheckboxBtn' })[0]?.vm.$emit('update:modelValue', true)
    await flushPromises()
    expect(bench.document?.sorts?.[0]?.lines).toEqual(['a'])
    await view.get('[aria-label="Remove one"]').trigger('click')
    expect(bench.document?.sorts).toEqual([])
  })
})
