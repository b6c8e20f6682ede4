<script setup lang="ts">
/** How fast the yeast works over the degrees, and where its water is. */
import { computed } from 'vue'
import type { Waking } from '@/api/types'
import PlainChart from '@/components/charts/PlainChart.vue'
import { degrees, temperatureUnit } from '@/domain/format'
import { useSession } from '@/stores/session'

const props = defineProps<{ waking: Waking }>()
const session = useSession()
const points = computed(() => props.waking.curve.map((p): [number, number] => [degrees(p.temperature_c, session.units), 100 * p.rate]))
</script>

<template>
  <PlainChart
    :points="points"
    :moments="[{ at: degrees(waking.temperature_c, session.units), word: 'water' }]"
    :x-word="temperatureUnit(session.units)"
    :y-word="$t('prep-yeast-chart-of-its-speed')"
    :label="waking.text"
  />
</template>
