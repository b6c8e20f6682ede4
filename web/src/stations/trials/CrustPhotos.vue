<script setup lang="ts">
/**
 * Photos of what came out: white paper beside the crust tells the light, and the crust its lightness. Where the paper is not found,
 * or something else was taken for it, one touch shows it; a grey card is always shown by a touch.
 */
import { onBeforeUnmount, ref } from 'vue'
import { api, settled } from '@/api/client'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

const props = defineProps<{ runId: number }>()
const emit = defineEmits<{ read: [lightness: number] }>()
const session = useSession()
const tooLarge = ref('')
const kept = useAsk(
  () => ['photos', props.runId],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/runs/{run_id}/photos', { params: { path: { ...at, run_id: props.runId } } })),
)
type Touch = { x: number; y: number; reference: 'paper' | 'grey card' }
const adding = useDo(
  ({ file, touch }: { file: File; touch?: Touch }, at) =>
    settled(
      api.POST('/api/kitchens/{kitchen_id}/runs/{run_id}/photos', {
        params: { path: { ...at, run_id: props.runId }, query: touch ?? {} },
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
      showing.value = false
      if (replaced) void deleting.run(replaced)
      replaced = photo.id
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
    file && file.size > session.limits.photo_most_mb * 1e6
      ? t('trials-crust-photos-this-photo-is-too-large-mb', {
          megabytes: (file.size / 1e6).toFixed(0),
          most: session.limits.photo_most_mb,
        })
      : ''
  if (!file || tooLarge.value) return
  URL.revokeObjectURL(picked.value?.url ?? '')
  picked.value = { file, url: URL.createObjectURL(file) }
  showing.value = false
  replaced = 0
  void adding.run({ file })
}
/** The picture that was chosen last, for a touch on its paper; and what was read of it before. */
const picked = ref<{ file: File; url: string } | null>(null)
const showing = ref(false)
const reference = ref<Touch['reference']>('paper')
let replaced = 0
function touched(event: MouseEvent): void {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
  if (!picked.value || !box.width || !box.height) return
  const within = (at: number): number => Math.min(Math.max(at, 0), 1)
  const x = within((event.clientX - box.left) / box.width)
  const y = within((event.clientY - box.top) / box.height)
  void adding.run({ file: picked.value.file, touch: { x, y, reference: reference.value } })
}
onBeforeUnmount(() => URL.revokeObjectURL(picked.value?.url ?? ''))
const address = (id: number): string => `/api/kitchens/${session.kitchen?.id ?? 0}/runs/${props.runId}/photos/${id}`
</script>

<template>
  <div class="photos">
    <figure v-for="photo in kept.answer.value" :key="photo.id">
      <img :src="address(photo.id)" :alt="$t('trials-crust-photos-photo')" />
      <figcaption>
        {{ $t('trials-crust-photos-lightness', { lightness: photo.lightness.toFixed(0), error: photo.error.toFixed(0) }) }}
        {{ photo.evenness < 6 ? $t('trials-crust-photos-even') : $t('trials-crust-photos-uneven') }}
        <v-btn v-if="session.may('bakes.edit')" class="quiet-button" @click="deleting.run(photo.id)">{{
          $t('trials-crust-photos-delete')
        }}</v-btn>
      </figcaption>
    </figure>
    <label v-if="session.may('bakes.edit')" class="add"
      ><input type="file" accept="image/*" class="visually-hidden" :disabled="adding.busy.value" @change="take" />{{
        adding.busy.value ? $t('trials-crust-photos-reading-the-photo') : $t('trials-crust-photos-a-photo')
      }}</label
    >
    <v-btn v-if="picked && !showing && !adding.trouble.value" class="quiet-button" @click="showing = true">{{
      $t('trials-crust-photos-mark-the-paper')
    }}</v-btn>
    <span class="note">{{ $t('trials-crust-photos-take-it-from-above-with-a') }}</span>
    <p v-if="adding.trouble.value || tooLarge" role="alert" class="act">{{ adding.trouble.value || tooLarge }}</p>
    <div v-if="picked && (showing || adding.trouble.value)" class="touch">
      <div class="which">
        {{ $t('trials-crust-photos-tap-the') }}
        <v-radio-group v-model="reference" inline hide-details density="compact">
          <v-radio value="paper" :label="$t('trials-crust-photos-white-paper')" /><v-radio
            value="grey card"
            :label="$t('trials-crust-photos-gray-card')"
          />
        </v-radio-group>
        {{ $t('trials-crust-photos-in-the-photo') }}
      </div>
      <button
        type="button"
        :disabled="adding.busy.value"
        :aria-label="$t('trials-crust-photos-position-of-the', { reference })"
        @click="touched"
      >
        <img :src="picked.url" alt="" />
      </button>
    </div>
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

.touch {
  flex-basis: 100%;
}

.which {
  display: flex;
  align-items: center;
  gap: 10px;
}

.which :deep(.v-input) {
  flex: none;
}

.touch button {
  cursor: crosshair;
}

.touch img {
  height: auto;
  max-width: 100%;
  max-height: 420px;
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
