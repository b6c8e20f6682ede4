/** The scale and probe at the bench: asked often while a step needs them, and left alone otherwise. */
import { useIntervalFn } from '@vueuse/core'
import { shallowRef, watch } from 'vue'
import { api, settled } from '@/api/client'
import type { DeviceReadings } from '@/api/types'
import { useSession } from '@/stores/session'

const LOOK_MS = 300

export function useDevices(wanted: () => boolean) {
  const session = useSession()
  const shown = shallowRef<DeviceReadings | null>(null)
  let busy = false

  async function look(): Promise<void> {
    if (busy || !wanted() || !session.kitchen) return
    busy = true
    try {
      shown.value = await settled(api.GET('/api/kitchens/{kitchen_id}/devices', { params: { path: { kitchen_id: session.kitchen.id } } }))
    } catch {
      shown.value = null // without a network numbers are typed
    } finally {
      busy = false
    }
  }
  useIntervalFn(() => void look(), LOOK_MS)
  watch(wanted, (on) => {
    if (!on) shown.value = null
  })

  const tell = async (act: 'tare' | 'pour' | 'empty', grams = 0): Promise<void> => {
    await settled(
      api.POST('/api/kitchens/{kitchen_id}/devices', { params: { path: { kitchen_id: session.kitchen?.id ?? 0 } }, body: { act, grams } }),
    ).catch(() => undefined)
  }
  return { shown, tell }
}
