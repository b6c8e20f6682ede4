<script setup lang="ts">
/** What 100 g are made of, lying down: one bar that can be read beside others. */
import { computed } from 'vue'
import type { Layer } from '@/api/types'
import { layerHatch } from './layers'

const props = defineProps<{ layers: readonly Layer[]; width: number; height: number }>()
const parts = computed(() => {
  const whole = props.layers.reduce((sum, layer) => sum + layer.grams, 0) || 1
  let x = 0
  return props.layers.map((layer) => {
    const width = (props.width * layer.grams) / whole
    const part = { ...layer, x, width }
    x += width
    return part
  })
})
const said = computed(() =>
  props.layers
    .filter((l) => l.grams >= 0.5)
    .map((l) => `${l.name.toLowerCase()} ${l.grams.toFixed(0)}`)
    .join(', '),
)
</script>

<template>
  <svg :width="width" :height="height" role="img" :aria-label="$t('frame-composition-bar-of-100-g', { value: said })">
    <title>{{ $t('frame-composition-bar-of-100-g', { value: said }) }}</title>
    <rect
      v-for="part in parts"
      :key="part.key"
      :x="part.x"
      y="0"
      :width="part.width"
      :height="height"
      :style="{ fill: `url(#hatch-${layerHatch[part.key] ?? 'salt'})` }"
    />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  border-radius: 3px;
}
</style>
