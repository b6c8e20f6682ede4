<script setup lang="ts">
import { ref, watch } from 'vue'
import { useBench } from '@/stores/bench'

const bench = useBench()
const text = ref('')
watch(
  () => bench.document?.notes,
  (now) => {
    text.value = now ?? ''
  },
  { immediate: true },
)

function save(): void {
  if (text.value !== (bench.document?.notes ?? '')) bench.edit((doc) => ({ ...doc, notes: text.value }))
}
</script>

<template>
  <label class="notes">
    <span class="figure">{{ $t('formula-formula-notes-notes') }}</span>
    <v-textarea
      v-model="text"
      class="field"
      rows="3"
      maxlength="20000"
      :readonly="!bench.mayEdit"
      :placeholder="$t('formula-formula-notes-notes-for-when-you-bake')"
      @change="save"
    />
  </label>
</template>

<style scoped>
.notes {
  display: block;
  margin-top: 6px;
  font-size: 15px;
}

.field {
  margin-top: 4px;
  font-size: 13px;
}
</style>
