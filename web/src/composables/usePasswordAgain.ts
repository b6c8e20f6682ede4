/** Before something that matters the service asks for the password once more: one question, then the same request again. */
import { ref, type Ref } from 'vue'
import { account, type AccountReply } from '@/api/account'
import { t } from '@/messages'

export interface PasswordAgain {
  /** The question stands open. */
  asking: Ref<boolean>
  wrong: Ref<string>
  answer: (password: string) => Promise<void>
  drop: () => void
  /** Do something, and ask for the password in between when the service wants it. */
  sure: <Data>(act: () => Promise<AccountReply<Data>>) => Promise<AccountReply<Data>>
}

export function usePasswordAgain(): PasswordAgain {
  const asking = ref(false)
  const wrong = ref('')
  let done: ((given: boolean) => void) | null = null

  function end(given: boolean): void {
    asking.value = false
    wrong.value = ''
    done?.(given)
    done = null
  }
  async function answer(password: string): Promise<void> {
    const reply = await account('auth/reauthenticate', 'POST', { password })
    if (reply.ok) end(true)
    else wrong.value = reply.errors[0]?.message ?? t('frame-use-password-again-wrong-password-try-again')
  }
  async function sure<Data>(act: () => Promise<AccountReply<Data>>): Promise<AccountReply<Data>> {
    const reply = await act()
    if (reply.pending !== 'reauthenticate') return reply
    asking.value = true
    const given = await new Promise<boolean>((settle) => {
      done = settle
    })
    return given ? act() : { ok: false, pending: '', errors: [], data: null }
  }
  return {
    asking,
    wrong,
    answer,
    drop: () => {
      end(false)
    },
    sure,
  }
}
