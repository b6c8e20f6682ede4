// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { useOwnScale } from './useOwnScale'

const give = (way: string, value: unknown): void => {
  Object.defineProperty(navigator, way, { value, configurable: true })
}
afterEach(async () => {
  await useOwnScale().leave()
  for (const way of ['serial', 'bluetooth']) Reflect.deleteProperty(navigator, way)
})

describe('Connect a USB scale', () => {
  function plugged() {
    let send: ReadableStreamDefaultController<Uint8Array> | undefined
    const readable = new ReadableStream<Uint8Array>({ start: (controller) => void (send = controller) })
    const port = { open: vi.fn(() => Promise.resolve()), close: vi.fn(() => Promise.resolve()), readable }
    give('serial', { requestPort: () => Promise.resolve(port) })
    return { port, say: (text: string) => send?.enqueue(new TextEncoder().encode(text)), pull: () => send?.error(new Error('gone')) }
  }

  it('is offered only where the browser can read it', () => {
    expect(useOwnScale().ways).toEqual([])
    give('serial', {})
    expect(useOwnScale().ways).toEqual(['serial'])
  })

  it('is read line by line, tared here, and shared by all who ask', async () => {
    const { port, say } = plugged()
    const scale = useOwnScale()
    await scale.choose('serial')
    expect(port.open).toHaveBeenCalledWith({ baudRate: 9600 })
    say('US,GS,+  210.0 g\r\nST,GS,+  2')
    say('12.0 g\r\n')
    await flushPromises()
    expect(scale.reading.value).toEqual({ grams: 212, stable: true, overload: false })
    scale.tare()
    say('US,GS,+  262.5 g\r\n')
    await flushPromises()
    expect(useOwnScale().reading.value?.grams).toBeCloseTo(50.5)
    await scale.leave()
    expect(port.close).toHaveBeenCalled()
    expect([scale.reading.value, scale.name.value]).toEqual([null, ''])
  })

  it('that is pulled out says so, and a choice that was not made does not', async () => {
    const { pull } = plugged()
    const scale = useOwnScale()
    await scale.choose('serial')
    pull()
    await flushPromises()
    expect(scale.trouble.value).toContain('unplugged')
    expect(scale.reading.value).toBeNull()
    give('serial', { requestPort: () => Promise.reject(Object.assign(new Error('no'), { name: 'NotFoundError' })) })
    await scale.choose('serial')
    expect(scale.trouble.value).toBe('')
    give('serial', { requestPort: () => Promise.reject(new Error('busy')) })
    await scale.choose('serial')
    expect(scale.trouble.value).toBe('The scale does not respond: busy. Choose it again, or type the weight.')
  })
})

describe('Connect a Bluetooth scale', () => {
  it('is read by its service and told when it is out of reach', async () => {
    const measured = Object.assign(new EventTarget(), {
      value: undefined as DataView | undefined,
      startNotifications: () => Promise.resolve(),
    })
    const asked = vi.fn()
    const service = { getCharacteristic: (id: number) => (asked(id), Promise.resolve(measured)) }
    const server = { getPrimaryService: (id: number) => (asked(id), Promise.resolve(service)) }
    const radio = Object.assign(new EventTarget(), { name: 'Pan', gatt: { connect: () => Promise.resolve(server), disconnect: vi.fn() } })
    give('bluetooth', { requestDevice: () => Promise.resolve(radio) })
    const scale = useOwnScale()
    await scale.choose('bluetooth')
    expect(asked.mock.calls).toEqual([[0x181d], [0x2a9d]])
    expect(scale.name.value).toBe('Pan')
    measured.value = new DataView(Uint8Array.from([0, 40, 0]).buffer)
    measured.dispatchEvent(new Event('characteristicvaluechanged'))
    expect(scale.reading.value?.grams).toBe(200)
    radio.dispatchEvent(new Event('gattserverdisconnected'))
    expect(scale.reading.value).toBeNull()
    expect(scale.trouble.value).toContain('disconnected')
  })
})
