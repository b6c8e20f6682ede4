/** Who is signed in, in which kitchen, and how they like to see things. */
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, Refusal, settled } from '@/api/client'
import type { Kitchen, KitchenSettings, Me, Words } from '@/api/types'
import type { Units } from '@/domain/format'

type Theme = 'light' | 'dark'

function storedTheme(): Theme {
  const stored = localStorage.getItem('theme')
  if (stored === 'light' || stored === 'dark') return stored
  return matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light'
}

type Limits = Words['limits']
const UNTOLD: Limits = {
  half_90_sds: 0,
  rest_most_min: Infinity,
  handling_axis: { low: 0, high: 0 },
  handling_minutes: { low: 0, high: 0 },
  handling_degrees_c: { low: 0, high: 0 },
  oven_trays: 1,
  oven_shared_k: 0,
  night_from: '',
  night_to: '',
  photo_most_mb: Infinity,
  bowl_from_g: Infinity,
  scale_empty_g: 0,
  scale_steady_s: 0,
}

export const useSession = defineStore('session', () => {
  const me = shallowRef<Me | null>(null)
  const kitchenId = ref(Number(localStorage.getItem('kitchen')) || 0)
  const words = shallowRef<Words | null>(null)
  /** Numbers of the job that are drawn and checked by; nothing is before the words are there. */
  const limits = computed<Limits>(() => words.value?.limits ?? UNTOLD)
  const theme = ref<Theme>(storedTheme())

  const kitchen = computed<Kitchen | null>(() => {
    const all = me.value?.kitchens ?? []
    return all.find((k) => k.id === kitchenId.value) ?? all[0] ?? null
  })
  const units = computed<Units>(() => (kitchen.value?.units === 'us' ? 'us' : 'metric'))
  /** Whether the person may do something here, as `stock.edit`: the server's table of roles and rights. */
  const may = (right: string): boolean => kitchen.value?.rights.includes(right) ?? false

  watch(
    theme,
    (now) => {
      document.documentElement.dataset.theme = now
    },
    { immediate: true },
  )

  /** Ask the server who is here; false when nobody is signed in. */
  async function load(): Promise<boolean> {
    try {
      const [who, lists] = await Promise.all([settled(api.GET('/api/me')), settled(api.GET('/api/words'))])
      me.value = who
      words.value = lists
      return true
    } catch (error) {
      if (error instanceof Refusal && error.status === 401) {
        me.value = null
        return false
      }
      throw error
    }
  }

  /** A kitchen as it is now. */
  function kept(changed: Kitchen): void {
    if (me.value) me.value = { ...me.value, kitchens: me.value.kitchens.map((k) => (k.id === changed.id ? changed : k)) }
  }

  async function change(settings: KitchenSettings): Promise<void> {
    if (!kitchen.value || !me.value) return
    const { id } = kitchen.value
    const changed = await settled(api.PATCH('/api/kitchens/{kitchen_id}', { params: { path: { kitchen_id: id } }, body: settings }))
    kept(changed)
  }

  function enter(id: number): void {
    kitchenId.value = id
    localStorage.setItem('kitchen', String(id))
  }

  function toggleTheme(): void {
    theme.value = theme.value === 'dark' ? 'light' : 'dark'
    localStorage.setItem('theme', theme.value)
  }

  function forget(): void {
    me.value = null
  }

  return { me, kitchen, words, limits, theme, units, may, load, change, changed: kept, enter, toggleTheme, forget }
})
