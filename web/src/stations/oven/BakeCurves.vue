<script setup lang="ts">
/** Core temperature and weight lost over the minutes, with the window of being done and the egg's safe mark. */
import { computed } from 'vue'
import type { BakeForecast } from '@/api/types'
import { linear, linePath } from '@/domain/chart'
import { minutes, temperature } from '@/domain/format'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

const props = defineProps<{ forecast: BakeForecast; beside: BakeForecast | null; span: number }>()
const session = useSession()
const WIDTH = 640
const HEIGHT = 118
const TOP = 8
const FOOT = 16
const LINE = 15
const CORE = [0, 120] as const
const x = computed(() => linear([0, props.span], [0, WIDTH], true))
const core = linear(CORE, [HEIGHT - FOOT, TOP], true)
const most = computed(() => Math.max(...props.forecast.series.loss_percent, ...(props.beside?.series.loss_percent ?? []), 10))
const loss = computed(() => linear([0, most.value * 1.1], [HEIGHT - FOOT, TOP]))
const path = (f: BakeForecast, values: readonly number[], y: (v: number) => number): string =>
  linePath(f.series.minutes.map((m, i) => [x.value(m), y(values[i] ?? 0)]))
const ticks = computed(() => x.value.ticks(8))
const atReady = computed(() => (props.forecast.ready_min ? x.value(props.forecast.ready_min.best) : WIDTH * 0.7))
/** Where the words of both curves stand: below them where there is room, and never on each other. */
const words = computed(() => {
  const at = core(props.forecast.core_c_at_ready ?? 90)
  const hot = at + (at < TOP + 24 ? LINE : -5)
  const lost = Math.min(loss.value(props.forecast.hot_loss_percent?.best ?? 0) + LINE, HEIGHT - FOOT - 3)
  return { core: hot, loss: Math.abs(lost - hot) < LINE ? hot + LINE : lost }
})
const told = computed(() => {
  const { core_c_at_ready: c, hot_loss_percent: lost, safe_min: safe, safe_for: what } = props.forecast
  const core = c == null ? '' : temperature(c, session.units)
  const safely = safe == null ? '' : t('oven-bake-curves-safe-at-min', { what, safe: minutes(safe) })
  return t('oven-bake-curves-core-and-weight-loss-when-done', { core, best: lost ? lost.best.toFixed(0) : '…', safely })
})
const passed = computed(() =>
  props.forecast.safe_min == null ? '' : t('oven-bake-curves-passed-at-min', { safe_min: minutes(props.forecast.safe_min) }),
)
</script>

<template>
  <section :aria-label="$t('oven-bake-curves-core-temperature-and-weight-loss')">
    <h3>{{ $t('oven-bake-curves-core-temperature-and-weight-loss') }}</h3>
    <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="img" :aria-label="told">
      <rect
        v-if="forecast.ready_min"
        :x="x(forecast.ready_min.low)"
        :width="Math.max(x(forecast.ready_min.high) - x(forecast.ready_min.low), 2)"
        :y="TOP"
        :height="HEIGHT - TOP - FOOT"
        class="window"
      />
      <line v-if="forecast.safe_c != null" x1="0" :x2="WIDTH" :y1="core(forecast.safe_c)" :y2="core(forecast.safe_c)" class="safe" />
      <template v-if="beside">
        <path :d="path(beside, beside.series.core_c, core)" class="core old" />
        <path :d="path(beside, beside.series.loss_percent, loss)" class="loss old" />
      </template>
      <path :d="path(forecast, forecast.series.core_c, core)" class="core" />
      <path :d="path(forecast, forecast.series.loss_percent, loss)" class="loss" />
      <text v-if="forecast.safe_c != null" x="4" :y="core(forecast.safe_c) - 4" class="safe-word">
        {{ $t('oven-bake-curves-safe', { safe_c: temperature(forecast.safe_c, session.units), safe_for: forecast.safe_for, passed }) }}
      </text>
      <text :x="Math.min(atReady + 6, WIDTH - 90)" :y="words.core" class="core-word">
        {{
          $t('oven-bake-curves-core', {
            core_c_at_ready: forecast.core_c_at_ready == null ? '' : temperature(forecast.core_c_at_ready, session.units),
          })
        }}
      </text>
      <text :x="Math.min(atReady + 6, WIDTH - 90)" :y="words.loss" class="loss-word">
        {{ $t('oven-bake-curves-weight', { best: forecast.hot_loss_percent?.best.toFixed(0) ?? '…' }) }}
      </text>
      <text
        v-for="tick in ticks"
        :key="tick"
        :x="Math.min(x(tick), WIDTH - 2)"
        :y="HEIGHT - 3"
        :text-anchor="tick === 0 ? 'start' : x(tick) > WIDTH - 12 ? 'end' : 'middle'"
      >
        {{ tick }}
      </text>
    </svg>
  </section>
</template>

<style scoped>
h3 {
  font-size: 16px;
}

svg {
  display: block;
  width: 100%;
}

.window {
  fill: var(--in-soft);
}

.safe {
  stroke: var(--water);
  stroke-dasharray: 3 3;
}

.core,
.loss {
  fill: none;
  stroke: var(--act);
  stroke-width: 2;
}

.loss {
  stroke: var(--ink);
}

.old {
  stroke-dasharray: 6 5;
  opacity: 0.6;
}

text {
  fill: var(--ink-2);
  font-size: 12px;
}

.safe-word {
  fill: var(--water);
}

.core-word,
.loss-word,
.safe-word {
  paint-order: stroke;
  stroke: var(--ground);
  stroke-width: 4px;
}

.core-word {
  fill: var(--act);
  font-weight: 650;
}

.loss-word {
  fill: var(--ink);
  font-weight: 650;
}

/* The drawing is half as large there: its words are drawn twice as large. */
@media (max-width: 700px) {
  text {
    font-size: 22px !important;
  }
}
</style>
