<script setup lang="ts">
defineProps<{ role: string; name?: string }>()
</script>

<template>
  <svg class="swatch" viewBox="0 0 22 22" width="22" height="22" role="img" :aria-label="name ?? role">
    <rect x=".5" y=".5" width="21" height="21" rx="5" :style="{ fill: `url(#hatch-${role})` }" />
  </svg>
</template>

<style scoped>
.swatch {
  display: block;
  flex: none;
}

rect {
  stroke: rgb(43 38 32 / 18%);
}
</style>
