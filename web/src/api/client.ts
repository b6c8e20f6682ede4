/** The typed client of the contract, and the one way a refusal reaches the page. */
import createClient from 'openapi-fetch'
import type { paths } from './generated/schema'
import type { ProblemOut } from './types'
import { t } from '@/messages'

export function csrfToken(): string {
  return /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? ''
}

export const api = createClient<paths>({ baseUrl: '/' })

api.use({
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', csrfToken())
    return request
  },
})

type Trouble = Partial<ProblemOut> & Pick<ProblemOut, 'title' | 'status'>

/** What is wrong, what stood there, what may stand there and what to do, as a person says it. */
export function inWords(problem: { what: string; got?: string; allowed?: string; remedy?: string }): string {
  const sentence = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1).replace(/[.;]$/, '')}.`
  const { what, got, allowed, remedy } = problem
  return [sentence(got ? `${what}: ${got}` : what), allowed && sentence(t('frame-client-allowed', { allowed })), remedy && sentence(remedy)]
    .filter(Boolean)
    .join(' ')
}

/** A refusal of the server, or a lost connection (status 0). */
export class Refusal extends Error {
  readonly problem: Trouble

  constructor(problem: Trouble) {
    super(problem.title)
    this.problem = problem
  }

  get status(): number {
    return this.problem.status
  }

  /** Everything a person needs to put it right, in one line. */
  get sentence(): string {
    const { title, got, allowed, remedy } = this.problem
    return inWords({ what: title, got, allowed, remedy })
  }
}

/** Who wants to know whether the server was reached. */
type Listener = (reached: boolean) => void
const listeners = new Set<Listener>()
export const onReach = (listener: Listener): void => {
  listeners.add(listener)
}
const tell = (reached: boolean): void => {
  for (const listener of listeners) listener(reached)
}
/** A server that is starting, or without its database: the same as one that is not there, and it passes. */
export const AWAY: readonly number[] = [502, 503, 504]

interface Reply<T> {
  data?: T
  error?: unknown
  response: Response
}

/** Give the data, or throw a Refusal. */
export async function settled<T>(reply: Promise<Reply<T>>): Promise<T> {
  let answer: Reply<T>
  try {
    answer = await reply
  } catch {
    tell(false)
    throw new Refusal({
      title: t('frame-client-the-server-cannot-be-reached'),
      status: 0,
      remedy: t('frame-client-your-changes-are-saved-on-this'),
    })
  }
  tell(!AWAY.includes(answer.response.status))
  if (answer.response.ok) return answer.data as T
  const problem = answer.error as Trouble | undefined
  throw new Refusal({ title: t('frame-client-something-went-wrong'), status: answer.response.status, ...problem })
}
