<script setup lang="ts">
/** Warming in bursts: the temperature after each stirring, with the range of ovens. */
import { computed } from 'vue'
import type { Bursts } from '@/api/types'
import PlainChart from '@/components/charts/PlainChart.vue'
import { degrees, figure, temperature, temperatureUnit } from '@/domain/format'
import { useSession } from '@/stores/session'

const props = defineProps<{ plan: Bursts }>()
const session = useSession()
const done = computed(() => {
  let seconds = 0
  return props.plan.bursts.map((b) => ({
    at: (seconds += b.seconds),
    said: temperature(b.temperature_c, session.units),
    temperature: degrees(b.temperature_c, session.units),
    low: degrees(b.low_c, session.units),
    high: degrees(b.high_c, session.units),
  }))
})
const points = computed<[number, number][]>(() => [
  [0, degrees(props.plan.start_c, session.units)],
  ...done.value.map((b): [number, number] => [b.at, b.temperature]),
])
const band = computed<[number, number, number][]>(() => [
  [0, degrees(props.plan.start_c, session.units), degrees(props.plan.start_c, session.units)],
  ...done.value.map((b): [number, number, number] => [b.at, b.low, b.high]),
])
</script>

<template>
  <PlainChart
    :points="points"
    :band="band"
    :x-word="$t('prep-burst-chart-seconds-in-all')"
    :y-word="temperatureUnit(session.units)"
    :label="
      $t('prep-burst-chart-bursts', {
        done: done.map((b) => $t('prep-burst-chart-after-s', { at: figure(b.at, 0), value: b.said })).join(', '),
      })
    "
  >
    <template #default="{ x, y }"
      ><circle v-for="b in done" :key="b.at" :cx="x(b.at)" :cy="y(b.temperature)" r="3.5" class="stir"
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
