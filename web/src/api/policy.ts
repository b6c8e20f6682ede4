/** How the page asks the server, in one place: a refusal is never asked again, a lost network is, and the newest answer wins. */
import { QueryClient } from '@tanstack/vue-query'
import { AWAY, Refusal } from './client'
import { t } from '@/messages'

/** Between two tries while the server cannot be reached. */
export const AGAIN_MS = 2000

/** The server was not reached at all: what was asked may be asked again. */
export const isLost = (error: unknown): boolean => error instanceof Refusal && (error.status === 0 || AWAY.includes(error.status))

/** What went wrong, for a person. */
export const sentenceOf = (error: unknown): string =>
  error instanceof Refusal ? error.sentence : t('frame-policy-something-went-wrong-try-again')

export const queries = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (_, error) => isLost(error),
      retryDelay: AGAIN_MS,
      networkMode: 'always',
      refetchOnWindowFocus: false,
      gcTime: 60_000,
    },
    mutations: { retry: false, networkMode: 'always' },
  },
})

/** What a kitchen was asked begins so; a change of its revision is another question. */
export const kitchenKey = (kitchenId: number): readonly ['kitchen', number] => ['kitchen', kitchenId]
