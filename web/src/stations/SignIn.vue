<script setup lang="ts">
/**
 * Who is here? Address and password first; what the house still wants (the code from a letter, of an authenticator) is asked in the
 * same place, one thing at a time, and the next key signs in.
 */
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api } from '@/api/client'
import { account, passkeysHere, usePasskey, type AccountReply } from '@/api/account'
import CoreThumb from '@/components/core/CoreThumb.vue'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

type Step = 'in' | 'new' | 'prove' | 'forgot' | 'renew' | 'factor'

const router = useRouter()
const route = useRoute()
const session = useSession()
const email = ref(typeof route.query.email === 'string' ? route.query.email : '')
const password = ref('')
const code = ref('')
const step = ref<Step>(route.query.new ? 'new' : 'in')
const busy = ref(false)
const wrong = ref<string[]>([])
const sample = (
  [
    ['vegetable', 0.36],
    ['base', 0.2],
    ['binder', 0.05],
    ['egg', 0.17],
    ['cheese', 0.11],
    ['liquid', 0.07],
    ['salt', 0.04],
  ] as const
).map(([role, share]) => ({ role, code: '', share }))
const LABELS: Record<Step, string> = {
  in: t('frame-sign-in-sign-in'),
  new: t('frame-sign-in-create-account'),
  prove: t('frame-sign-in-confirm-email-address'),
  forgot: t('frame-sign-in-send-code'),
  renew: t('frame-sign-in-set-new-password'),
  factor: t('frame-sign-in-sign-in'),
}
const AFTER = { verify_email: 'prove', password_reset_by_code: 'renew', mfa_authenticate: 'factor' } as const
const asksAddress = computed(() => ['in', 'new', 'forgot'].includes(step.value))
const asksPassword = computed(() => ['in', 'new', 'renew'].includes(step.value))
const asksCode = computed(() => ['prove', 'renew', 'factor'].includes(step.value))
const chooses = computed(() => step.value === 'new' || step.value === 'renew')

// Without a mail server the letters lie on this machine.
const outbox = ref(false)
watch(asksCode, async (asks) => {
  outbox.value = asks && (await api.GET('/api/outbox').catch(() => null))?.response.ok === true
})

function turn(to: Step): void {
  step.value = to
  wrong.value = []
  code.value = ''
  if (to !== 'in') password.value = ''
}
const ASKS: Record<Step, () => Promise<AccountReply>> = {
  in: () => account('auth/login', 'POST', { email: email.value.trim(), password: password.value }),
  new: () => account('auth/signup', 'POST', { email: email.value.trim(), password: password.value }),
  prove: () => account('auth/email/verify', 'POST', { key: code.value.trim() }),
  forgot: () => account('auth/password/request', 'POST', { email: email.value.trim() }),
  renew: () => account('auth/password/reset', 'POST', { key: code.value.trim(), password: password.value }),
  factor: () => account('auth/2fa/authenticate', 'POST', { code: code.value.trim() }),
}
const go = (): Promise<void> => take(ASKS[step.value]())
async function take(asked: Promise<AccountReply>): Promise<void> {
  busy.value = true
  const reply = await asked
  busy.value = false
  wrong.value = reply.errors.map((error) => error.message)
  if (reply.pending && reply.pending !== 'reauthenticate') {
    const next = AFTER[reply.pending]
    if (next !== step.value) turn(next)
    return
  }
  if (!reply.ok) return
  await session.load()
  const then = typeof route.query.then === 'string' && route.query.then.startsWith('/') ? route.query.then : '/formula'
  await router.push(then)
}
async function sendAgain(): Promise<void> {
  const reply = await account('auth/email/verify/resend', 'POST')
  wrong.value = reply.ok ? [t('frame-sign-in-a-new-code-is-on-its')] : reply.errors.map((error) => error.message)
}
</script>

<template>
  <main class="door">
    <CoreThumb class="core" :strata="sample" :width="150" :height="420" />
    <form class="form" @submit.prevent="go">
      <h1>{{ $t('frame-sign-in-substrata') }}</h1>
      <p v-if="step === 'in' || step === 'new'" class="what">{{ $t('frame-sign-in-grain-free-doughs-weighed-and-balanced') }}</p>
      <p v-else-if="step === 'prove'" class="what">
        {{ $t('frame-sign-in-we-sent-a-code-to-enter', { email: email || $t('frame-sign-in-your-address') }) }}
      </p>
      <p v-else-if="step === 'forgot'" class="what">{{ $t('frame-sign-in-we-will-email-you-a-code') }}</p>
      <p v-else-if="step === 'renew'" class="what">{{ $t('frame-sign-in-enter-the-code-from-the-email') }}</p>
      <p v-else class="what">{{ $t('frame-sign-in-enter-the-code-from-your-authenticator') }}</p>
      <label v-if="asksAddress"
        >{{ $t('frame-sign-in-e-mail') }}
        <v-text-field v-model="email" class="field" type="email" autocomplete="username webauthn" required />
      </label>
      <label v-if="asksCode"
        >{{ $t('frame-sign-in-code') }}
        <v-text-field v-model="code" class="field code" autocomplete="one-time-code" autofocus required maxlength="20" />
      </label>
      <label v-if="asksPassword"
        >{{ step === 'renew' ? $t('frame-sign-in-new-password') : $t('frame-sign-in-password') }}
        <v-text-field
          v-model="password"
          class="field"
          type="password"
          :autocomplete="chooses ? 'new-password' : 'current-password'"
          required
          :minlength="chooses ? 10 : undefined"
      /></label>
      <p v-if="chooses" class="note rule">{{ $t('frame-sign-in-use-at-least-10-characters-do') }}</p>
      <ul v-if="wrong.length" class="wrong" role="alert">
        <li v-for="w in wrong" :key="w">{{ w }}</li>
      </ul>
      <v-btn type="submit" class="act-button" :disabled="busy">{{ LABELS[step] }}</v-btn>
      <v-btn
        v-if="step === 'in' && passkeysHere()"
        class="quiet-button passkey"
        :disabled="busy"
        @click="take(usePasskey('auth/webauthn/login'))"
        >{{ $t('frame-sign-in-sign-in-with-a-passkey') }}</v-btn
      >
      <v-btn
        v-if="step === 'factor' && passkeysHere()"
        class="quiet-button passkey"
        :disabled="busy"
        @click="take(usePasskey('auth/webauthn/authenticate'))"
        >{{ $t('frame-sign-in-sign-in-with-a-passkey') }}</v-btn
      >
      <v-btn v-if="step === 'prove'" class="turn note" @click="sendAgain">{{ $t('frame-sign-in-resend-code') }}</v-btn>
      <v-btn v-if="step === 'in'" class="turn note" @click="turn('new')">{{ $t('frame-sign-in-create-account') }}</v-btn>
      <v-btn v-if="step === 'in'" class="turn note" @click="turn('forgot')">{{ $t('frame-sign-in-forgot-your-password') }}</v-btn>
      <v-btn v-if="step !== 'in'" class="turn note" @click="turn('in')">{{
        step === 'new' ? $t('frame-sign-in-sign-in-instead') : $t('frame-sign-in-back-to-sign-in')
      }}</v-btn>
      <router-link v-if="asksCode && outbox" class="turn note" to="/outbox" target="_blank">{{
        $t('frame-sign-in-emails-on-this-computer-no-mail')
      }}</router-link>
    </form>
  </main>
</template>

<style scoped>
.door {
  display: flex;
  justify-content: center;
  align-items: center;
  gap: 72px;
  min-height: 100vh;
  padding: 24px;
}

.form {
  width: 320px;
}

h1 {
  font-size: 40px;
}

.what {
  margin: 4px 0 26px;
  font-size: 18px;
  line-height: 1.35;
}

label {
  display: block;
  margin-bottom: 14px;
  font-size: 12px;
  color: var(--ink-2);
}

.field {
  margin-top: 4px;
  color: var(--ink);
  font-size: 15px;
}

.act-button {
  margin-top: 6px;
}

.turn {
  display: block;
  margin-top: 18px;
  text-decoration: underline;
  text-underline-offset: 3px;
}

.turn + .turn {
  margin-top: 6px;
}

.passkey {
  margin-left: 12px;
}

.code :deep(input) {
  font-family: var(--mono, monospace);
  letter-spacing: 0.14em;
}

.wrong {
  margin: 0 0 12px;
  padding: 0;
  list-style: none;
  color: var(--act);
}

@media (max-width: 640px) {
  .core {
    display: none;
  }
}
</style>
