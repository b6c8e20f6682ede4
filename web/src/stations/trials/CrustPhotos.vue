<script setup lang="ts">
/** Photos of what came out: white paper beside the crust tells the light, and the crust its lightness. */
import { ref } from 'vue'
import { api, settled } from '@/api/client'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { useSession } from '@/stores/session'

const props = defineProps<{ runId: number }>()
const emit = defineEmits<{ read: [lightness: number] }>()
const session = useSession()
const MOST_MB = 25
const tooLarge = ref('')
const kept = useAsk(
  () => ['photos', props.runId],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/runs/{run_id}/photos', { params: { path: { ...at, run_id: props.runId } } })),
)
const adding = useDo(
  (file: File, at) =>
    settled(
      api.POST('/api/kitchens/{kitchen_id}/runs/{run_id}/photos', {
        params: { path: { ...at, run_id: props.runId } },
        body: { photo: file as never },
        bodySerializer: () => {
          const form = new FormData()
          form.append('photo', file)
          return form
        },
      }),
    ),
  {
    here: true,
    then: (photo) => {
      emit('read', Math.round(photo.lightness * 10) / 10)
    },
  },
)
const deleting = useDo((photo_id: number, at) =>
  settled(
    api.DELETE('/api/kitchens/{kitchen_id}/runs/{run_id}/photos/{photo_id}', {
      params: { path: { ...at, run_id: props.runId, photo_id } },
    }),
  ),
)
function take(event: Event): void {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  tooLarge.value =
    file && file.size > MOST_MB * 1e6 ? `The photo is too large: ${(file.size / 1e6).toFixed(0)} MB. Up to ${MOST_MB} MB.` : ''
  if (file && !tooLarge.value) void adding.run(file)
}
const address = (id: number): string => `/api/kitchens/${session.kitchen?.id ?? 0}/runs/${props.runId}/photos/${id}`
</script>

<template>
  <div class="photos">
    <figure v-for="photo in kept.answer.value" :key="photo.id">
      <img :src="address(photo.id)" alt="What came out" />
      <figcaption>
        L* {{ photo.lightness.toFixed(0) }} ± {{ photo.error.toFixed(0) }}, {{ photo.evenness < 6 ? 'even' : 'uneven' }}
        <v-btn v-if="session.mayEdit" class="quiet-button" @click="deleting.run(photo.id)">Delete</v-btn>
      </figcaption>
    </figure>
    <label v-if="session.mayEdit" class="add"
      ><input type="file" accept="image/*" class="visually-hidden" :disabled="adding.busy.value" @change="take" />{{
        adding.busy.value ? 'Reading it …' : 'A photo'
      }}</label
    >
    <span class="note">from above, a sheet of white paper beside the crust, no flash</span>
    <p v-if="adding.trouble.value || tooLarge" role="alert" class="act">{{ adding.trouble.value || tooLarge }}</p>
  </div>
</template>

<style scoped>
.photos {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}

figure {
  margin: 0;
}

img {
  display: block;
  height: 110px;
  border-radius: 10px;
}

.add {
  display: inline-flex;
  align-items: center;
  min-height: 48px;
  padding: 4px 16px;
  border: 1px solid var(--rule-strong);
  border-radius: 12px;
  background: var(--panel);
  cursor: pointer;
}

.add:focus-within {
  outline: 2px solid var(--focus);
}

p {
  flex-basis: 100%;
  margin: 0;
}
</style>
