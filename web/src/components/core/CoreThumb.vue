<script setup lang="ts">
import { computed } from 'vue'
import type { Thumb } from '@/api/types'
import { layStrata, unevenEdge } from '@/domain/strata'

const props = defineProps<{ strata: Thumb['strata']; width: number; height: number }>()
const rows = computed(() => {
  const { strata } = layStrata(
    props.strata.map((s) => s.share),
    props.height - 4,
    3,
  )
  return strata.map((s, i) => {
    const bottom = s.top + s.height + 2
    const top = s.top + 2
    return {
      role: props.strata[i]?.role ?? 'base',
      d: `M ${unevenEdge(i, props.width, top, 1.1)} L ${props.width} ${bottom} ${reversed(unevenEdge(i + 1, props.width, bottom, 1.1))} Z`,
    }
  })
})
const reversed = (edge: string): string =>
  edge
    .split(' L ')
    .reverse()
    .map((point) => `L ${point}`)
    .join(' ')
</script>

<template>
  <svg :width="width" :height="height" :viewBox="`0 0 ${width} ${height}`" aria-hidden="true">
    <path v-for="(row, i) in rows" :key="i" :d="row.d" :style="{ fill: `url(#hatch-${row.role})` }" />
    <text v-if="!rows.length" :x="width / 2" :y="height / 2" text-anchor="middle" class="empty">–</text>
  </svg>
</template>

<style scoped>
.empty {
  fill: var(--ink-2);
}
</style>
