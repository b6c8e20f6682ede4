<script setup lang="ts">
/** A tray from above, to scale: pieces as they are laid, with their size after the oven as a soft ring. */
import { computed } from 'vue'
import type { ShapePlan } from '@/api/types'

const props = defineProps<{
  tray: NonNullable<ShapePlan['tray']>
  places: NonNullable<ShapePlan['layout']>['places']
  round: boolean
  piece: ShapePlan['piece']
  onLast: number
  docking: number
}>()
const shrink = computed(() => Math.min(props.piece.length_mm / props.piece.grown_length_mm, 1))
/** Dock holes of one cut piece, as far apart as the plan says. */
const holes = computed(() => {
  if (!props.docking || props.piece.kind !== 'cut') return []
  const along = (size: number): number[] => {
    const count = Math.max(Math.round(size / props.docking), 1)
    return Array.from({ length: count }, (_, i) => ((i + 0.5) / count - 0.5) * size)
  }
  return along(props.piece.length_mm).flatMap((x) => along(props.piece.width_mm).map((y) => ({ x, y })))
})
/** A folded disc in its box: the fold lies along the longer side. */
function halfMoon(p: { x_mm: number; y_mm: number; width_mm: number; height_mm: number }, scale: number): string {
  const [w, h] = [(p.width_mm / 2) * scale, (p.height_mm / 2) * scale]
  return w >= h
    ? `M ${p.x_mm - w} ${p.y_mm + h} A ${w} ${w} 0 0 1 ${p.x_mm + w} ${p.y_mm + h} Z`
    : `M ${p.x_mm + w} ${p.y_mm - h} A ${h} ${h} 0 0 0 ${p.x_mm + w} ${p.y_mm + h} Z`
}
const stays = (i: number): boolean => i >= props.onLast
</script>

<template>
  <svg
    :viewBox="`-6 -6 ${tray.length_mm + 12} ${tray.width_mm + 12}`"
    role="img"
    :aria-label="
      $t('shape-tray-top-by-mm-pieces', {
        name: tray.name,
        length_mm: Math.round(tray.length_mm),
        width_mm: Math.round(tray.width_mm),
        places: places.length,
      })
    "
  >
    <rect x="0" y="0" :width="tray.length_mm" :height="tray.width_mm" rx="12" class="tray" />
    <g v-for="(p, i) in places" :key="i" :class="{ spare: stays(i) }">
      <template v-if="round">
        <circle :cx="p.x_mm" :cy="p.y_mm" :r="p.width_mm / 2" class="grown" />
        <circle :cx="p.x_mm" :cy="p.y_mm" :r="(p.width_mm / 2) * shrink" class="dough" />
        <circle v-if="piece.hole_mm > 0" :cx="p.x_mm" :cy="p.y_mm" :r="piece.hole_mm / 2" class="through" />
      </template>
      <template v-else-if="piece.kind === 'fold'">
        <path :d="halfMoon(p, 1)" class="grown" />
        <path :d="halfMoon(p, shrink)" class="dough" />
      </template>
      <template v-else>
        <rect :x="p.x_mm - p.width_mm / 2" :y="p.y_mm - p.height_mm / 2" :width="p.width_mm" :height="p.height_mm" rx="4" class="grown" />
        <rect
          :x="p.x_mm - (p.width_mm * shrink) / 2"
          :y="p.y_mm - (p.height_mm * shrink) / 2"
          :width="p.width_mm * shrink"
          :height="p.height_mm * shrink"
          rx="4"
          class="dough"
        />
        <circle v-for="(h, k) in holes" :key="k" :cx="p.x_mm + h.x" :cy="p.y_mm + h.y" r="1.6" class="hole" />
      </template>
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  max-height: 330px;
}

.tray {
  fill: var(--rail);
  stroke: var(--rule-strong);
  stroke-width: 2;
}

.grown {
  fill: var(--smear);
  opacity: 0.5;
}

.dough {
  fill: var(--role-base);
  stroke: var(--ink);
  stroke-width: 1.2;
}

.through {
  fill: var(--rail);
  stroke: var(--ink);
  stroke-width: 1.2;
}

.hole {
  fill: var(--ink);
}

/* Places that stay empty on the last tray. */
.spare .dough {
  fill-opacity: 0.55;
  stroke-dasharray: 6 4;
}
</style>
