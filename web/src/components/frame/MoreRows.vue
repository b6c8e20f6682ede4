<script setup lang="ts">
/** The end of a long list: what is left comes by itself when the end is in sight, or at a press. */
import { ref, watch } from 'vue'

const props = defineProps<{ left: number; busy: boolean }>()
const emit = defineEmits<{ more: [] }>()
const inSight = ref(false)
watch([inSight, () => props.left, () => props.busy], ([seen, left, busy]) => {
  if (seen && left > 0 && !busy) emit('more')
})
</script>

<template>
  <v-btn
    v-if="left > 0"
    v-intersect="(seen: boolean) => (inSight = seen)"
    class="quiet-button further"
    :disabled="busy"
    @click="emit('more')"
    >{{ $t('frame-more-rows-more', { left }) }}</v-btn
  >
</template>

<style scoped>
.further {
  display: block;
  margin: 18px auto 0;
}
</style>
