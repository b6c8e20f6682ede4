<script setup lang="ts">
/** The people of a kitchen: an owner lets them in, changes their role, or takes them out. */
import { computed, ref } from 'vue'
import { api, settled } from '@/api/client'
import type { Kitchen, Member } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'

const props = defineProps<{ kitchen: Kitchen }>()
const path = { kitchen_id: props.kitchen.id }
const roles = ['owner', 'baker', 'viewer'] as const
const email = ref('')
const asked = useAsk(
  () => ['members', props.kitchen.id],
  () => settled(api.GET('/api/kitchens/{kitchen_id}/members', { params: { path } })),
)
const people = computed<readonly Member[]>(() => asked.answer.value ?? [])
const setting = useDo(
  ({ who, role }: { who: string; role: string }) =>
    settled(api.POST('/api/kitchens/{kitchen_id}/members', { params: { path }, body: { email: who, role } })),
  { here: true },
)
const removing = useDo(
  (id: number) => settled(api.DELETE('/api/kitchens/{kitchen_id}/members/{person_id}', { params: { path: { ...path, person_id: id } } })),
  { here: true },
)
const wrong = computed(() => setting.trouble.value || removing.trouble.value || asked.trouble.value)
const set = (who: string, role: string): Promise<unknown> => setting.run({ who, role })
const takeOut = (id: number): Promise<unknown> => removing.run(id)

async function letIn(): Promise<void> {
  if (await set(email.value, 'baker')) email.value = ''
}
</script>

<template>
  <section class="people" aria-label="People">
    <p class="note">People</p>
    <div v-for="p in people" :key="p.id" class="person">
      <span class="email">{{ p.email }}</span>
      <v-select
        :model-value="p.role"
        :aria-label="`Role of ${p.email}`"
        @update:model-value="set(p.email, $event)"
        :items="[...roles.map((role) => ({ value: role, title: role }))]"
      />
      <v-btn :aria-label="`Remove ${p.email}`" @click="takeOut(p.id)">×</v-btn>
    </div>
    <form class="person" @submit.prevent="letIn">
      <v-text-field
        v-model="email"
        class="field"
        type="email"
        required
        placeholder="e-mail of somebody signed up"
        aria-label="Let somebody in"
      />
      <v-btn type="submit" class="quiet-button">Let in</v-btn>
    </form>
    <p v-if="wrong" class="act" role="alert">{{ wrong }}</p>
  </section>
</template>

<style scoped>
.people {
  margin-top: 12px;
}

p {
  margin: 0;
}

.person {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 3px 0;
}

.email {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
}

select {
  border: 0;
  background: none;
}
</style>
