/** Signing in and everything about one's own account, by the headless account service. */
import { csrfToken } from './client'
import { t } from '@/messages'

interface AccountError {
  message: string
  param?: string
}

/** What is still to be done before the answer counts. */
type Pending = '' | 'verify_email' | 'password_reset_by_code' | 'mfa_authenticate' | 'reauthenticate'

export interface AccountReply<Data = unknown> {
  ok: boolean
  pending: Pending
  errors: AccountError[]
  data: Data | null
}

interface Answer {
  data?: { flows?: { id: string; is_pending?: boolean }[] }
  meta?: { is_authenticated?: boolean } & Record<string, unknown>
  errors?: AccountError[]
}
type Method = 'GET' | 'POST' | 'PUT' | 'DELETE'

const failed = (message: string): AccountReply<never> => ({ ok: false, pending: '', errors: [{ message }], data: null })

function stillToDo(answer: Answer): Pending {
  const flows = answer.data?.flows ?? []
  // Signed in, and asked once more for the password before something that matters.
  if (answer.meta?.is_authenticated && flows.some((flow) => flow.id === 'reauthenticate')) return 'reauthenticate'
  return (flows.find((flow) => flow.is_pending)?.id as Pending | undefined) ?? ''
}

export async function account<Data = unknown>(path: string, method: Method, body?: object): Promise<AccountReply<Data>> {
  const response = await fetch(`/_allauth/browser/v1/${path}`, {
    method,
    headers: { 'Content-Type': 'application/json', 'X-CSRFToken': csrfToken() },
    body: body ? JSON.stringify(body) : undefined,
  }).catch(() => null)
  if (response === null) return failed(t('frame-account-the-server-cannot-be-reached-try'))
  if (response.status === 429) return failed(t('frame-account-too-many-attempts-wait-a-few'))
  if (response.status === 409) return failed(t('frame-account-your-session-has-expired-start-again'))
  const answer = (await response.json().catch(() => ({}))) as Answer
  if (response.ok) return { ok: true, pending: '', errors: [], data: (answer.data ?? null) as Data | null }
  // An authenticator that is not set up yet answers with its secret.
  if (response.status === 404 && answer.meta) return { ok: true, pending: '', errors: [], data: answer.meta as Data }
  // 401 after a sign-out is the expected answer: nobody is signed in any more.
  if (response.status === 401 && method === 'DELETE' && !answer.meta?.is_authenticated)
    return { ok: true, pending: '', errors: [], data: null }
  const pending = response.status === 401 ? stillToDo(answer) : ''
  if (pending) return { ok: false, pending, errors: [], data: null }
  return { ok: false, pending: '', errors: answer.errors ?? [{ message: t('frame-account-something-went-wrong-try-again') }], data: null }
}

export const signOut = (): Promise<AccountReply> => account('auth/session', 'DELETE')

const PASSKEYS = 'PublicKeyCredential' in globalThis && 'parseRequestOptionsFromJSON' in PublicKeyCredential
/** Whether this browser can use passkeys in the way the service speaks of them. */
export const passkeysHere = (): boolean => PASSKEYS

interface Asking {
  request_options?: { publicKey: PublicKeyCredentialRequestOptionsJSON }
  creation_options?: { publicKey: PublicKeyCredentialCreationOptionsJSON }
}
const withdrawn = (): AccountReply => failed(t('frame-account-the-passkey-was-not-used'))

/** Sign in with a passkey, or give one as the second factor. */
export async function usePasskey(path: 'auth/webauthn/login' | 'auth/webauthn/authenticate'): Promise<AccountReply> {
  const asked = await account<Asking>(path, 'GET')
  if (!asked.data?.request_options) return asked
  const publicKey = PublicKeyCredential.parseRequestOptionsFromJSON(asked.data.request_options.publicKey)
  const credential = (await navigator.credentials.get({ publicKey }).catch(() => null)) as PublicKeyCredential | null
  return credential ? account(path, 'POST', { credential: credential.toJSON() }) : withdrawn()
}

/** Make a passkey of this device. */
export async function addPasskey(name: string): Promise<AccountReply> {
  const asked = await account<Asking>('account/authenticators/webauthn?passwordless', 'GET')
  if (!asked.data?.creation_options) return asked
  const publicKey = PublicKeyCredential.parseCreationOptionsFromJSON(asked.data.creation_options.publicKey)
  const credential = (await navigator.credentials.create({ publicKey }).catch(() => null)) as PublicKeyCredential | null
  return credential ? account('account/authenticators/webauthn', 'POST', { name, credential: credential.toJSON() }) : withdrawn()
}
