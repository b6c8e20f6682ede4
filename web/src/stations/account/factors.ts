/** What a second factor is, and how something is done that may ask for the password once more. */
import type { AccountReply } from '@/api/account'

export interface Factor {
  type: 'totp' | 'recovery_codes' | 'webauthn'
  id?: number
  name?: string
  unused_code_count?: number
  created_at: number
}
export type Doing = <Data>(act: () => Promise<AccountReply<Data>>, done?: string) => Promise<AccountReply<Data>>
export const day = (seconds: number): string => new Date(seconds * 1000).toLocaleDateString(undefined, { dateStyle: 'medium' })
