<script setup lang="ts">
/** One nutrient per 100 g: what the printed figure can stand for, where it most likely lies, and the reference behind it. */
import { computed } from 'vue'
import { linear } from '@/domain/chart'
import type { PackFigure } from '@/api/types'
import { t } from '@/messages'

const WIDTH = 230
const props = defineProps<{ figure: PackFigure; name: string; unit: string }>()
const end = computed(() => Math.max(props.figure.bounds?.high ?? 0, props.figure.reference.high, props.figure.spread.high, 0.001) * 1.05)
const at = computed(() => linear([0, end.value], [0, WIDTH], true))
const digits = computed(() => (props.unit === 'mg' ? 0 : props.figure.value < 10 ? 2 : 1))
const text = (value: number): string => value.toFixed(digits.value)
const origins = {
  label: 'label',
  reference: t('pantry-figure-band-from-the-reference'),
  closing: t('pantry-figure-band-what-is-left-of-100-g'),
} as const
</script>

<template>
  <tr :title="$t('pantry-figure-band-reference-to', { low: text(figure.reference.low), high: text(figure.reference.high), unit })">
    <th>{{ name }}</th>
    <td class="drawn">
      <svg :width="WIDTH + 4" height="20" aria-hidden="true">
        <line x1="2" :x2="WIDTH + 2" y1="15" y2="15" class="rule" />
        <rect
          :x="2 + at(figure.reference.low)"
          y="5"
          :width="Math.max(at(figure.reference.high) - at(figure.reference.low), 2)"
          height="10"
          class="reference"
        />
        <path
          v-if="figure.bounds"
          :d="`M ${2 + at(figure.bounds.low) + 4} 3 h -4 v 14 h 4 M ${2 + at(figure.bounds.high) - 4} 3 h 4 v 14 h -4`"
          class="bounds"
        />
        <path :d="`M ${2 + at(figure.value)} 4 l 4 6 l -4 6 l -4 -6 z`" class="mark" :class="{ taken: figure.origin !== 'label' }" />
      </svg>
    </td>
    <td class="value">
      <b>{{ text(figure.value) }}</b> {{ unit }}
    </td>
    <td class="note">
      {{ figure.origin === 'label' ? `${text(figure.spread.low)}–${text(figure.spread.high)}` : origins[figure.origin] }}
    </td>
  </tr>
</template>

<style scoped>
th {
  padding: 2px 12px 2px 0;
  font-weight: 400;
  text-align: left;
  white-space: nowrap;
}

td {
  padding: 2px 10px 2px 0;
  white-space: nowrap;
}

.drawn {
  width: 240px;
}

.value {
  text-align: right;
}

svg {
  display: block;
}

.rule {
  stroke: var(--rule-strong);
}

.reference {
  fill: var(--smear);
  opacity: 0.6;
}

.bounds {
  fill: none;
  stroke: var(--in);
  stroke-width: 2;
}

.mark {
  fill: var(--ink);
}

.mark.taken {
  fill: var(--panel);
  stroke: var(--ink);
}
</style>
