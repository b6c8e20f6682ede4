<script setup lang="ts">
/** How fast the yeast works over the degrees, and where its water is. */
import { computed } from 'vue'
import type { Waking } from '@/api/types'
import PlainChart from '@/components/charts/PlainChart.vue'

const props = defineProps<{ waking: Waking }>()
const points = computed(() => props.waking.curve.map((p): [number, number] => [p.temperature_c, 100 * p.rate]))
</script>

<template>
  <PlainChart
    :points="points"
    :moments="[{ at: waking.temperature_c, word: 'water' }]"
    x-word="°C"
    y-word="% of its speed"
    :label="waking.text"
  />
</template>
