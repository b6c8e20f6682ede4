<script setup lang="ts">
/** How far long work is, counted in what a baker counts, and a button that stops it. */
import type { Job } from '@/api/types'

defineProps<{ job: Job; what: string }>()
defineEmits<{ stop: [] }>()
</script>

<template>
  <span class="job" role="status">
    <progress :value="job.done" :max="job.total || 1" :aria-label="what" />
    {{
      job.state === 'waiting'
        ? $t('frame-job-progress-waiting-to-start')
        : $t('frame-job-progress-of', { done: job.done, total: job.total, what })
    }}
    <v-btn class="quiet-button" @click="$emit('stop')">{{ $t('frame-job-progress-cancel') }}</v-btn>
  </span>
</template>

<style scoped>
.job {
  display: inline-flex;
  align-items: center;
  gap: 12px;
}

progress {
  width: 220px;
  accent-color: var(--act);
}
</style>
