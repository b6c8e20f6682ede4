<script setup lang="ts">
/** Warming in bursts: the temperature after each stirring, with the range of ovens. */
import { computed } from 'vue'
import type { Bursts } from '@/api/types'
import PlainChart from '@/components/charts/PlainChart.vue'
import { figure } from '@/domain/format'

const props = defineProps<{ plan: Bursts }>()
const done = computed(() => {
  let seconds = 0
  return props.plan.bursts.map((b) => ({ ...b, at: (seconds += b.seconds) }))
})
const points = computed<[number, number][]>(() => [
  [0, props.plan.start_c],
  ...done.value.map((b): [number, number] => [b.at, b.temperature_c]),
])
const band = computed<[number, number, number][]>(() => [
  [0, props.plan.start_c, props.plan.start_c],
  ...done.value.map((b): [number, number, number] => [b.at, b.low_c, b.high_c]),
])
</script>

<template>
  <PlainChart
    :points="points"
    :band="band"
    x-word="seconds in all"
    y-word="°C"
    :label="`Bursts: ${done.map((b) => `after ${figure(b.at, 0)} s ${figure(b.temperature_c, 0)} °C`).join(', ')}`"
  >
    <template #default="{ x, y }"
      ><circle v-for="b in done" :key="b.at" :cx="x(b.at)" :cy="y(b.temperature_c)" r="3.5" class="stir"
    /></template>
  </PlainChart>
</template>

<style scoped>
.stir {
  fill: var(--role-cheese);
  stroke: var(--ink);
  stroke-width: 1.2;
}
</style>
