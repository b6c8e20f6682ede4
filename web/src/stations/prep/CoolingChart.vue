<script setup lang="ts">
/** The bench clock: a dough that cools, and where it cracks. */
import { computed } from 'vue'
import type { Cooling } from '@/api/types'
import PlainChart from '@/components/charts/PlainChart.vue'
import { degrees, figure, temperature, temperatureUnit } from '@/domain/format'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

const props = defineProps<{ cooling: Cooling }>()
const session = useSession()
const points = computed(() => props.cooling.curve.map((p): [number, number] => [p.minutes, degrees(p.temperature_c, session.units)]))
const levels = computed(() =>
  props.cooling.until_c == null ? [] : [{ at: degrees(props.cooling.until_c, session.units), word: t('prep-cooling-chart-cracks-below') }],
)
const moments = computed(() =>
  props.cooling.minutes
    ? [{ at: props.cooling.minutes, word: t('prep-cooling-chart-min', { cooling: figure(props.cooling.minutes, 0) }) }]
    : [],
)
</script>

<template>
  <PlainChart
    :points="points"
    :levels="levels"
    :moments="moments"
    :x-word="$t('prep-cooling-chart-minutes-on-the-bench')"
    :y-word="temperatureUnit(session.units)"
    :label="
      $t('prep-cooling-chart-cooling-from-in-a-room', {
        start_c: temperature(cooling.start_c, session.units),
        room_c: temperature(cooling.room_c, session.units),
      })
    "
  />
</template>
