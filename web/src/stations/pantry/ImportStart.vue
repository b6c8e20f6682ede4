<script setup lang="ts">
/** A file that is dropped or chosen, or rows that are pasted. */
import { ref } from 'vue'

const emit = defineEmits<{ read: [name: string, content: string] }>()
const text = ref('')
const over = ref(false)
async function take(files: FileList | null | undefined): Promise<void> {
  over.value = false
  const file = files?.[0]
  if (file) emit('read', file.name, await file.text())
}

/** A long list is sent as it comes: a text field that holds megabytes would only make the page slow. */
function paste(event: ClipboardEvent): void {
  const pasted = event.clipboardData?.getData('text/plain') ?? ''
  if (pasted.length < 50_000) return
  event.preventDefault()
  emit('read', 'pasted', pasted)
}
</script>

<template>
  <div
    class="start"
    :class="{ over }"
    @dragover.prevent="over = true"
    @dragleave.self="over = false"
    @drop.prevent="take($event.dataTransfer?.files)"
  >
    <p class="figure">{{ $t('pantry-import-start-drop-a-product-file-here') }}</p>
    <p class="note">{{ $t('pantry-import-start-csv-with-any-column-headers-or') }}</p>
    <label class="quiet-button"
      >{{ $t('pantry-import-start-choose-a-file') }}
      <input class="visually-hidden" type="file" accept=".csv,.json,.tsv,.txt" @change="take(($event.target as HTMLInputElement).files)"
    /></label>
    <form @submit.prevent="emit('read', 'pasted', text)">
      <v-textarea
        v-model="text"
        class="field"
        rows="8"
        :placeholder="$t('pantry-import-start-or-paste-rows-from-a-spreadsheet')"
        :aria-label="$t('pantry-import-start-rows-of-products')"
        @paste="paste"
      />
      <v-btn type="submit" class="act-button" :disabled="!text.trim()">{{ $t('pantry-import-start-read-file') }}</v-btn>
    </form>
  </div>
</template>

<style scoped>
.start {
  width: 620px;
  max-width: 90%;
  margin: 6vh auto 0;
  padding: 30px;
  border: 2px dashed var(--rule-strong);
  border-radius: 14px;
  text-align: center;
}

.start.over {
  border-color: var(--act);
  background: var(--select);
}

.start form {
  display: grid;
  gap: 10px;
  justify-items: end;
  margin-top: 18px;
}
</style>
