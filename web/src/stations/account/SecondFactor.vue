<script setup lang="ts">
/** A second factor: an authenticator with its recovery codes, and passkeys. */
import { computed, ref } from 'vue'
import { account, addPasskey, passkeysHere } from '@/api/account'
import { day, type Doing, type Factor } from './factors'
import { t } from '@/messages'

const props = defineProps<{ factors: Factor[]; doing: Doing }>()
const emit = defineEmits<{ changed: [] }>()
const secret = ref('')
const factorCode = ref('')
const spare = ref<string[]>([])
const PICTURE = '/api/account/second-factor.svg'
const totp = computed(() => props.factors.find((f) => f.type === 'totp'))
const passkeys = computed(() => props.factors.filter((f) => f.type === 'webauthn'))
const left = computed(() => props.factors.find((f) => f.type === 'recovery_codes')?.unused_code_count ?? 0)
async function beginFactor(): Promise<void> {
  const reply = await props.doing(() => account<{ secret: string }>('account/authenticators/totp', 'GET'))
  secret.value = reply.data?.secret ?? ''
}
async function endFactorSetUp(): Promise<void> {
  const reply = await props.doing(
    () => account('account/authenticators/totp', 'POST', { code: factorCode.value.trim() }),
    t('account-second-factor-two-step-verification-is-on'),
  )
  if (!reply.ok) return
  secret.value = factorCode.value = ''
  emit('changed')
  await showSpare()
}
async function showSpare(): Promise<void> {
  const reply = await props.doing(() => account<{ unused_codes: string[] }>('account/authenticators/recovery-codes', 'GET'))
  spare.value = reply.data?.unused_codes ?? []
}
async function newSpare(): Promise<void> {
  await props.doing(
    () => account('account/authenticators/recovery-codes', 'POST'),
    t('account-second-factor-new-recovery-codes-the-former-ones'),
  )
  await showSpare()
  emit('changed')
}
async function dropFactor(): Promise<void> {
  await props.doing(() => account('account/authenticators/totp', 'DELETE'), t('account-second-factor-two-step-verification-is-off'))
  emit('changed')
}
async function makePasskey(): Promise<void> {
  await props.doing(
    () => addPasskey(navigator.platform || t('account-second-factor-this-device')),
    t('account-second-factor-passkey-added'),
  )
  emit('changed')
}
async function dropPasskey(id: number): Promise<void> {
  await props.doing(
    () => account('account/authenticators/webauthn', 'DELETE', { authenticators: [id] }),
    t('account-second-factor-passkey-removed'),
  )
  emit('changed')
}
</script>

<template>
  <section :aria-label="$t('account-second-factor-two-step-verification')">
    <h3>{{ $t('account-second-factor-two-step-verification') }}</h3>
    <template v-if="totp">
      <p>
        {{ $t('account-second-factor-on-since-signing-in-needs-a', { created_at: day(totp.created_at) }) }}
        <span class="note">{{ $t('account-second-factor-recovery-codes-left', { left }) }}</span>
      </p>
      <v-btn class="quiet-button" @click="showSpare">{{ $t('account-second-factor-show-the-recovery-codes') }}</v-btn>
      <v-btn class="quiet-button" @click="newSpare">{{ $t('account-second-factor-create-new-recovery-codes') }}</v-btn>
      <v-btn class="quiet-button" @click="dropFactor">{{ $t('account-second-factor-turn-off') }}</v-btn>
    </template>
    <template v-else-if="secret">
      <div class="factor">
        <img :src="PICTURE" :alt="$t('account-second-factor-qr-code-for-your-authenticator-app')" width="148" height="148" />
        <form @submit.prevent="endFactorSetUp">
          <p>
            {{ $t('account-second-factor-scan-this-with-your-authenticator-app') }} <code>{{ secret }}</code>
            {{ $t('account-second-factor-into-it') }}
          </p>
          <label
            >{{ $t('account-second-factor-code-from-the-app') }}
            <v-text-field v-model="factorCode" autocomplete="one-time-code" required maxlength="6"
          /></label>
          <v-btn type="submit" class="act-button">{{ $t('account-second-factor-turn-it-on') }}</v-btn>
        </form>
      </div>
    </template>
    <template v-else>
      <p class="note">{{ $t('account-second-factor-adds-a-code-from-your-phone') }}</p>
      <v-btn class="quiet-button" @click="beginFactor">{{ $t('account-second-factor-set-up-an-authenticator') }}</v-btn>
    </template>
    <div v-if="spare.length" class="spare">
      <p>{{ $t('account-second-factor-use-a-recovery-code-if-you') }}</p>
      <code v-for="one in spare" :key="one">{{ one }}</code>
    </div>
    <div v-for="p in passkeys" :key="p.id" class="row">
      <span class="name"
        >{{ $t('account-second-factor-passkey', { name: p.name }) }}
        <span class="note">{{ $t('account-second-factor-since', { created_at: day(p.created_at) }) }}</span></span
      >
      <v-btn class="quiet-button" @click="dropPasskey(p.id ?? 0)">{{ $t('account-second-factor-remove') }}</v-btn>
    </div>
    <v-btn v-if="passkeysHere()" class="quiet-button" @click="makePasskey">{{
      $t('account-second-factor-add-a-passkey-of-this-device')
    }}</v-btn>
  </section>
</template>

<style scoped>
h3 {
  margin: 18px 0 6px;
  font-size: 17px;
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

.factor {
  display: flex;
  gap: 20px;
}

.factor img {
  flex: none;
  padding: 6px;
  background: #fff;
}

.factor label {
  max-width: 180px;
  margin-bottom: 8px;
}

code {
  overflow-wrap: anywhere;
}

.spare {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(110px, 1fr));
  gap: 4px 16px;
  margin: 10px 0;
  padding: 10px 14px;
  border-radius: 8px;
  background: var(--panel);
}

.spare p {
  grid-column: 1 / -1;
  margin: 0;
}
</style>
