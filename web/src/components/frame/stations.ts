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
import { t } from '@/messages'

export interface Station {
  id: string
  readonly word: string
  icon: string
  key: string
  readonly decides: string
  /** The station's own page of a formula, after its address. */
  ofFormula?: string
}

export const stations: readonly Station[] = [
  {
    id: 'pantry',
    get word() {
      return t('frame-stations-pantry')
    },
    icon: mdiViewSequentialOutline,
    key: 'p',
    get decides() {
      return t('frame-stations-which-flour-cheese-fiber-and-egg')
    },
  },
  {
    id: 'formula',
    get word() {
      return t('frame-stations-formulas')
    },
    icon: mdiLayersOutline,
    key: 'f',
    get decides() {
      return t('frame-stations-how-much-of-each')
    },
    ofFormula: '',
  },
  {
    id: 'prep',
    get word() {
      return t('frame-stations-prep')
    },
    icon: mdiWaterOutline,
    key: 'r',
    get decides() {
      return t('frame-stations-how-to-dry-the-vegetable-melt')
    },
    ofFormula: '/prep',
  },
  {
    id: 'shape',
    get word() {
      return t('frame-stations-shape')
    },
    icon: mdiCircleHalf,
    key: 's',
    get decides() {
      return t('frame-stations-thickness-size-number-and-pan')
    },
    ofFormula: '/shape',
  },
  {
    id: 'oven',
    get word() {
      return t('frame-stations-oven')
    },
    icon: mdiToasterOven,
    key: 'o',
    get decides() {
      return t('frame-stations-temperature-stages-rack-and-fan')
    },
    ofFormula: '/oven',
  },
  {
    id: 'run',
    get word() {
      return t('frame-stations-bake')
    },
    icon: mdiTimerOutline,
    key: 'u',
    get decides() {
      return t('frame-stations-step-by-step-baking-with-timers')
    },
    ofFormula: '/run',
  },
  {
    id: 'trials',
    get word() {
      return t('frame-stations-results')
    },
    icon: mdiChartTimelineVariant,
    key: 't',
    get decides() {
      return t('frame-stations-rate-the-bake-find-the-cause')
    },
  },
  {
    id: 'plan',
    get word() {
      return t('frame-stations-plan')
    },
    icon: mdiFormatListBulleted,
    key: 'l',
    get decides() {
      return t('frame-stations-several-bakes-in-one-oven-each')
    },
  },
  {
    id: 'card',
    get word() {
      return t('frame-stations-card')
    },
    icon: mdiNoteTextOutline,
    key: 'c',
    get decides() {
      return t('frame-stations-the-recipe-card-nutrition-panels-and')
    },
    ofFormula: '/card',
  },
]

/** Where a station is: its page of the formula on the bench when it has one. */
export function stationAddress(station: Station, formulaId: number): string {
  return formulaId && station.ofFormula !== undefined ? `/formula/${formulaId}${station.ofFormula}` : `/${station.id}`
}
