/** A kitchen for tests of components: a formula on the bench, and answers as the server gives them. */
import { createPinia, setActivePinia } from 'pinia'
import type { BakeForecast, FormulaDocument, ShapePlan } from '@/api/types'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { queries } from '@/api/policy'
import { answering, forget } from './server'

/** What an owner may do: as the server tells it. */
const RIGHTS = [
  'view',
  'formulas.edit',
  'formulas.share',
  'packs.edit',
  'stock.edit',
  'ovens.edit',
  'bakes.edit',
  'plans.edit',
  'devices.use',
  'diets.edit',
  'kitchen.settings',
  'kitchen.import',
  'members.edit',
  'history.read',
  'kitchen.close',
]

export const DOCUMENT: FormulaDocument = {
  substrata: 1,
  uid: '',
  name: 'Rolls',
  notes: '',
  form: { kind: 'bun', pieces: 6, serving_pieces: 1 },
  targets: {},
  lines: [
    {
      id: 'a',
      lot: '',
      ingredient: 'almond-flour',
      grams: 100,
      entered: '100 g',
      role: '',
      stage: '',
      treatment: '',
      note: '',
      locked: false,
    },
  ],
}

/** Open a document on the bench of a baker, or of a viewer. */
export async function onTheBench(
  document: FormulaDocument = DOCUMENT,
  mayEdit = true,
  units: 'metric' | 'us' = 'metric',
  analysis?: object,
): Promise<ReturnType<typeof useBench>> {
  setActivePinia(createPinia())
  forget()
  queries.clear()
  localStorage.clear()
  sessionStorage.clear()
  answering('/{formula_id}', {
    id: 7,
    document,
    lock: 1,
    base_number: 0,
    changed: true,
    may_edit: mayEdit,
    archived: false,
    updated_by: '',
  })
  answering('/versions', [])
  if (analysis) answering('/analyse', { lines: [], problems: [], brackets: [], ...analysis })
  const session = useSession()
  session.me = {
    id: 1,
    email: 'a@b.c',
    kitchens: [{ id: 3, name: 'K', role: 'owner', rights: RIGHTS, units }],
  } as unknown as typeof session.me
  const bench = useBench()
  await bench.open(7)
  return bench
}

/** A bake of twenty minutes that is turned at eight. */
export function aBake(change: Partial<BakeForecast> = {}): BakeForecast {
  const minutes = [0, 5, 10, 15, 20]
  const stage = { heat: { oven_c: 200, fan: false, broil: false } }
  return {
    ready_min: { low: 10, best: 12, high: 15 },
    golden_min: 11,
    golden_until_min: 16,
    burnt_min: 19,
    edge_min: 9,
    safe_min: 6,
    safe_c: 71,
    safe_for: 'egg',
    dark: false,
    core_c_at_ready: 98,
    hot_loss_percent: { low: 10, best: 12, high: 14 },
    loss_percent: { low: 10, best: 12, high: 14 },
    moisture_percent: 33.333,
    bake_to_g: { low: 480, best: 500, high: 520 },
    bake_to_piece_g: 83,
    fried: false,
    oven: 'Deck: unknown, ± 20 °C',
    oven_c: 200,
    really_c: 209,
    stages: [
      { kind: 'bake', name: 'bake', moment: false, start_min: 0, end_min: 8, ...stage },
      { kind: 'flip', name: 'turn over', moment: true, start_min: 8, end_min: 8, ...stage },
      { kind: 'finish', name: 'finish', moment: false, start_min: 8, end_min: 12, ...stage },
      { kind: 'rest', name: 'rest', moment: false, start_min: 12, end_min: 17, ...stage },
    ],
    series: {
      minutes,
      core_c: [20, 60, 90, 99, 100],
      loss_percent: [0, 2, 9, 15, 20],
      colour_top: [0, 0.3, 0.9, 1.4, 1.9],
      colour_bottom: [0, 0.2, 0.5, 0.8, 1],
      shade_minutes: [0, 10],
      shade_mm: [0, 5, 10],
      temperature_c: [
        [20, 150],
        [20, 90],
        [20, 110],
      ],
      dryness: [
        [0, 0.9],
        [0, 0.1],
        [0, 0.7],
      ],
    },
    planned: [
      { kind: 'bake', minutes: 8, oven_c: null, fan: null },
      { kind: 'flip', minutes: null, oven_c: null, fan: null },
      { kind: 'finish', minutes: null, oven_c: null, fan: null },
    ],
    additions: [
      {
        kind: 'door',
        name: 'open the door',
        stages: [
          { kind: 'bake', minutes: 9, oven_c: null, fan: null },
          { kind: 'door', minutes: null, oven_c: null, fan: null },
          { kind: 'finish', minutes: null, oven_c: null, fan: null },
        ],
      },
    ],
    what_ifs: [{ key: 'fan', name: 'fan, 20 °C lower', text: '+ 1 min' }],
    settings: [
      { oven_c: 190, ready_min: 14, window_min: 5, loss_percent: 12, best: false },
      { oven_c: 200, ready_min: 12, window_min: 6, loss_percent: 12, best: true },
      { oven_c: 210, ready_min: null, window_min: 0, loss_percent: null, best: false },
    ],
    flags: [],
    weak_spots: [],
    cautions: [],
    decides: 'colour',
    sureness: 'The range is this oven’s.',
    rests_on: 'Rests on 3 practised bakes of such doughs.',
    text: 'Check at 9 min.',
    ...change,
  } as unknown as BakeForecast
}

/** A piece as the Shape station draws it. */
export function aPiece(change: Partial<ShapePlan['piece']> = {}): ShapePlan['piece'] {
  return {
    kind: 'round',
    held: 'thickness',
    dough_g: 90,
    whole_g: 90,
    g_per_ml: 1,
    volume_ml: 90,
    thickness_mm: 10,
    length_mm: 100,
    width_mm: 100,
    area_cm2: 78.5,
    perimeter_mm: 314,
    grown_length_mm: 125,
    grown_width_mm: 125,
    fill_share: 0,
    tolerance_g: 3,
    layers: 1,
    seal_mm: 0,
    hole_mm: 0,
    grown_hole_mm: 0,
    filling_g: 0,
    filling_mm: 0,
    filling_most_g: 0,
    ...change,
  }
}

/** Numbers of the job, as the server tells them with its words. */
export const LIMITS: NonNullable<ReturnType<typeof useSession>['words']>['limits'] = {
  half_90_sds: 1.6448536269514722,
  rest_most_min: 2880,
  handling_axis: { low: -1.5, high: 5.6 },
  handling_minutes: { low: 0, high: 20 },
  handling_degrees_c: { low: 5, high: 70 },
  oven_trays: 2,
  oven_shared_k: 10,
  night_from: '22:00',
  night_to: '06:00',
  photo_most_mb: 25,
  bowl_from_g: 8,
  scale_empty_g: 0.6,
  scale_steady_s: 1.2,
}
