/**
 * A scale that is plugged into this computer, or near it: read by the browser itself over a serial port or Bluetooth, where the
 * browser can. Everybody who asks shares the one scale; it is tared here, since not every scale can be told to.
 */
import { computed, ref, shallowRef, type ComputedRef, type Ref } from 'vue'
import { linesOf, weightLine, weightMeasured, type WeightReading } from '@/domain/scaleLines'
import { t } from '@/messages'

interface Port {
  open: (options: { baudRate: number }) => Promise<void>
  close: () => Promise<void>
  readable: ReadableStream<Uint8Array> | null
}
interface Characteristic extends EventTarget {
  value?: DataView
  startNotifications: () => Promise<unknown>
}
interface Radio extends EventTarget {
  name?: string
  gatt?: {
    connect: () => Promise<{
      getPrimaryService: (id: number) => Promise<{ getCharacteristic: (id: number) => Promise<Characteristic> }>
    }>
    disconnect: () => void
  }
}
interface Ways {
  serial?: { requestPort: () => Promise<Port> }
  bluetooth?: { requestDevice: (wanted: { filters: { services: number[] }[] }) => Promise<Radio> }
}
type Way = 'serial' | 'bluetooth'

/** What most bench scales are set to (common practice). */
const BAUD = 9600
const SERVICE = 0x181d
const MEASUREMENT = 0x2a9d

const reading = shallowRef<WeightReading | null>(null)
const zero = ref(0)
const name = ref('')
const trouble = ref('')
let close: (() => Promise<void> | void) | null = null

const able = (): Ways => navigator as unknown as Ways

function heard(said: WeightReading | null): void {
  if (said) reading.value = said
}

function gone(): void {
  close = null
  reading.value = null
  name.value = ''
  zero.value = 0
}

async function serial(): Promise<void> {
  const port = await able().serial?.requestPort()
  if (!port) return
  await port.open({ baudRate: BAUD })
  const reader = port.readable?.getReader()
  name.value = 'USB scale'
  close = async () => {
    await reader?.cancel()
    await port.close()
    gone()
  }
  void listen(reader)
}

async function listen(reader: ReadableStreamDefaultReader<Uint8Array> | undefined): Promise<void> {
  const letters = new TextDecoder()
  let kept = ''
  try {
    for (;;) {
      const piece = await reader?.read()
      if (!piece || piece.done) break
      const { lines, rest } = linesOf(kept, letters.decode(piece.value, { stream: true }))
      kept = rest
      for (const line of lines) heard(weightLine(line))
    }
  } catch {
    trouble.value = t('frame-use-own-scale-the-scale-is-unplugged-plug-it')
  }
  reader?.releaseLock()
  gone()
}

async function bluetooth(): Promise<void> {
  const radio = await able().bluetooth?.requestDevice({ filters: [{ services: [SERVICE] }] })
  const server = await radio?.gatt?.connect()
  if (!radio || !server) return
  const measured = await (await server.getPrimaryService(SERVICE)).getCharacteristic(MEASUREMENT)
  measured.addEventListener('characteristicvaluechanged', () => {
    if (measured.value) heard(weightMeasured(measured.value))
  })
  radio.addEventListener('gattserverdisconnected', () => {
    trouble.value = t('frame-use-own-scale-the-scale-is-disconnected-move-closer')
    gone()
  })
  await measured.startNotifications()
  name.value = radio.name ?? t('frame-use-own-scale-bluetooth-scale')
  close = () => {
    radio.gatt?.disconnect()
    gone()
  }
}

export interface OwnScale {
  /** What this browser can read from. */
  ways: Way[]
  name: Ref<string>
  trouble: Ref<string>
  /** Tared; null while there is none. */
  reading: ComputedRef<WeightReading | null>
  choose: (way: Way) => Promise<void>
  leave: () => Promise<void>
  tare: () => void
}

export function useOwnScale(): OwnScale {
  async function choose(way: Way): Promise<void> {
    trouble.value = ''
    try {
      await (way === 'serial' ? serial() : bluetooth())
    } catch (error) {
      // Nothing was chosen: that is no trouble.
      if ((error as Error).name !== 'NotFoundError')
        trouble.value = t('frame-use-own-scale-the-scale-does-not-respond-choose', { message: (error as Error).message })
    }
  }
  return {
    ways: (['serial', 'bluetooth'] as const).filter((way) => able()[way]),
    name,
    trouble,
    reading: computed(() => {
      const now = reading.value
      return now?.grams == null ? now : { ...now, grams: now.grams - zero.value }
    }),
    choose,
    leave: async () => {
      await close?.()
    },
    tare: () => {
      zero.value = reading.value?.grams ?? 0
    },
  }
}
