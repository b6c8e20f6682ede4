<script setup lang="ts">
import { hatches } from './hatches'
</script>

<template>
  <svg width="0" height="0" class="defs" aria-hidden="true">
    <defs>
      <pattern v-for="h in hatches" :id="`hatch-${h.role}`" :key="h.role" :width="h.size" :height="h.size" patternUnits="userSpaceOnUse">
        <rect :width="h.size" :height="h.size" :style="{ fill: `var(--role-${h.role})` }" />
        <path v-for="d in h.strokes" :key="d" :d="d" class="stroke" />
        <circle v-for="([x, y, r], i) in h.dots" :key="i" :cx="x" :cy="y" :r="r" :class="h.filled ? 'dot' : 'stroke'" />
      </pattern>
    </defs>
  </svg>
</template>

<style scoped>
.defs {
  position: absolute;
}

.stroke {
  fill: none;
  stroke: var(--hatch);
  stroke-width: 0.9;
}

.dot {
  fill: var(--hatch);
}
</style>
