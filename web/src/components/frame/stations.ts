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
    decides: 'which flour, cheese, fibre and egg; which bought pack',
  },
  { id: 'formula', word: 'Formula', icon: mdiLayersOutline, key: 'f', decides: 'how much of each', ofFormula: '' },
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
  { id: 'run', word: 'Run', icon: mdiTimerOutline, key: 'u', decides: 'doing it, with timers, scale and probe', ofFormula: '/run' },
  { id: 'trials', word: 'Trials', icon: mdiChartTimelineVariant, key: 't', decides: 'was it good, why not, what next' },
  { id: 'plan', word: 'Plan', icon: mdiFormatListBulleted, key: 'l', decides: 'several bakes, one oven, ready by six' },
  {
    id: 'card',
    word: 'Card',
    icon: mdiNoteTextOutline,
    key: 'c',
    decides: 'handing it on: recipe card, panels, allergens',
    ofFormula: '/card',
  },
]

/** Where a station is: its page of the formula on the bench when it has one. */
export function stationAddress(station: Station, formulaId: number): string {
  return formulaId && station.ofFormula !== undefined ? `/formula/${formulaId}${station.ofFormula}` : `/${station.id}`
}
