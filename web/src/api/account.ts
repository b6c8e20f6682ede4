/** Sign-up, sign-in and sign-out by the headless account service. */
import { csrfToken } from './client'

interface AccountError {
  message: string
  param?: string
}

export interface AccountReply {
  ok: boolean
  errors: AccountError[]
}

async function send(path: string, method: 'POST' | 'DELETE', body?: object): Promise<AccountReply> {
  const response = await fetch(`/_allauth/browser/v1/${path}`, {
    method,
    headers: { 'Content-Type': 'application/json', 'X-CSRFToken': csrfToken() },
    body: body ? JSON.stringify(body) : undefined,
  }).catch(() => null)
  if (response === null) return { ok: false, errors: [{ message: 'The server cannot be reached. Try again in a moment.' }] }
  if (response.ok) return { ok: true, errors: [] }
  if (response.status === 429) return { ok: false, errors: [{ message: 'Too many tries. Wait a few minutes, then try again.' }] }
  // 401 after a sign-out is the expected answer: nobody is signed in any more.
  if (response.status === 401 && method === 'DELETE') return { ok: true, errors: [] }
  const reply = (await response.json().catch(() => ({}))) as { errors?: AccountError[] }
  return { ok: false, errors: reply.errors ?? [{ message: 'That did not work. Try again.' }] }
}

export const signIn = (email: string, password: string): Promise<AccountReply> => send('auth/login', 'POST', { email, password })
export const signUp = (email: string, password: string): Promise<AccountReply> => send('auth/signup', 'POST', { email, password })
export const signOut = (): Promise<AccountReply> => send('auth/session', 'DELETE')
