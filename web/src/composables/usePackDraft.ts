/** A pack while it is typed: kept over a reload, read by the core as it changes, saved when it is said so. */
import { refDebounced } from '@vueuse/core'
import { computed, ref, shallowRef, watch, type ComputedRef, type Ref, type ShallowRef } from 'vue'
import { api, settled, type Refusal } from '@/api/client'
import type { LabelDocument, LotDocument, LotOut, Reading } from '@/api/types'
import { useLatest } from './useLatest'

export interface PackDraft {
  draft: Ref<LotDocument>
  label: ComputedRef<LabelDocument>
  hasLabel: ComputedRef<boolean>
  reading: ShallowRef<Reading | null>
  refusal: ShallowRef<Refusal | null>
  changed: ComputedRef<boolean>
  open: (kitchenId: number, saved: LotOut | null, ingredient: string) => void
  set: (change: Partial<LotDocument>) => void
  setLabel: (label: LabelDocument) => void
  /** What would be sent: a label without a figure is none. */
  clean: () => LotDocument
  forget: () => void
}

const emptyLabel = (): LabelDocument => ({ style: 'us', per_g: 0, per_digit_g: 1, serving_measure: '', figures: {} })
const emptyPack = (ingredient: string): LotDocument => ({
  substrata_pack: 1,
  ingredient,
  name: '',
  label: null,
  price: null,
  pack_g: null,
  usable: 1,
  bought_on: null,
  use_by: null,
  measures: {},
  capacity: null,
  contains: [],
  may_contain: [],
  certificates: [],
  statement: '',
  colour: '',
  notes: '',
})

export function usePackDraft(): PackDraft {
  const draft = ref<LotDocument>(emptyPack(''))
  const reading = shallowRef<Reading | null>(null)
  const kitchen = ref(0)
  const storeKey = ref('')
  const saved = ref('')
  const latest = useLatest(
    ({ kitchenId, body }: { kitchenId: number; body: LotDocument }) =>
      settled(api.POST('/api/kitchens/{kitchen_id}/packs/read', { params: { path: { kitchen_id: kitchenId } }, body })),
    (answer) => {
      reading.value = answer
    },
  )
  const { refusal } = latest

  const label = computed(() => draft.value.label ?? emptyLabel())
  const hasLabel = computed(() => Object.values(label.value.figures ?? {}).some((text) => text.trim()))
  const changed = computed(() => JSON.stringify(draft.value) !== saved.value)

  function clean(): LotDocument {
    return { ...draft.value, label: hasLabel.value ? label.value : null }
  }

  function open(kitchenId: number, lot: LotOut | null, ingredient: string): void {
    kitchen.value = kitchenId
    storeKey.value = `pack ${kitchenId} ${lot?.id ?? 'new'}`
    const base = (lot?.document as LotDocument | undefined) ?? emptyPack(ingredient)
    saved.value = JSON.stringify(base)
    const kept = localStorage.getItem(storeKey.value)
    draft.value = kept ? { ...base, ...(JSON.parse(kept) as Partial<LotDocument>) } : base
    if (!lot && ingredient) draft.value.ingredient = ingredient
    latest.clear()
    reading.value = lot?.reading ?? null
    if (kept || !lot) ask()
  }

  const quiet = refDebounced(draft, 150)
  watch(quiet, ask)
  watch(draft, (now) => {
    if (!storeKey.value) return
    if (changed.value) localStorage.setItem(storeKey.value, JSON.stringify(now))
    else localStorage.removeItem(storeKey.value)
  })

  function ask(): void {
    if (draft.value.ingredient && kitchen.value)
      latest.ask({ kitchenId: kitchen.value, body: { ...clean(), name: draft.value.name.trim() || 'pack' } })
  }

  return {
    draft,
    label,
    hasLabel,
    reading,
    refusal,
    changed,
    open,
    clean,
    set(change) {
      draft.value = { ...draft.value, ...change }
    },
    setLabel(next) {
      draft.value = { ...draft.value, label: next }
    },
    forget() {
      localStorage.removeItem(storeKey.value)
      saved.value = JSON.stringify(draft.value)
    },
  }
}
