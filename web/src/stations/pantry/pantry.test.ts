// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { PackFigure } from '@/api/types'
import FigureBand from './FigureBand.vue'

const aFigure = (change: object = {}): PackFigure =>
  ({
    nutrient: 'fibre',
    value: 10,
    sd: 1,
    origin: 'label',
    bounds: { low: 9.5, high: 10.5 },
    reference: { value: 11, low: 8, high: 14 },
    spread: { value: 10, low: 8.4, high: 11.6 },
    ...change,
  }) as PackFigure
const band = (change: object = {}, unit = 'g') => mount(FigureBand, { props: { figure: aFigure(change), name: 'Fiber', unit } })
const number = (text: string | undefined): number => Number.parseFloat(text ?? 'NaN')

describe('the band of a figure', () => {
  it('is drawn to one scale: reference, what the print can stand for, and the figure', () => {
    const view = band()
    const [at, from] = [number(view.get('.mark').attributes('d')?.slice(2)) - 2, number(view.get('.reference').attributes('x')) - 2]
    expect(at / from).toBeCloseTo(10 / 8)
    expect(number(view.get('.reference').attributes('width')) / from).toBeCloseTo(6 / 8)
    expect(view.get('.note').text()).toBe('8.4–11.6')
    expect(view.get('tr').attributes('title')).toBe('reference 8.0 to 14.0 g')
  })

  it('says where a figure comes from that no label gives, and draws no print for it', () => {
    const view = band({ origin: 'reference', bounds: null })
    expect(view.get('.note').text()).toBe('from the reference')
    expect(view.find('.bounds').exists()).toBe(false)
    expect(view.get('.mark').classes()).toContain('taken')
    expect(band({ origin: 'closing' }).get('.note').text()).toBe('what is left of 100 g')
  })

  it('prints as finely as the figure deserves', () => {
    expect(band({ value: 2.345 }).get('.value').text()).toBe('2.35 g')
    expect(band({ value: 23.45 }).get('.value').text()).toBe('23.4 g')
    expect(band({ value: 580.4 }, 'mg').get('.value').text()).toBe('580 mg')
  })
})
