<script setup lang="ts">
/**
 * Is this account mine alone? Where it is signed in stands first, with a second factor beside it; the next key signs a browser out.
 */
import { onMounted, ref } from 'vue'
import { account, type AccountReply } from '@/api/account'
import { api, settled } from '@/api/client'
import { sentenceOf } from '@/api/policy'
import type { History } from '@/api/types'
import { day, type Factor } from './factors'
import HistoryList from './HistoryList.vue'
import SecondFactor from './SecondFactor.vue'
import { usePasswordAgain } from '@/composables/usePasswordAgain'
import { useSession } from '@/stores/session'
import { useToasts } from '@/stores/toasts'
import { t } from '@/messages'

interface Browser {
  id: number
  user_agent: string
  ip: string
  last_seen_at?: number
  created_at: number
  is_current: boolean
}

const session = useSession()
const toasts = useToasts()
const again = usePasswordAgain()
const againPassword = ref('')
const browsers = ref<Browser[]>([])
const factors = ref<Factor[]>([])
const wanted = ref('')
const emailCode = ref('')
const proving = ref(false)
const passwords = ref({ old: '', new: '' })
const endPassword = ref('')
const wrong = ref('')

/** Do it, with the password once more if it is wanted; what is refused is said. */
async function doing<Data>(act: () => Promise<AccountReply<Data>>, done?: string): Promise<AccountReply<Data>> {
  wrong.value = ''
  const reply = await again.sure(act)
  againPassword.value = ''
  if (reply.ok && done) toasts.show(done)
  else if (!reply.ok && !reply.pending) wrong.value = reply.errors.map((e) => e.message).join(' ')
  return reply
}
async function look(): Promise<void> {
  const [seen, held] = await Promise.all([account<Browser[]>('auth/sessions', 'GET'), account<Factor[]>('account/authenticators', 'GET')])
  browsers.value = seen.data ?? []
  factors.value = held.data ?? []
}
onMounted(look)

async function signOutOf(ids: number[]): Promise<void> {
  await doing(() => account('auth/sessions', 'DELETE', { sessions: ids }), t('account-account-view-that-device-is-signed-out'))
  await look()
}
async function changePassword(): Promise<void> {
  const reply = await doing(
    () => account('account/password/change', 'POST', { current_password: passwords.value.old, new_password: passwords.value.new }),
    t('account-account-view-password-changed'),
  )
  if (reply.ok) passwords.value = { old: '', new: '' }
  await look()
}
async function changeAddress(): Promise<void> {
  const reply = await doing(() => account('account/email', 'POST', { email: wanted.value.trim() }))
  proving.value = reply.ok || reply.pending === 'verify_email'
}
async function proveAddress(): Promise<void> {
  const reply = await doing(
    () => account('auth/email/verify', 'POST', { key: emailCode.value.trim() }),
    t('account-account-view-email-address-changed'),
  )
  if (!reply.ok) return
  proving.value = false
  wanted.value = emailCode.value = ''
  await session.load()
}
async function end(on: boolean): Promise<void> {
  wrong.value = ''
  try {
    await settled(api.PUT('/api/account/closing', { body: { on, password: endPassword.value } }))
    endPassword.value = ''
    await session.load()
  } catch (error) {
    wrong.value = sentenceOf(error)
  }
}
const history = (before: number): Promise<History> => settled(api.GET('/api/account/history', { params: { query: { before } } }))
/** Browser and system of a user agent, as a person names them. */
function named(agent: string): string {
  const browser = /(Firefox|Edg|OPR|Chrome|Safari)\/(\d+)/.exec(agent)
  const system = /(Windows|Android|iPhone|iPad|Mac OS X|Linux)/.exec(agent)
  return browser
    ? `${browser[1]} ${browser[2]}${system ? ' ' + t('account-account-view-on', { system: system[1] }) : ''}`
    : agent.slice(0, 60) || t('account-account-view-an-unknown-browser')
}
</script>

<template>
  <div class="page">
    <h2>{{ $t('account-account-view-your-account') }}</h2>
    <p class="note">{{ session.me?.email }}</p>
    <p v-if="session.me?.erased_at" class="act" role="status">
      {{
        $t('account-account-view-this-account-will-be-deleted-on', {
          date_style: new Date(session.me.erased_at).toLocaleDateString(undefined, { dateStyle: 'long' }),
        })
      }}
      <v-btn class="quiet-button" @click="end(false)">{{ $t('account-account-view-keep-account') }}</v-btn>
    </p>
    <form v-if="again.asking.value" class="again" @submit.prevent="again.answer(againPassword)">
      <label
        >{{ $t('account-account-view-confirm-your-password') }}
        <v-text-field v-model="againPassword" type="password" autocomplete="current-password" autofocus required />
      </label>
      <v-btn type="submit" class="act-button">{{ $t('account-account-view-continue') }}</v-btn>
      <v-btn class="quiet-button" @click="again.drop()">{{ $t('account-account-view-cancel') }}</v-btn>
      <p v-if="again.wrong.value" class="act" role="alert">{{ again.wrong.value }}</p>
    </form>
    <p v-if="wrong" class="act" role="alert">{{ wrong }}</p>
    <div class="columns">
      <div>
        <section :aria-label="$t('account-account-view-signed-in-devices')">
          <h3>{{ $t('account-account-view-signed-in-devices') }}</h3>
          <div v-for="b in browsers" :key="b.id" class="row">
            <span class="name"
              >{{ named(b.user_agent) }}
              <span class="note">{{ $t('account-account-view-since', { ip: b.ip, created_at: day(b.created_at) }) }}</span></span
            >
            <span v-if="b.is_current" class="note">{{ $t('account-account-view-this-device') }}</span>
            <v-btn v-else class="quiet-button" @click="signOutOf([b.id])">{{ $t('account-account-view-sign-out-this-device') }}</v-btn>
          </div>
          <v-btn
            v-if="browsers.length > 2"
            class="quiet-button"
            @click="signOutOf(browsers.filter((b) => !b.is_current).map((b) => b.id))"
            >{{ $t('account-account-view-sign-out-all-other-devices') }}</v-btn
          >
        </section>
        <SecondFactor :factors="factors" :doing="doing" @changed="look" />
      </div>
      <div>
        <section :aria-label="$t('account-account-view-password')">
          <h3>{{ $t('account-account-view-password') }}</h3>
          <form class="stack" @submit.prevent="changePassword">
            <label
              >{{ $t('account-account-view-current-password') }}
              <v-text-field v-model="passwords.old" type="password" autocomplete="current-password" required
            /></label>
            <label
              >{{ $t('account-account-view-new-password') }}
              <v-text-field v-model="passwords.new" type="password" autocomplete="new-password" required :minlength="10" />
            </label>
            <v-btn type="submit" class="quiet-button">{{ $t('account-account-view-change-password') }}</v-btn>
          </form>
        </section>
        <section :aria-label="$t('account-account-view-email-address')">
          <h3>{{ $t('account-account-view-email-address') }}</h3>
          <form v-if="!proving" class="stack" @submit.prevent="changeAddress">
            <label
              >{{ $t('account-account-view-sign-in-with') }}
              <v-text-field v-model="wanted" type="email" :placeholder="session.me?.email" required
            /></label>
            <v-btn type="submit" class="quiet-button">{{ $t('account-account-view-send-code') }}</v-btn>
          </form>
          <form v-else class="stack" @submit.prevent="proveAddress">
            <label
              >{{ $t('account-account-view-the-code-sent-to', { wanted }) }}
              <v-text-field v-model="emailCode" autocomplete="one-time-code" required
            /></label>
            <v-btn type="submit" class="act-button">{{ $t('account-account-view-this-address-is-mine') }}</v-btn>
          </form>
        </section>
        <section v-if="!session.me?.erased_at" :aria-label="$t('account-account-view-delete-account')">
          <h3>{{ $t('account-account-view-delete-account') }}</h3>
          <p class="note">
            {{ $t('account-account-view-kitchens-with-no-other-owner-are') }}
            <router-link to="/kitchen">{{ $t('account-account-view-download-your-files') }}</router-link>
            {{ $t('account-account-view-first') }}
          </p>
          <form class="stack" @submit.prevent="end(true)">
            <label
              >{{ $t('account-account-view-password') }}
              <v-text-field v-model="endPassword" type="password" autocomplete="current-password" required
            /></label>
            <v-btn type="submit" class="quiet-button end">{{ $t('account-account-view-delete-account') }}</v-btn>
          </form>
        </section>
      </div>
    </div>
    <section :aria-label="$t('account-account-view-activity')">
      <h3>{{ $t('account-account-view-activity') }}</h3>
      <HistoryList :ask="history" />
    </section>
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  padding: 16px 24px 60px;
  overflow-y: auto;
}

.page > p {
  margin: 2px 0 8px;
}

h3 {
  margin: 18px 0 6px;
  font-size: 17px;
}

.columns {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 0 48px;
}

.columns,
.page > section {
  max-width: 1000px;
}

.row {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}

.name {
  flex: 1;
}

section > .quiet-button {
  margin: 0 8px 6px 0;
}

label {
  display: block;
  font-size: 12px;
  color: var(--ink-2);
}

.stack {
  display: grid;
  gap: 8px;
  justify-items: start;
}

.stack label {
  width: 100%;
  max-width: 320px;
}

.again {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 12px;
  max-width: 640px;
  margin-bottom: 8px;
  padding: 12px 14px;
  border-radius: 8px;
  background: var(--panel);
}

.end {
  color: var(--act);
}

@media (max-width: 800px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
