<script setup lang="ts">
/** A second factor: an authenticator with its recovery codes, and passkeys. */
import { computed, ref } from 'vue'
import { account, addPasskey, passkeysHere } from '@/api/account'
import { day, type Doing, type Factor } from './factors'

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
    'Two-step verification is on.',
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
    'New recovery codes; the former ones are no longer good.',
  )
  await showSpare()
  emit('changed')
}
async function dropFactor(): Promise<void> {
  await props.doing(() => account('account/authenticators/totp', 'DELETE'), 'Two-step verification is off.')
  emit('changed')
}
async function makePasskey(): Promise<void> {
  await props.doing(() => addPasskey(navigator.platform || 'this device'), 'Passkey added.')
  emit('changed')
}
async function dropPasskey(id: number): Promise<void> {
  await props.doing(() => account('account/authenticators/webauthn', 'DELETE', { authenticators: [id] }), 'Passkey removed.')
  emit('changed')
}
</script>

<template>
  <section aria-label="Two-step verification">
    <h3>Two-step verification</h3>
    <template v-if="totp">
      <p>
        On since {{ day(totp.created_at) }}. Signing in needs a code from your authenticator app.
        <span class="note">Recovery codes left: {{ left }}</span>
      </p>
      <v-btn class="quiet-button" @click="showSpare">Show the recovery codes</v-btn>
      <v-btn class="quiet-button" @click="newSpare">Create new recovery codes</v-btn>
      <v-btn class="quiet-button" @click="dropFactor">Turn off</v-btn>
    </template>
    <template v-else-if="secret">
      <div class="factor">
        <img :src="PICTURE" alt="QR code for your authenticator app" width="148" height="148" />
        <form @submit.prevent="endFactorSetUp">
          <p>
            Scan this with your authenticator app, or enter <code>{{ secret }}</code> into it.
          </p>
          <label>Code from the app <v-text-field v-model="factorCode" autocomplete="one-time-code" required maxlength="6" /></label>
          <v-btn type="submit" class="act-button">Turn it on</v-btn>
        </form>
      </div>
    </template>
    <template v-else>
      <p class="note">Adds a code from your phone to your password, so a guessed password is not enough to sign in.</p>
      <v-btn class="quiet-button" @click="beginFactor">Set up an authenticator</v-btn>
    </template>
    <div v-if="spare.length" class="spare">
      <p>Use a recovery code if you lose your phone. Each code works once. Store them away from your phone.</p>
      <code v-for="one in spare" :key="one">{{ one }}</code>
    </div>
    <div v-for="p in passkeys" :key="p.id" class="row">
      <span class="name"
        >Passkey “{{ p.name }}” <span class="note">since {{ day(p.created_at) }}</span></span
      >
      <v-btn class="quiet-button" @click="dropPasskey(p.id ?? 0)">Remove</v-btn>
    </div>
    <v-btn v-if="passkeysHere()" class="quiet-button" @click="makePasskey">Add a passkey of this device</v-btn>
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
