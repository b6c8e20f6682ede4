<script setup lang="ts">
/** One task of a plan: its times, how far it may slip, and what may be done with it. */
import type { PlannedTask } from '@/api/types'

defineProps<{ task: PlannedTask; mayEdit: boolean; underWay: boolean; stale: boolean }>()
const emit = defineEmits<{ pin: []; unpin: []; slip: [minutes: number]; afresh: [] }>()
</script>

<template>
  <p class="one">
    <b>{{ task.text }}</b>
    {{ task.start.slice(11, 16) }}–{{ task.end.slice(11, 16)
    }}<template v-if="task.check && task.surely">
      {{ $t('plan-plan-task-check-from-out-by-at-the', { check: task.check.slice(11, 16), surely: task.surely.slice(11, 16) }) }}</template
    ><template v-if="task.slack > 1"> {{ $t('plan-plan-task-can-start-up-to-min-late', { slack: task.slack }) }}</template>
    <template v-if="mayEdit">
      <v-btn v-if="task.pinned && !underWay" class="quiet-button tiny-button" @click="emit('unpin')">{{
        $t('plan-plan-task-unpin')
      }}</v-btn>
      <v-btn v-else-if="!task.done" class="quiet-button tiny-button" @click="emit('pin')">{{
        $t('plan-plan-task-pin-to-this-time')
      }}</v-btn>
      <template v-if="task.hands.length && !stale">
        <v-btn class="quiet-button tiny-button" @click="emit('slip', 5)">{{ $t('plan-plan-task-it-took-5-min-longer') }}</v-btn>
        <v-btn class="quiet-button tiny-button" @click="emit('slip', 12)">{{ $t('plan-plan-task-it-took-12-min-longer') }}</v-btn>
      </template>
      <v-btn v-if="underWay" class="quiet-button tiny-button" @click="emit('afresh')">{{
        $t('plan-plan-task-reset-and-plan-again')
      }}</v-btn>
    </template>
  </p>
</template>

<style scoped>
.one {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 10px;
  min-height: 30px;
  margin: 6px 0;
}
</style>
