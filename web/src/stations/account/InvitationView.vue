<script setup lang="ts">
/** Somebody asks me into a kitchen: which, as what, and am I the one? The next key comes in, or leads to signing in with the right address. */
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { signOut } from '@/api/account'
import { api, settled } from '@/api/client'
import { sentenceOf } from '@/api/policy'
import type { InvitationSeen } from '@/api/types'
import { useSession } from '@/stores/session'

const props = defineProps<{ code: string }>()
const router = useRouter()
const session = useSession()
const seen = ref<InvitationSeen | null>(null)
const trouble = ref('')
const path = { key: props.code }
const then = `/invitation/${encodeURIComponent(props.code)}`

onMounted(async () => {
  try {
    seen.value = await settled(api.GET('/api/invitations/{key}', { params: { path } }))
  } catch (error) {
    trouble.value = sentenceOf(error)
  }
})
async function come(): Promise<void> {
  try {
    const { kitchen_id } = await settled(api.POST('/api/invitations/{key}', { params: { path } }))
    await session.load()
    session.enter(kitchen_id)
    await router.push('/formula')
  } catch (error) {
    trouble.value = sentenceOf(error)
  }
}
async function other(): Promise<void> {
  await signOut()
  session.forget()
  await router.push({ name: 'sign-in', query: { then } })
}
</script>

<template>
  <main class="door">
    <div class="paper">
      <template v-if="seen">
        <p class="note">
          {{ $t('account-invitation-view-invites-to', { by: seen.by || $t('account-invitation-view-an-owner'), email: seen.email }) }}
        </p>
        <h1>{{ seen.kitchen }}</h1>
        <p>
          {{
            $t('account-invitation-view-as-the-invitation-is-valid-until', {
              role: seen.role,
              date_style: new Date(seen.valid_until).toLocaleDateString(undefined, { dateStyle: 'long' }),
            })
          }}
        </p>
        <v-btn v-if="seen.yours" class="act-button" @click="come">{{ $t('account-invitation-view-join-kitchen') }}</v-btn>
        <template v-else-if="seen.signed_in">
          <p>{{ $t('account-invitation-view-you-are-signed-in-as-the', { signed_in: seen.signed_in }) }}</p>
          <v-btn class="act-button" @click="other">{{ $t('account-invitation-view-sign-in-with-the-invited-address') }}</v-btn>
        </template>
        <template v-else>
          <router-link class="act-button link" :to="{ name: 'sign-in', query: { then } }">{{
            $t('account-invitation-view-sign-in-to-join')
          }}</router-link>
          <router-link class="quiet-button link" :to="{ name: 'sign-in', query: { then, new: '1' } }">{{
            $t('account-invitation-view-create-account')
          }}</router-link>
        </template>
      </template>
      <p v-if="trouble" class="act" role="alert">{{ trouble }}</p>
    </div>
  </main>
</template>

<style scoped>
.door {
  display: grid;
  place-items: center;
  min-height: 100vh;
  padding: 24px;
}

.paper {
  max-width: 420px;
}

h1 {
  margin: 4px 0;
  font-size: 34px;
}

.link {
  display: inline-block;
  margin-right: 14px;
  text-decoration: none;
}
</style>
