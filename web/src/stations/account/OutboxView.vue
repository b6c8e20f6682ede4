<script setup lang="ts">
/** Without a mail server letters end here: everybody's letter box on this machine, newest first, looked at every few seconds. */
import { onBeforeUnmount, onMounted, ref } from 'vue'
import { api, settled } from '@/api/client'
import { sentenceOf } from '@/api/policy'
import type { LetterSeen } from '@/api/types'

const EVERY_MS = 2500
const letters = ref<LetterSeen[]>([])
const trouble = ref('')
const looked = ref(false)
let timer = 0

async function look(): Promise<void> {
  try {
    letters.value = await settled(api.GET('/api/outbox'))
    trouble.value = ''
  } catch (error) {
    trouble.value = sentenceOf(error)
  }
  looked.value = true
}
onMounted(() => {
  void look()
  timer = window.setInterval(() => void look(), EVERY_MS)
})
onBeforeUnmount(() => {
  window.clearInterval(timer)
})
/** Links in a letter can be followed. */
const parts = (text: string): { text: string; link: boolean }[] =>
  text.split(/(https?:\/\/\S+)/).map((part, n) => ({ text: part, link: n % 2 === 1 }))
</script>

<template>
  <main class="page">
    <h1>{{ $t('account-outbox-view-outbox') }}</h1>
    <p class="note">{{ $t('account-outbox-view-no-mail-server-is-set-up') }}</p>
    <p v-if="trouble" class="act" role="alert">{{ trouble }}</p>
    <p v-else-if="looked && !letters.length" class="note">{{ $t('account-outbox-view-no-emails-yet') }}</p>
    <article v-for="(letter, n) in letters" :key="`${letter.at} ${n}`">
      <h2>{{ letter.subject }}</h2>
      <p class="note">{{ $t('account-outbox-view-to', { to: letter.to, to_locale_string: new Date(letter.at).toLocaleString() }) }}</p>
      <p class="text">
        <template v-for="(part, m) in parts(letter.text)" :key="m">
          <a v-if="part.link" :href="part.text">{{ part.text }}</a>
          <span v-else>{{ part.text }}</span>
        </template>
      </p>
    </article>
  </main>
</template>

<style scoped>
.page {
  max-width: 760px;
  height: 100vh;
  margin: 0 auto;
  padding: 24px;
  overflow-y: auto;
}

article {
  padding: 12px 0;
  border-top: 1px solid var(--rule);
}

h2 {
  font-size: 18px;
}

.text {
  margin: 8px 0 0;
  font: inherit;
  overflow-wrap: anywhere;
}

.text span {
  white-space: pre-wrap;
}
</style>
