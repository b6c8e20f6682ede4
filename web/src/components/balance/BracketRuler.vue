<script setup lang="ts">
/** A ruler, a bracket for the wanted window, a smear for the 90 % range and a plumb mark for the value. */
import { computed } from 'vue'
import type { Bracket } from '@/api/types'
import { linear } from '@/domain/chart'
import { isOutside, willFail } from '@/domain/states'

const WIDTH = 254
const props = defineProps<{
  bracket: Bracket
  editable: boolean
  /** How far the quantity can go with all else kept. */
  ends?: { low: number; high: number } | null
}>()
const emit = defineEmits<{ window: [side: 'low' | 'high', value: number, done: boolean] }>()

const at = computed(() => linear([props.bracket.ruler.low, props.bracket.ruler.high], [3, WIDTH + 3], true))
const value = computed(() => props.bracket.estimate.value)
const outside = computed(() => willFail(props.bracket.state))
const about = computed(() => isOutside(props.bracket.state) && !outside.value)
const window = computed(() => {
  const { low, high } = props.bracket.window
  if (low == null && high == null) return null
  return {
    x1: at.value(low ?? props.bracket.ruler.low),
    x2: at.value(high ?? props.bracket.ruler.high),
    low: low != null,
    high: high != null,
  }
})
const smear = computed(() => {
  const x1 = at.value(props.bracket.estimate.low)
  const x2 = at.value(props.bracket.estimate.high)
  return { cx: (x1 + x2) / 2, rx: Math.max((x2 - x1) / 2, 2) }
})
const x = computed(() => at.value(value.value))
const beyond = computed(
  () => props.bracket.state !== 'undefined' && (value.value < props.bracket.ruler.low || value.value > props.bracket.ruler.high),
)

let held: 'low' | 'high' | null = null

function take(event: PointerEvent, side: 'low' | 'high'): void {
  if (!props.editable) return
  held = side
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}

function pullBy(event: PointerEvent, done: boolean): void {
  if (!held) return
  const box = (event.currentTarget as SVGElement).ownerSVGElement?.getBoundingClientRect()
  if (!box) return
  const raw = at.value.invert(((event.clientX - box.left) / box.width) * (WIDTH + 6))
  const grain = 10 ** -props.bracket.decimals
  emit('window', held, Math.round(raw / grain) * grain, done)
  if (done) held = null
}
</script>

<template>
  <svg preserveAspectRatio="none" :viewBox="`0 0 ${WIDTH + 6} 28`" class="ruler" :class="{ outside, 'at-limit': about }" aria-hidden="true">
    <line x1="3" :x2="WIDTH + 3" y1="19" y2="19" class="rule" />
    <line v-for="tick in bracket.ruler.ticks" :key="tick" :x1="at(tick)" :x2="at(tick)" y1="19" y2="24" class="rule" />
    <template v-if="window">
      <rect :x="window.x1" :width="Math.max(window.x2 - window.x1, 1)" y="6" height="13" class="wanted" />
      <path v-if="window.low" :d="`M ${window.x1 + 5} 4 h -5 v 16 h 5`" class="end" />
      <path v-if="window.high" :d="`M ${window.x2 - 5} 4 h 5 v 16 h -5`" class="end" />
    </template>
    <template v-if="ends">
      <line v-for="end in [ends.low, ends.high]" :key="end" :x1="at(end)" :x2="at(end)" y1="1" y2="27" class="reach" />
    </template>
    <ellipse v-if="bracket.state !== 'undefined'" :cx="smear.cx" :rx="smear.rx" cy="12" ry="4.5" class="smear" />
    <path v-if="bracket.state !== 'undefined'" :d="`M ${x} 2 l 5 9 l -5 9 l -5 -9 z`" class="mark" />
    <path v-if="beyond" :d="value > bracket.ruler.high ? `M ${x + 1} 24 l 5 -3 v 6 z` : `M ${x - 1} 24 l -5 -3 v 6 z`" class="mark" />
    <template v-if="window && editable">
      <rect
        v-if="window.low"
        :x="window.x1 - 6"
        y="0"
        width="12"
        height="26"
        class="hold"
        @pointerdown.stop="take($event, 'low')"
        @pointermove="pullBy($event, false)"
        @pointerup="pullBy($event, true)"
      />
      <rect
        v-if="window.high"
        :x="window.x2 - 6"
        y="0"
        width="12"
        height="26"
        class="hold"
        @pointerdown.stop="take($event, 'high')"
        @pointermove="pullBy($event, false)"
        @pointerup="pullBy($event, true)"
      />
    </template>
  </svg>
</template>

<style scoped>
.reach {
  stroke: var(--ink-2);
  stroke-width: 1.5;
  stroke-dasharray: 2 2;
  opacity: 0.7;
}

.ruler {
  display: block;
  width: calc(100% + 6px);
  height: 28px;
  margin: 1px 0 0 -3px;
  overflow: visible;
}

.rule {
  stroke: var(--rule-strong);
}

.wanted {
  fill: var(--in-soft);
}

.end {
  fill: none;
  stroke: var(--in);
  stroke-width: 2;
}

.smear {
  fill: var(--smear);
  opacity: 0.75;
}

.mark {
  fill: var(--ink);
}

.outside .mark {
  fill: var(--act);
}

.at-limit .mark {
  fill: var(--about);
}

.at-limit .smear {
  fill: var(--about);
  opacity: 0.28;
}

.outside .smear {
  fill: var(--act);
  opacity: 0.28;
}

.hold {
  fill: transparent;
  cursor: ew-resize;
  touch-action: none;
}
</style>
