<script setup lang="ts">
/** The bench clock: a dough that cools, and where it cracks. */
import { computed } from 'vue'
import type { Cooling } from '@/api/types'
import PlainChart from '@/components/charts/PlainChart.vue'
import { degrees, figure, temperature, temperatureUnit } from '@/domain/format'
import { useSession } from '@/stores/session'

const props = defineProps<{ cooling: Cooling }>()
const session = useSession()
const points = computed(() => props.cooling.curve.map((p): [number, number] => [p.minutes, degrees(p.temperature_c, session.units)]))
const levels = computed(() =>
  props.cooling.until_c == null ? [] : [{ at: degrees(props.cooling.until_c, session.units), word: 'cracks below' }],
)
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
    :y-word="temperatureUnit(session.units)"
    :label="`Cooling from ${temperature(cooling.start_c, session.units)} in a ${temperature(cooling.room_c, session.units)} room`"
  />
</template>
