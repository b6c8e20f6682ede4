<script setup lang="ts">
/** How has one figure gone over the bakes? Each dot is a run; a press opens it. */
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, settled } from '@/api/client'
import { useAsk } from '@/composables/useAsk'
import { linear, linePath } from '@/domain/chart'
import { figure as shown } from '@/domain/format'
import { t } from '@/messages'

const props = defineProps<{ formulaId: number }>()
const router = useRouter()
const figure = ref('loss')
const asked = useAsk(
  () => [t('trials-figure-line-runs-line'), figure.value, props.formulaId],
  (at) =>
    settled(
      api.GET('/api/kitchens/{kitchen_id}/runs-line', {
        params: { path: at, query: { figure: figure.value, formula_id: props.formulaId } },
      }),
    ),
  { keep: true },
)
const W = 720
const H = 190
const LEFT = 46
const kind = computed(() => asked.answer.value?.kinds.find((k) => k.key === figure.value))
const points = computed(() => asked.answer.value?.points ?? [])
const ends = computed(() => {
  const values = points.value.map((p) => p.value)
  const low = Math.min(...values)
  const high = Math.max(...values)
  const room = Math.max((high - low) * 0.15, Math.abs(high) * 0.02, 0.1)
  return { low: low - room, high: high + room }
})
const times = computed(() => points.value.map((p) => Date.parse(p.started)))
const moment = computed(() => linear([times.value[0] ?? 0, times.value.at(-1) ?? 0], [LEFT + 10, W - 20]))
const x = (n: number): number => (times.value.length > 1 ? moment.value(times.value[n] ?? 0) : (LEFT + W - 10) / 2)
const y = computed(() => linear([ends.value.low, ends.value.high], [H - 24, 16]))
const path = computed(() => linePath(points.value.map((p, n) => [x(n), y.value(p.value)])))
const day = (text: string): string => new Date(text).toLocaleDateString(undefined, { day: 'numeric', month: 'short' })
</script>

<template>
  <section class="plain-fields" :aria-label="$t('trials-figure-line-value-over-time')">
    <label class="note"
      >{{ $t('trials-figure-line-over-time') }}
      <select v-model="figure" :aria-label="$t('trials-figure-line-value')">
        <option v-for="k in asked.answer.value?.kinds ?? []" :key="k.key" :value="k.key">{{ k.label }}</option>
      </select></label
    >
    <svg
      v-if="points.length"
      :viewBox="`0 0 ${W} ${H}`"
      role="group"
      :aria-label="$t('trials-figure-line-over-time-2', { label: kind?.label ?? figure })"
    >
      <line :x1="LEFT" :x2="W - 10" :y1="H - 24" :y2="H - 24" class="axis" />
      <text v-for="v in [ends.low, (ends.low + ends.high) / 2, ends.high]" :key="v" :x="LEFT - 6" :y="y(v) + 4" text-anchor="end">
        {{ shown(v, 1) }}
      </text>
      <text :x="LEFT + 4" y="14">{{ kind?.unit }}</text>
      <path :d="path" class="line" />
      <g
        v-for="(p, n) in points"
        :key="p.run"
        class="dot"
        tabindex="0"
        role="link"
        :aria-label="`${p.name}, ${day(p.started)}: ${shown(p.value, 1)} ${kind?.unit ?? ''}`"
        @click="router.push(`/trials/${p.run}`)"
        @keydown.enter="router.push(`/trials/${p.run}`)"
      >
        <title>{{ p.name }}, {{ day(p.started) }}: {{ shown(p.value, 1) }} {{ kind?.unit }}</title>
        <circle :cx="x(n)" :cy="y(p.value)" r="5" />
      </g>
      <text v-if="points[0]" :x="x(0)" :y="H - 8" text-anchor="start">{{ day(points[0].started) }}</text>
      <text v-if="points.length > 1" :x="x(points.length - 1)" :y="H - 8" text-anchor="end">{{ day(points.at(-1)?.started ?? '') }}</text>
    </svg>
    <p v-else-if="asked.answer.value" class="note">{{ $t('trials-figure-line-no-bake-has-recorded-this-yet') }}</p>
    <p v-if="asked.missing.value" role="alert">{{ asked.trouble.value }}</p>
  </section>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-width: 860px;
}

text {
  fill: var(--ink-2);
  font-size: 11px;
  font-variant-numeric: tabular-nums;
}

.axis {
  stroke: var(--rule-strong);
}

.line {
  fill: none;
  stroke: var(--smear);
  stroke-width: 2;
}

.dot {
  cursor: pointer;
}

.dot circle {
  fill: var(--act);
}

.dot:focus-visible circle {
  stroke: var(--focus);
  stroke-width: 3;
}
</style>
