<script setup lang="ts">
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { signIn, signUp } from '@/api/account'
import CoreThumb from '@/components/core/CoreThumb.vue'
import { useSession } from '@/stores/session'

const router = useRouter()
const route = useRoute()
const session = useSession()
const email = ref('')
const password = ref('')
const fresh = ref(false)
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

function turn(): void {
  fresh.value = !fresh.value
  wrong.value = []
}
async function go(): Promise<void> {
  busy.value = true
  const reply = await (fresh.value ? signUp : signIn)(email.value.trim(), password.value)
  busy.value = false
  wrong.value = reply.errors.map((error) => error.message)
  if (!reply.ok) return
  await session.load()
  const then = typeof route.query.then === 'string' && route.query.then.startsWith('/') ? route.query.then : '/formula'
  await router.push(then)
}
</script>

<template>
  <main class="door">
    <CoreThumb class="core" :strata="sample" :width="150" :height="420" />
    <form class="form" @submit.prevent="go">
      <h1>Substrata</h1>
      <p class="what">Grain-free doughs, weighed and balanced before they are baked.</p>
      <label>E-mail <v-text-field v-model="email" class="field" type="email" autocomplete="username" required /></label>
      <label
        >Password
        <v-text-field
          v-model="password"
          class="field"
          type="password"
          :autocomplete="fresh ? 'new-password' : 'current-password'"
          required
          :minlength="fresh ? 10 : undefined"
      /></label>
      <p v-if="fresh" class="note rule">At least 10 characters, not like your e-mail, and not one that everybody uses.</p>
      <ul v-if="wrong.length" class="wrong" role="alert">
        <li v-for="w in wrong" :key="w">{{ w }}</li>
      </ul>
      <v-btn type="submit" class="act-button" :disabled="busy">{{ fresh ? 'Create the account' : 'Sign in' }}</v-btn>
      <v-btn class="turn note" @click="turn">
        {{ fresh ? 'I have an account' : 'Create an account' }}
      </v-btn>
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
