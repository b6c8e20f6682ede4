<script setup lang="ts">
/** One formula of the kitchen, found by a few letters: however many there are, all can be had. */
import { refDebounced } from '@vueuse/core'
import { computed, ref } from 'vue'
import { api, settled } from '@/api/client'
import { useAsk } from '@/composables/useAsk'
import { t } from '@/messages'

defineProps<{ label: string; placeholder?: string }>()
const chosen = defineModel<number | null>({ default: null })
const letters = ref('')
const settledLetters = refDebounced(letters, 150)
const shelf = useAsk(
  () => [t('frame-formula-picker-formula-picker'), settledLetters.value],
  (at) =>
    settled(
      api.GET('/api/kitchens/{kitchen_id}/formulas', {
        params: { path: at, query: { search: settledLetters.value.slice(0, 100), limit: 30 } },
      }),
    ),
  { keep: true },
)
const items = computed(() => (shelf.answer.value?.items ?? []).map((f) => ({ value: f.id, title: f.name })))
</script>

<template>
  <v-autocomplete
    v-model="chosen"
    v-model:search="letters"
    :items="items"
    :aria-label="label"
    :placeholder="placeholder ?? label"
    no-filter
    hide-no-data
    auto-select-first
  />
</template>
