// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Panel } from '@/api/types'
import PanelSheet from './PanelSheet.vue'

const aPanel = (style: 'us' | 'eu'): Panel => ({
  style, title: style === 'us' ? 'Nutrition Facts' : 'Nutrition declaration', servings: '8 servings', serving: '1 piece (84 g)', columns: ['a serving'], notes: ['Rounded as the rules say.'],
  rows: [
    { key: 'energy_kcal', name: 'Calories', indent: 0, cells: [{ text: '190', range_text: '180–200' }], daily_percent: '' },
    { key: 'fibre', name: 'Dietary Fiber', indent: 1, cells: [{ text: '8 g', range_text: '' }], daily_percent: '28 %' },
  ],
}) as unknown as Panel

describe('a nutrition panel', () => {
  it('of the United States has servings and daily values', () => {
    const view = mount(PanelSheet, { props: { panel: aPanel('us'), ranges: false } })
    expect(view.text()).toContain('1 piece (84 g)')
    expect(view.findAll('.dv').map((c) => c.text())).toEqual(['', '28 %'])
    expect(view.findAll('tbody tr').map((r) => r.classes())).toEqual([['in-0', 'big'], ['in-1']])
    expect(view.text()).toContain('Rounded as the rules say.')
  })

  it('of the European Union has neither', () => {
    const view = mount(PanelSheet, { props: { panel: aPanel('eu'), ranges: false } })
    expect(view.text()).not.toContain('servings')
    expect(view.find('.dv').exists()).toBe(false)
  })

  it('shows what the ranges could print only when asked, and only where there is a range', () => {
    expect(mount(PanelSheet, { props: { panel: aPanel('us'), ranges: false } }).find('.could').exists()).toBe(false)
    expect(mount(PanelSheet, { props: { panel: aPanel('us'), ranges: true } }).findAll('.could').map((c) => c.text())).toEqual(['180–200'])
  })
})
