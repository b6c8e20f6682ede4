<script setup lang="ts">
/** The colour of the top and of the underside over the minutes, with the window between underdone and burnt. */
import { computed } from 'vue'
import type { BakeForecast } from '@/api/types'
import { linear, shades } from '@/domain/chart'
import { minutes } from '@/domain/format'
import { t } from '@/messages'

const props = defineProps<{ forecast: BakeForecast; beside: BakeForecast | null; span: number }>()
const WIDTH = 640
const x = computed(() => linear([0, props.span], [0, WIDTH], true))
const colour = shades([
  [0, 'rgb(242, 229, 205)'],
  [1, 'rgb(202, 142, 62)'],
  [2, 'rgb(70, 36, 22)'],
])
const tiles = (f: BakeForecast, values: readonly number[]): { x: number; w: number; fill: string }[] => {
  const every = Math.max(Math.floor(values.length / 80), 1)
  return values
    .map((v, i) => ({ v, i }))
    .filter(({ i }) => i % every === 0)
    .map(({ v, i }) => {
      const from = f.series.minutes[i] ?? 0
      const to = f.series.minutes[Math.min(i + every, values.length - 1)] ?? from
      return { x: x.value(from), w: x.value(to) - x.value(from) + 0.6, fill: colour(v) }
    })
}
const strips = computed(() => [
  { name: 'top', tiles: tiles(props.forecast, props.forecast.series.colour_top) },
  { name: 'underside', tiles: tiles(props.forecast, props.forecast.series.colour_bottom) },
  ...(props.beside ? [{ name: 'beside', tiles: tiles(props.beside, props.beside.series.colour_top) }] : []),
])
const ends = computed(() => [props.forecast.golden_min, props.forecast.golden_until_min] as const)
/** The word "burnt" goes beneath where it would run into the words of the window. */
const beneath = computed(
  () =>
    ends.value[0] != null &&
    Math.abs(x.value(props.forecast.burnt_min ?? 0) - (x.value(ends.value[0]) + x.value(ends.value[1] ?? props.span)) / 2) < 110,
)
const said = (at: number | null | undefined): string => (at == null ? '…' : minutes(at))
const told = computed(() =>
  t('oven-colour-strip-golden-from-to-min-burnt-at', {
    from: said(ends.value[0]),
    to: said(ends.value[1]),
    burnt_min: said(props.forecast.burnt_min),
  }),
)
</script>

<template>
  <section :aria-label="$t('oven-colour-strip-color')">
    <div class="headed">
      <h3>{{ $t('oven-colour-strip-color') }}</h3>
      <span class="note">{{ $t('oven-colour-strip-pale-golden-burnt') }}</span>
    </div>
    <svg :viewBox="`0 0 ${WIDTH} ${strips.length * 20 + 40}`" role="img" :aria-label="told">
      <g v-for="(s, i) in strips" :key="s.name" :transform="`translate(0 ${i * 20})`">
        <rect v-for="(tile, k) in s.tiles" :key="k" :x="tile.x" y="0" :width="tile.w" height="17" :fill="tile.fill" />
        <text x="5" y="12" class="name">{{ s.name }}</text>
      </g>
      <g v-if="ends[0] != null && x(ends[0]) < WIDTH" :transform="`translate(0 ${strips.length * 20})`">
        <path :d="`M ${x(ends[0])} 0 v 7 H ${x(ends[1] ?? span)} v -7`" class="bracket" />
        <text :x="(x(ends[0]) + x(ends[1] ?? span)) / 2" y="21" text-anchor="middle" class="said">
          {{
            $t('oven-colour-strip-golden-min', {
              null: ends[1] == null ? $t('oven-colour-strip-from', { ends: minutes(ends[0]) }) : `${minutes(ends[0])}–${minutes(ends[1])}`,
            })
          }}
        </text>
      </g>
      <g
        v-if="forecast.burnt_min != null && forecast.burnt_min <= span"
        :transform="`translate(${x(forecast.burnt_min)} ${strips.length * 20})`"
      >
        <line y1="0" y2="10" class="burnt" />
        <text
          :x="x(forecast.burnt_min) > WIDTH - 50 ? -3 : 4"
          :y="beneath ? 32 : 21"
          :text-anchor="x(forecast.burnt_min) > WIDTH - 50 ? 'end' : 'start'"
          class="burnt-word"
        >
          {{ $t('oven-colour-strip-burnt') }}
        </text>
      </g>
      <g
        v-if="forecast.edge_min != null && forecast.edge_min <= span"
        :transform="`translate(${x(forecast.edge_min)} ${strips.length * 20})`"
      >
        <line y1="0" y2="8" class="edge" />
        <text x="0" y="36" text-anchor="middle" class="edge-word">
          {{ $t('oven-colour-strip-edge-min', { edge_min: minutes(forecast.edge_min) }) }}
        </text>
      </g>
    </svg>
  </section>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}

.name {
  fill: #2b2620;
  font-size: 12px;
}

.bracket {
  fill: none;
  stroke: var(--in);
  stroke-width: 2;
}

.said {
  fill: var(--ink);
  font-size: 12px;
  font-weight: 650;
}

.burnt {
  stroke: var(--act);
  stroke-width: 2;
}

.burnt-word {
  fill: var(--act);
  font-size: 12px;
}

.edge {
  stroke: var(--ink-2);
}

.edge-word {
  fill: var(--ink-2);
  font-size: 12px;
}

/* The drawing is half as large there: its words are drawn twice as large. */
@media (max-width: 700px) {
  text {
    font-size: 17px !important;
  }
}
</style>
