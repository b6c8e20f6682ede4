<script setup lang="ts">
/** A piece from the side, to scale; its upper face and its right end can be pulled. */
import { computed, shallowRef } from 'vue'
import type { ShapePlan } from '@/api/types'
import { length, lengthUnit } from '@/domain/format'
import { useSession } from '@/stores/session'

const props = defineProps<{ piece: ShapePlan['piece']; mayEdit: boolean }>()
const emit = defineEmits<{ thickness: [mm: number]; size: [mm: number]; end: [] }>()
const session = useSession()
const WIDTH = 330
const HEIGHT = 150
const FLOOR = 122

const pull = shallowRef<{ what: 'thickness' | 'size'; at: number; from: number; scale: number; tall: number } | null>(null)
const thick = computed(() => props.piece.thickness_mm * props.piece.layers + props.piece.filling_mm)
/** A thin sheet would be a hair: where it is, thickness is drawn larger than width, and says so. */
const scale = computed(() => Math.min((WIDTH - 70) / props.piece.length_mm, 3))
const magnified = computed(() => Math.max(1, Math.min(18 / (thick.value * scale.value), 12)))
const tall = computed(() => Math.min(thick.value * scale.value * magnified.value, FLOOR - 16))
const wide = computed(() => props.piece.length_mm * scale.value)
const left = computed(() => (WIDTH - 40 - wide.value) / 2 + 6)
const tin = computed(() => {
  const rim = FLOOR - tall.value / props.piece.fill_share
  const right = left.value + wide.value
  return `M ${left.value - 8} ${rim} L ${left.value - 3} ${FLOOR + 1} H ${right + 3} L ${right + 8} ${rim}`
})
const outline = computed(() => {
  const [x, y, w, h] = [left.value, FLOOR, wide.value, tall.value]
  if (props.piece.kind === 'dome' || props.piece.kind === 'loaf')
    return [
      `M ${x} ${y} C ${x - 2} ${y - h * 0.9} ${x + w * 0.22} ${y - h} ${x + w / 2} ${y - h}`,
      `C ${x + w * 0.78} ${y - h} ${x + w + 2} ${y - h * 0.9} ${x + w} ${y} Z`,
    ].join(' ')
  const r = props.piece.kind === 'rope' || props.piece.kind === 'ring' ? h / 2 : Math.min(h * 0.35, 6)
  const low = y - Math.min(r, h / 2)
  return [
    `M ${x + r} ${y} Q ${x} ${y} ${x} ${low} L ${x} ${y - h + r} Q ${x} ${y - h} ${x + r} ${y - h}`,
    `L ${x + w - r} ${y - h} Q ${x + w} ${y - h} ${x + w} ${y - h + r} L ${x + w} ${low} Q ${x + w} ${y} ${x + w - r} ${y} Z`,
  ].join(' ')
})
/** Between two sheets lies a seam, or a filling that ends at the free edge. */
const filled = computed(() => (tall.value * props.piece.filling_mm) / thick.value)
const seam = computed(() => FLOOR - (tall.value - filled.value) / props.piece.layers)
const edge = computed(() => Math.min(props.piece.seal_mm * scale.value, wide.value / 3))

function begin(event: PointerEvent, what: 'thickness' | 'size'): void {
  if (!props.mayEdit) return
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  event.preventDefault()
  const box = (event.currentTarget as SVGElement).ownerSVGElement?.getBoundingClientRect()
  const pixels = box ? WIDTH / box.width : 1
  pull.value = {
    what,
    at: what === 'thickness' ? event.clientY : event.clientX,
    from: what === 'thickness' ? props.piece.thickness_mm : props.piece.length_mm,
    scale: pixels / scale.value / (what === 'thickness' ? magnified.value * props.piece.layers : 0.5),
    tall: 0,
  }
}
function move(event: PointerEvent): void {
  const now = pull.value
  if (!now) return
  const by = now.what === 'thickness' ? now.at - event.clientY : event.clientX - now.at
  const value = Math.max(now.from + by * now.scale, 1)
  if (now.what === 'thickness') emit('thickness', Math.round(value * 10) / 10)
  else emit('size', Math.round(value))
}
function end(): void {
  if (!pull.value) return
  pull.value = null
  emit('end')
}
function onKey(event: KeyboardEvent, what: 'thickness' | 'size'): void {
  const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key]
  if (!by || !props.mayEdit) return
  event.preventDefault()
  const step = (event.shiftKey ? 10 : 1) * (what === 'thickness' ? 0.5 : 5)
  if (what === 'thickness') emit('thickness', Math.max(props.piece.thickness_mm + by * step, 0.5))
  else emit('size', Math.max(props.piece.length_mm + by * step, 5))
  emit('end')
}
</script>

<template>
  <svg
    :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
    :aria-label="
      $t('shape-piece-side-piece-by', {
        length_mm: length(piece.length_mm, session.units),
        thickness_mm: length(piece.thickness_mm, session.units),
        unit: lengthUnit(session.units),
      })
    "
    role="group"
  >
    <line x1="0" :x2="WIDTH - 24" :y1="FLOOR" :y2="FLOOR" class="floor" />
    <path v-if="piece.fill_share > 0" :d="tin" class="tin" />
    <path :d="outline" class="dough" />
    <template v-if="piece.hole_mm > 0">
      <line
        v-for="side in [-0.5, 0.5]"
        :key="side"
        :x1="left + wide / 2 + side * piece.hole_mm * scale"
        :x2="left + wide / 2 + side * piece.hole_mm * scale"
        :y1="FLOOR - tall"
        :y2="FLOOR"
        class="seam"
      />
    </template>
    <template v-if="piece.layers > 1">
      <rect
        v-if="filled > 0.5"
        :x="left + edge"
        :y="seam - filled"
        :width="wide - 2 * edge"
        :height="filled"
        :rx="Math.min(filled / 2, 8)"
        class="filling"
      />
      <line v-else :x1="left + 4" :x2="left + wide - 4" :y1="seam" :y2="seam" class="seam" />
    </template>
    <g class="measure">
      <line :x1="left" :x2="left + wide" :y1="FLOOR + 12" :y2="FLOOR + 12" />
      <text :x="left + wide / 2" :y="FLOOR + 26" text-anchor="middle">
        {{ length(piece.length_mm, session.units) }} {{ lengthUnit(session.units) }}
      </text>
    </g>
    <g class="measure">
      <line :x1="left + wide + 12" :x2="left + wide + 12" :y1="FLOOR - tall" :y2="FLOOR" />
      <text :x="left + wide + 17" :y="FLOOR - tall / 2 + 4">{{ length(piece.thickness_mm, session.units) }}</text>
    </g>
    <text v-if="magnified > 1.05" x="4" y="12" class="note">
      {{ $t('shape-piece-side-thickness-shown-larger', { magnified: Math.round(magnified) }) }}
    </text>
    <text v-if="piece.layers > 1" :x="WIDTH - 26" y="12" text-anchor="end" class="note">
      {{ $t('shape-piece-side-sheets', { layers: piece.layers }) }}
    </text>
    <rect
      :x="left"
      :y="FLOOR - tall - 6"
      :width="wide"
      height="12"
      class="grip up"
      tabindex="0"
      role="slider"
      :aria-label="$t('shape-piece-side-thickness')"
      :aria-valuenow="piece.thickness_mm"
      :aria-disabled="!mayEdit"
      @pointerdown="begin($event, 'thickness')"
      @pointermove="move"
      @pointerup="end"
      @pointercancel="end"
      @keydown="onKey($event, 'thickness')"
    />
    <rect
      :x="left + wide - 6"
      :y="FLOOR - tall"
      width="12"
      :height="Math.max(tall, 12)"
      class="grip aside"
      tabindex="0"
      role="slider"
      :aria-label="$t('shape-piece-side-size')"
      :aria-valuenow="piece.length_mm"
      :aria-disabled="!mayEdit"
      @pointerdown="begin($event, 'size')"
      @pointermove="move"
      @pointerup="end"
      @pointercancel="end"
      @keydown="onKey($event, 'size')"
    />
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  overflow: visible;
  touch-action: none;
}

.filling {
  fill: var(--role-filling);
  stroke: var(--ink);
  stroke-width: 0.8;
}

.floor {
  stroke: var(--ink-2);
}

.dough {
  fill: var(--role-base);
  stroke: var(--ink);
  stroke-width: 1.2;
}

.tin {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 2.5;
}

.seam {
  stroke: var(--ink);
  stroke-dasharray: 4 3;
}

.measure line {
  stroke: var(--ink-2);
}

text {
  fill: var(--ink);
  font-size: 12px;
}

.note {
  fill: var(--ink-2);
  font-size: 12px;
}

.grip {
  fill: transparent;
}

.grip:hover,
.grip:focus-visible {
  fill: var(--select);
  opacity: 0.7;
}

.up {
  cursor: ns-resize;
}

.aside {
  cursor: ew-resize;
}
</style>
