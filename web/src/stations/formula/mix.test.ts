// @vitest-environment happy-dom
import { enableAutoUnmount, flushPromises, mount } from '@vue/test-utils'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { DOCUMENT, onTheBench } from '@/testing/kitchen'
import { answering, asked, refusing } from '@/testing/server'

vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api: (await import('@/testing/server')).api }))

import type { FormulaDocument } from '@/api/types'
import MixPanel from './MixPanel.vue'

enableAutoUnmount(afterEach)
const cheese = (id: string, grams: number) => ({ ...DOCUMENT.lines?.[0], id, ingredient: id, role: 'cheese', grams, entered: `${grams} g` })
const dough = { ...DOCUMENT, lines: [cheese('mozzarella', 120), cheese('gouda', 60)] } as unknown as FormulaDocument
const leans = () =>
  asked.filter((a) => a.path.endsWith('/lean')).map((a) => a.body as { by: string; towards: number; document: FormulaDocument })

describe('a mix', () => {
  async function panel() {
    const bench = await onTheBench(dough)
    bench.selected = 'gouda'
    const view = mount(MixPanel)
    await flushPromises()
    const [strength, price] = view.findAllComponents({ name: 'VSlider' })
    const pull = async (slider: typeof strength, to: number): Promise<void> => {
      slider?.vm.$emit('update:modelValue', to)
      await new Promise((later) => setTimeout(later, 300))
      await flushPromises()
    }
    return { bench, view, strength, price, pull }
  }
  const leaned = (gouda: number) => ({ document: { ...dough, lines: [cheese('mozzarella', 180 - gouda), cheese('gouda', gouda)] } })

  it('leans from where it stood when the handle was taken, and back again', async () => {
    const { bench, strength, pull } = await panel()
    answering('/lean', leaned(90))
    await pull(strength, 0.5)
    expect(bench.lines.map((l) => l.grams)).toEqual([90, 90])
    answering('/lean', leaned(110))
    await pull(strength, 0.75)
    // Both are asked of the dough as it was before.
    expect(leans().map((l) => [l.by, l.towards, l.document.lines?.[1]?.grams])).toEqual([
      ['strength', 0.5, 60],
      ['strength', 0.75, 60],
    ])
    expect(strength?.props('modelValue')).toBe(0.75)
  })

  it('begins anew with the other handle or after another edit, and says what cannot be', async () => {
    const { bench, view, strength, price, pull } = await panel()
    answering('/lean', leaned(90))
    await pull(strength, 0.5)
    await pull(price, -0.25)
    expect(leans().at(-1)).toMatchObject({ by: 'price', document: { lines: [{ grams: 90 }, { grams: 90 }] } })
    expect([strength?.props('modelValue'), price?.props('modelValue')]).toEqual([0, -0.25])
    bench.edit((doc) => ({ ...doc, name: 'Other' }))
    await flushPromises()
    expect(price?.props('modelValue')).toBe(0)
    refusing('/lean', 422, 'these ingredients do not differ in price or taste strength')
    await pull(price, 0.5)
    expect(view.get('[role=alert]').text()).toContain('These ingredients do not differ')
  })
})
