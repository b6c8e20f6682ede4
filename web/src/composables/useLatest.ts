/**
 * Ask a question again and again while what it is about changes under a finger.
 *
 * One question is on its way at a time and only the newest waits behind it, so answers come as fast as the
 * server gives them and never in the wrong order; an answer asked before `clear` is dropped.
 */
import { shallowRef, type ShallowRef } from 'vue'
import { Refusal } from '@/api/client'
import { AGAIN_MS, isLost } from '@/api/policy'

export interface Latest<Question, Answer> {
  answer: ShallowRef<Answer | null>
  refusal: ShallowRef<Refusal | null>
  ask: (question: Question) => void
  clear: () => void
}

export function useLatest<Question, Answer>(
  reply: (question: Question) => Promise<Answer>,
  onAnswer: (answer: Answer, question: Question) => void = () => undefined,
): Latest<Question, Answer> {
  const answer = shallowRef<Answer | null>(null)
  const refusal = shallowRef<Refusal | null>(null)
  let waiting: { question: Question } | null = null
  let busy = false
  let epoch = 0

  function ask(question: Question): void {
    waiting = { question }
    if (!busy) void run()
  }

  async function run(): Promise<void> {
    busy = true
    while (waiting) {
      const { question } = waiting
      waiting = null
      const asked = epoch
      try {
        const found = await reply(question)
        if (asked === epoch) {
          answer.value = found
          refusal.value = null
          onAnswer(found, question)
        }
      } catch (error) {
        if (!(error instanceof Refusal)) {
          busy = false
          throw error
        }
        if (asked !== epoch) continue
        refusal.value = error
        // The network was lost: the newest question is asked again by itself.
        if (isLost(error)) {
          waiting ??= { question }
          await new Promise((again) => setTimeout(again, AGAIN_MS))
        }
      }
    }
    busy = false
  }

  function clear(): void {
    epoch++
    waiting = null
    answer.value = null
    refusal.value = null
  }

  return { answer, refusal, ask, clear }
}
