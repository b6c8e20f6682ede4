<script setup lang="ts">
/** Find an ingredient by a few letters, with the keyboard alone. */
import { computed, ref, useId, watch } from 'vue'
import { api, settled } from '@/api/client'
import type { Ingredient } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import RoleSwatch from '@/components/core/RoleSwatch.vue'

const props = defineProps<{ placeholder: string; shown?: string; label?: string }>()
const emit = defineEmits<{ pick: [key: string, item: Ingredient] }>()
const id = useId()
const text = ref(props.shown ?? '')
const at = ref(0)
const focused = ref(false)
const typing = ref(false)
watch(
  () => props.shown,
  (now) => {
    if (!typing.value) text.value = now ?? ''
  },
)

const search = computed(() => text.value.trim().slice(0, 100))
const hits = useAsk(
  () => ['ingredients', search.value, 7],
  () => settled(api.GET('/api/ingredients', { params: { query: { search: search.value, limit: 7 } } })),
  { keep: true, when: () => typing.value && search.value !== '' },
)
const found = computed<readonly Ingredient[]>(() => (typing.value && search.value ? (hits.answer.value ?? []) : []))
/** Chosen by an arrow key: what is only like the typed word is never taken by Enter alone. */
const pointed = ref(false)
function look(): void {
  typing.value = true
  pointed.value = false
  at.value = 0
}

function pick(item: Ingredient | undefined): void {
  if (!item) return
  typing.value = false
  text.value = props.shown === undefined ? '' : item.name
  emit('pick', item.id, item)
}

function onKey(event: KeyboardEvent): void {
  if ((event.key === 'ArrowDown' || event.key === 'ArrowUp') && found.value.length) {
    event.preventDefault()
    pointed.value = true
    at.value = (at.value + (event.key === 'ArrowDown' ? 1 : -1) + found.value.length) % found.value.length
  } else if ((event.key === 'Enter' || event.key === 'Tab') && found.value.length && focused.value) {
    if (event.key === 'Enter') event.preventDefault()
    const chosen = found.value[at.value]
    if (chosen && (!chosen.far || pointed.value)) pick(chosen)
  } else if (event.key === 'Escape') {
    typing.value = false
  }
}

function enter(event: FocusEvent): void {
  focused.value = true
  ;(event.target as HTMLInputElement).select()
}
function leave(): void {
  focused.value = false
  typing.value = false
  if (props.shown !== undefined) text.value = props.shown
}
</script>

<template>
  <div class="finder">
    <input
      v-model="text"
      class="field"
      :placeholder="placeholder"
      :aria-label="label ?? placeholder"
      role="combobox"
      :aria-expanded="found.length > 0"
      :aria-controls="id"
      :aria-activedescendant="found[at] ? `${id}-${at}` : undefined"
      autocomplete="off"
      maxlength="100"
      @input="look"
      @keydown="onKey"
      @focus="enter"
      @blur="leave"
    />
    <ul v-if="found.length" :id="id" role="listbox" :aria-label="placeholder" class="popover">
      <li
        v-for="(item, i) in found"
        :id="`${id}-${i}`"
        :key="item.id"
        role="option"
        :aria-selected="i === at"
        :class="{ on: i === at }"
        @pointerdown.prevent="pick(item)"
      >
        <RoleSwatch :role="item.role" /> {{ item.name }}
      </li>
    </ul>
  </div>
</template>

<style scoped>
.finder {
  position: relative;
  min-width: 200px;
}

ul {
  position: absolute;
  z-index: 12;
  width: max-content;
  min-width: 100%;
  margin: 4px 0 0;
  padding: 6px;
  list-style: none;
}

li {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 4px 8px;
  border-radius: 7px;
  cursor: pointer;
}

li.on {
  background: var(--select);
}
</style>
