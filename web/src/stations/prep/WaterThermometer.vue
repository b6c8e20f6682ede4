<script setup lang="ts">
/** The water's thermometer: what the wanted dough asks of it, and where its limit is. */
import { computed } from 'vue'
import type { WaterTemperature } from '@/api/types'
import { linear } from '@/domain/chart'
import { temperature } from '@/domain/format'
import { useSession } from '@/stores/session'

const props = defineProps<{ water: WaterTemperature }>()
const session = useSession()
const x = linear([0, 100], [14, 246], true)
const shown = computed(() => Math.min(Math.max(props.water.water_c, 0), 100))
</script>

<template>
  <svg
    viewBox="0 0 270 84"
    role="img"
    :aria-label="
      $t('prep-water-thermometer-water-at-limit', {
        water_c: temperature(water.water_c, session.units),
        limit_c: temperature(water.limit_c, session.units),
      })
    "
  >
    <rect x="14" y="32" width="232" height="12" rx="6" class="tube" />
    <rect x="14" y="32" :width="x(shown) - 14" height="12" rx="6" :class="water.within ? 'fluid' : 'fluid over'" />
    <line :x1="x(water.limit_c)" :x2="x(water.limit_c)" y1="24" y2="52" class="limit" />
    <text :x="x(water.limit_c)" y="64" text-anchor="middle" class="small">
      {{ $t('prep-water-thermometer-limit', { limit_c: temperature(water.limit_c, session.units) }) }}
    </text>
    <text :x="Math.min(Math.max(x(shown), 34), 232)" y="22" text-anchor="middle" class="big">
      {{ temperature(water.water_c, session.units) }}
    </text>
    <text x="14" y="80" class="small">{{ temperature(0, session.units) }}</text>
    <text x="246" y="80" text-anchor="end" class="small">{{ temperature(100, session.units) }}</text>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
}

.tube {
  fill: var(--rule);
}

.fluid {
  fill: var(--water);
}

.fluid.over {
  fill: var(--act);
}

.limit {
  stroke: var(--ink);
  stroke-width: 1.5;
}

text {
  fill: var(--ink);
  font-size: 12px;
}

.small {
  fill: var(--ink-2);
  font-size: 12px;
}

.big {
  font: 700 17px var(--head);
}
</style>
