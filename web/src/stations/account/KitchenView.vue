<script setup lang="ts">
/**
 * Who may work here, and what have they done? The people first, then who is asked in; the next key sends a letter. An owner sees what
 * happened; ending the kitchen lies at the foot and takes its name.
 */
import { computed, ref } from 'vue'
import { api, settled } from '@/api/client'
import type { History, Invitation, Member } from '@/api/types'
import HistoryList from './HistoryList.vue'
import { useAsk } from '@/composables/useAsk'
import { useFiles } from '@/composables/useDocumentFiles'
import { useDo } from '@/composables/useDo'
import { useSession } from '@/stores/session'
import { useToasts } from '@/stores/toasts'
import { t } from '@/messages'

const session = useSession()
const toasts = useToasts()
const files = useFiles()
const roles = ['owner', 'baker', 'viewer'] as const
const MAY = {
  owner: t('account-kitchen-view-can-do-everything-including-members'),
  baker: t('account-kitchen-view-can-edit-formulas-packs-and-bakes'),
  viewer: t('account-kitchen-view-can-view-only'),
} as const
const email = ref('')
const role = ref<(typeof roles)[number]>('baker')
const isOwner = computed(() => session.may('members.edit'))
const asked = useAsk(
  () => ['members'],
  (path) => settled(api.GET('/api/kitchens/{kitchen_id}/members', { params: { path } })),
)
const people = computed<readonly Member[]>(() => asked.answer.value ?? [])
const open = useAsk(
  () => ['invitations'],
  (path) => settled(api.GET('/api/kitchens/{kitchen_id}/invitations', { params: { path } })),
  { when: () => isOwner.value },
)
const invitations = computed<readonly Invitation[]>(() => open.answer.value ?? [])
const inviting = useDo(
  (body: { email: string; role: string }, path) => settled(api.POST('/api/kitchens/{kitchen_id}/invitations', { params: { path }, body })),
  { here: true, then: () => void (email.value = '') },
)
const takingBack = useDo((id: number, path) =>
  settled(api.DELETE('/api/kitchens/{kitchen_id}/invitations/{invitation_id}', { params: { path: { ...path, invitation_id: id } } })),
)
const setting = useDo(({ who, to }: { who: number; to: string }, path) =>
  settled(
    api.PATCH('/api/kitchens/{kitchen_id}/members/{person_id}', { params: { path: { ...path, person_id: who } }, body: { role: to } }),
  ),
)
const removing = useDo((who: number, path) =>
  settled(api.DELETE('/api/kitchens/{kitchen_id}/members/{person_id}', { params: { path: { ...path, person_id: who } } })),
)
async function leave(): Promise<void> {
  if ((await removing.run(session.me?.id ?? 0)) === null) return
  toasts.show(t('account-kitchen-view-you-have-left', { name: session.kitchen?.name ?? t('account-kitchen-view-the-kitchen') }))
  await session.load()
}
const name = ref('')
const closing = useDo(
  (on: boolean, path) => settled(api.PUT('/api/kitchens/{kitchen_id}/closing', { params: { path }, body: { on, name: name.value } })),
  {
    here: true,
    then: (kitchen) => {
      session.changed(kitchen)
      name.value = ''
    },
  },
)
const history = computed(() => {
  const id = session.kitchen?.id ?? 0
  return (before: number): Promise<History> =>
    settled(api.GET('/api/kitchens/{kitchen_id}/history', { params: { path: { kitchen_id: id }, query: { before } } }))
})
const day = (at: string): string => new Date(at).toLocaleDateString(undefined, { dateStyle: 'long' })
</script>

<template>
  <div v-if="session.kitchen" class="page">
    <h2>{{ $t('account-kitchen-view-people', { is_owner: isOwner ? ' ' + $t('account-kitchen-view-and-history') : '' }) }}</h2>
    <p v-if="session.kitchen.erased_at" class="act" role="status">
      {{ $t('account-kitchen-view-this-kitchen-and-everything-in-it', { erased_at: day(session.kitchen.erased_at) }) }}
      <v-btn v-if="isOwner" class="quiet-button" @click="closing.run(false)">{{ $t('account-kitchen-view-keep-it') }}</v-btn>
    </p>
    <section :aria-label="$t('account-kitchen-view-people-of-this-kitchen')">
      <div v-for="p in people" :key="p.id" class="person">
        <span class="email"
          >{{ p.email }} <span v-if="p.id === session.me?.id" class="note">{{ $t('account-kitchen-view-you') }}</span></span
        >
        <v-select
          v-if="isOwner"
          class="role"
          :model-value="p.role"
          :aria-label="$t('account-kitchen-view-role-of', { email: p.email })"
          :items="roles.map((r) => ({ value: r, title: `${r}: ${MAY[r]}` }))"
          @update:model-value="setting.run({ who: p.id, to: $event })"
        />
        <span v-else class="role note">{{ p.role }}</span>
        <v-btn v-if="p.id === session.me?.id" class="quiet-button" @click="leave">{{ $t('account-kitchen-view-leave-kitchen') }}</v-btn>
        <v-btn
          v-else-if="isOwner"
          class="quiet-button"
          :aria-label="$t('account-kitchen-view-remove', { email: p.email })"
          @click="removing.run(p.id)"
          >{{ $t('account-kitchen-view-remove-2') }}</v-btn
        >
      </div>
      <div v-for="i in invitations" :key="`asked ${i.id}`" class="person asked">
        <span class="email"
          >{{ i.email }}
          <span class="note">{{
            $t('account-kitchen-view-asked-in-as-good-until', { role: i.role, valid_until: day(i.valid_until) })
          }}</span></span
        >
        <v-btn
          class="quiet-button"
          :aria-label="$t('account-kitchen-view-resend-invitation-to', { email: i.email })"
          @click="inviting.run({ email: i.email, role: i.role })"
          >{{ $t('account-kitchen-view-resend-invitation') }}</v-btn
        >
        <v-btn
          class="quiet-button"
          :aria-label="$t('account-kitchen-view-cancel-invitation-for', { email: i.email })"
          @click="takingBack.run(i.id)"
          >{{ $t('account-kitchen-view-cancel-invitation') }}</v-btn
        >
      </div>
      <form v-if="isOwner" class="person" @submit.prevent="inviting.run({ email, role })">
        <v-text-field
          v-model="email"
          class="email"
          type="email"
          required
          :placeholder="$t('account-kitchen-view-e-mail')"
          :aria-label="$t('account-kitchen-view-invite-a-member')"
        />
        <v-select
          v-model="role"
          class="role"
          :aria-label="$t('account-kitchen-view-as')"
          :items="roles.map((r) => ({ value: r, title: `${r}: ${MAY[r]}` }))"
        />
        <v-btn type="submit" class="act-button" :disabled="inviting.busy.value">{{ $t('account-kitchen-view-send-invitation') }}</v-btn>
      </form>
      <p v-if="inviting.trouble.value" class="act" role="alert">{{ inviting.trouble.value }}</p>
      <p v-if="isOwner" class="note">{{ $t('account-kitchen-view-they-join-when-they-open-the') }}</p>
      <p v-if="asked.trouble.value" class="act" role="alert">{{ asked.trouble.value }}</p>
    </section>
    <section v-if="isOwner" :aria-label="$t('account-kitchen-view-what-happened')">
      <h3>{{ $t('account-kitchen-view-what-happened') }}</h3>
      <HistoryList :ask="history" who />
    </section>
    <section v-if="isOwner && !session.kitchen.erased_at" :aria-label="$t('account-kitchen-view-delete-kitchen')">
      <h3>{{ $t('account-kitchen-view-delete-kitchen') }}</h3>
      <p class="note">
        {{ $t('account-kitchen-view-formulas-packs-bakes-and-photos-are', { value: ' ' })
        }}<v-btn class="word" @click="files.exportKitchen()">{{ $t('account-kitchen-view-the-whole-kitchen-as-a-file') }}</v-btn
        >{{ $t('account-kitchen-view-first', { value: ' ' }) }}
      </p>
      <form class="person" @submit.prevent="closing.run(true)">
        <v-text-field
          v-model="name"
          class="email"
          :placeholder="session.kitchen.name"
          :aria-label="$t('account-kitchen-view-type-the-kitchens-name-to-delete')"
        />
        <v-btn type="submit" class="quiet-button end" :disabled="name.trim() !== session.kitchen.name">{{
          $t('account-kitchen-view-delete-kitchen')
        }}</v-btn>
      </form>
      <p v-if="closing.trouble.value" class="act" role="alert">{{ closing.trouble.value }}</p>
    </section>
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  padding: 16px 24px 60px;
  overflow-y: auto;
}

section {
  max-width: 860px;
}

h3 {
  margin: 22px 0 6px;
  font-size: 17px;
}

.person {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}

.email {
  flex: 1 1 240px;
  overflow: hidden;
  text-overflow: ellipsis;
}

.role {
  flex: 0 0 230px;
}

.asked {
  color: var(--ink-2);
}

.end {
  color: var(--act);
}
</style>
