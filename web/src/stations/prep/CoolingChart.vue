<script setup lang="ts">
/** The bench clock: a dough that cools, and where it cracks. */
import { computed } from 'vue'
import type { Cooling } from '@/api/types'
import PlainChart from '@/components/charts/PlainChart.vue'
import { figure } from '@/domain/format'

const props = defineProps<{ cooling: Cooling }>()
const points = computed(() => props.cooling.curve.map((p): [number, number] => [p.minutes, p.temperature_c]))
const levels = computed(() => (props.cooling.until_c == null ? [] : [{ at: props.cooling.until_c, word: 'cracks below' }]))
const moments = computed(() =>
  props.cooling.minutes ? [{ at: props.cooling.minutes, word: `${figure(props.cooling.minutes, 0)} min` }] : [],
)
</script>

<template>
  <PlainChart
    :points="points"
    :levels="levels"
    :moments="moments"
    x-word="minutes on the bench"
    y-word="°C"
    :label="`From ${figure(cooling.start_c, 0)} °C in a room of ${figure(cooling.room_c, 0)} °C`"
  />
</template>
