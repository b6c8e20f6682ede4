/** The nine stations in bench order. */
import {
  mdiChartTimelineVariant,
  mdiFormatListBulleted,
  mdiLayersOutline,
  mdiNoteTextOutline,
  mdiTimerOutline,
  mdiToasterOven,
  mdiViewSequentialOutline,
  mdiWaterOutline,
  mdiCircleHalf,
} from '@mdi/js'

export interface Station {
  id: string
  word: string
  icon: string
  key: string
  decides: string
  /** The station's own page of a formula, after its address. */
  ofFormula?: string
}

export const stations: readonly Station[] = [
  {
    id: 'pantry',
    word: 'Pantry',
    icon: mdiViewSequentialOutline,
    key: 'p',
    decides: 'which flour, cheese, fiber, and egg to use, and which pack',
  },
  { id: 'formula', word: 'Formulas', icon: mdiLayersOutline, key: 'f', decides: 'how much of each', ofFormula: '' },
  {
    id: 'prep',
    word: 'Prep',
    icon: mdiWaterOutline,
    key: 'r',
    decides: 'how to dry the vegetable, melt the cheese, warm the water',
    ofFormula: '/prep',
  },
  { id: 'shape', word: 'Shape', icon: mdiCircleHalf, key: 's', decides: 'thickness, size, number and pan', ofFormula: '/shape' },
  { id: 'oven', word: 'Oven', icon: mdiToasterOven, key: 'o', decides: 'temperature, stages, rack and fan', ofFormula: '/oven' },
  {
    id: 'run',
    word: 'Bake',
    icon: mdiTimerOutline,
    key: 'u',
    decides: 'step-by-step baking with timers, scale, and probe',
    ofFormula: '/run',
  },
  {
    id: 'trials',
    word: 'Results',
    icon: mdiChartTimelineVariant,
    key: 't',
    decides: 'rate the bake, find the cause, choose the next change',
  },
  { id: 'plan', word: 'Plan', icon: mdiFormatListBulleted, key: 'l', decides: 'several bakes in one oven, each ready on time' },
  {
    id: 'card',
    word: 'Card',
    icon: mdiNoteTextOutline,
    key: 'c',
    decides: 'the recipe card, nutrition panels, and allergens',
    ofFormula: '/card',
  },
]

/** Where a station is: its page of the formula on the bench when it has one. */
export function stationAddress(station: Station, formulaId: number): string {
  return formulaId && station.ofFormula !== undefined ? `/formula/${formulaId}${station.ofFormula}` : `/${station.id}`
}
