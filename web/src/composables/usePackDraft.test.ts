// @vitest-environment node
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import type { LotOut } from '@/api/types'

const server = vi.hoisted(() => {
  const asked: { body: { name: string; label: unknown; ingredient: string } }[] = []
  const replies: { answer: (reply: unknown) => void }[] = []
  return {
    asked,
    replies,
    POST: (_: string, options: { body: never }) => {
      asked.push(options)
      return new Promise((answer) => replies.push({ answer }))
    },
  }
})
vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api: { POST: server.POST } }))

const kept = new Map<string, string>()
vi.stubGlobal('localStorage', {
  getItem: (k: string) => kept.get(k) ?? null,
  setItem: (k: string, v: string) => kept.set(k, v),
  removeItem: (k: string) => kept.delete(k),
})

import { usePackDraft } from './usePackDraft'

const lot = (id: number, name: string): LotOut =>
  ({ id, document: { ingredient: 'almond-flour', name, label: null }, reading: { figures: [] } }) as unknown as LotOut
const soon = async (): Promise<void> => {
  for (let i = 0; i < 6; i++) await Promise.resolve()
}
const reply = async (n: number, data: unknown, status = 200): Promise<void> => {
  server.replies[n]?.answer({ [status < 400 ? 'data' : 'error']: data, response: { ok: status < 400, status } })
  await soon()
}

describe('a pack while it is typed', () => {
  beforeEach(() => {
    kept.clear()
    server.asked.length = server.replies.length = 0
  })

  it('starts empty for an ingredient and asks what it means', async () => {
    const pack = usePackDraft()
    pack.open(3, null, 'coconut-flour')
    expect(pack.draft.value.ingredient).toBe('coconut-flour')
    expect(server.asked[0]?.body).toMatchObject({ ingredient: 'coconut-flour', name: 'pack', label: null })
    await reply(0, { figures: [1] })
    expect(pack.reading.value).toEqual({ figures: [1] })
  })

  it('keeps what is typed over a reload and forgets it once it is saved', async () => {
    const pack = usePackDraft()
    pack.open(3, lot(5, 'Mill'), '')
    expect(pack.changed.value).toBe(false)
    pack.set({ name: 'Mill, coarse' })
    await nextTick()
    expect(pack.changed.value).toBe(true)
    const again = usePackDraft()
    again.open(3, lot(5, 'Mill'), '')
    expect(again.draft.value.name).toBe('Mill, coarse')
    again.forget()
    expect(again.changed.value).toBe(false)
    expect(kept.size).toBe(0)
  })

  it('put back as it was, is kept no longer', async () => {
    const pack = usePackDraft()
    pack.open(3, lot(6, 'Mill'), '')
    pack.set({ name: 'Other' })
    await nextTick()
    pack.set({ name: 'Mill' })
    await nextTick()
    expect(kept.size).toBe(0)
  })

  it('sends no label without a figure', () => {
    const pack = usePackDraft()
    pack.open(3, lot(7, 'Mill'), '')
    pack.setLabel({ ...pack.label.value, per_g: 28 })
    expect(pack.hasLabel.value).toBe(false)
    expect(pack.clean().label).toBeNull()
    pack.setLabel({ ...pack.label.value, figures: { fat_g: '14' } })
    expect(pack.clean().label).toMatchObject({ per_g: 28, figures: { fat_g: '14' } })
  })

  it('drops the answer for a pack that was left, and keeps the reading beside a refusal', async () => {
    const pack = usePackDraft()
    pack.open(3, null, 'egg')
    pack.open(3, null, 'salt')
    await reply(0, { figures: ['egg'] })
    expect(pack.reading.value).toBeNull()
    await reply(1, { figures: ['salt'] })
    expect(pack.reading.value).toEqual({ figures: ['salt'] })
    pack.open(3, null, 'salt')
    await reply(2, { title: 'the label cannot be read', status: 422 }, 422)
    expect(pack.refusal.value?.status).toBe(422)
  })
})
