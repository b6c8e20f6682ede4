<script setup lang="ts">
/** A fault as a small drawing: the crumb or crust it is seen on. */
defineProps<{ picture: string }>()
const loaf = 'M4 24V14q0-8 12-8t12 8v10z'
const slab = 'M3 22h26v-6q-13-4-26 0z'
const drawn: Record<string, [string, string]> = {
  crack: [slab, 'M10 15l3 3-2 2 3 3M20 14l-2 4 3 2-2 3'],
  sticky: [slab, 'M10 16v-7M16 15V6M22 16V9'],
  crumbs: ['M5 22h12v-7q-6-3-12 0z', 'M21 21h2M25 18h2M20 16h2M26 23h1'],
  stiff: [slab, 'M16 4v9M12 13h8'],
  runs: ['M3 25q13-7 26 0z', 'M8 15q4 3 8 0t8 0'],
  pan: [slab, 'M2 26h28M8 22v4M14 22v4M20 22v4'],
  spread: ['M1 24h30q-3-5-15-5T1 24z', 'M8 14H2M24 14h6M5 11l-3 3 3 3M27 11l3 3-3 3'],
  burst: ['M4 24q0-12 12-12t12 12z', 'M16 12V5M11 13L7 7M21 13l4-6'],
  blister: [slab, 'M8 15q2-5 5 0M18 14q3-6 6 0'],
  edge: [slab, 'M3 22v-6h4v6zM25 22v-6h4v6z'],
  burnt: [loaf, 'M6 12h20M8 9h16M6 15h20M5 18h22'],
  dark: [loaf, 'M7 11h18M6 15h20'],
  pale: [loaf, ''],
  raw: [loaf, 'M12 19q4-6 8 0-4 4-8 0z'],
  gummy: [loaf, 'M9 18q3-4 7-1t7 0q-2 5-7 4t-7-3z'],
  dense: ['M4 25v-7q12-4 24 0v7z', 'M9 22h1M14 21h1M19 22h1M23 21h1'],
  sank: ['M4 24V13q6-3 12 4 6-7 12-4v11z', 'M16 5v7M13 9l3 3 3-3'],
  hollow: [loaf, 'M8 14q8-6 16 0-8 3-16 0z'],
  soggy: [slab, 'M8 13q2-4 4 0-2 3-4 0M18 12q2-4 4 0-2 3-4 0'],
  dry: [loaf, 'M10 12l2 8M17 10l-1 11M23 13l-2 7'],
  soft: [slab, 'M5 12q11 8 22 0'],
  rubber: [slab, 'M6 12q10-8 20 0'],
  falls: ['M5 20V12q6-4 12 0v8z', 'M21 24h2M25 22h2M22 19h2M27 25h1'],
  grit: [loaf, 'M10 15h1M14 18h1M19 14h1M22 19h1M12 21h1M17 11h1'],
  oily: [slab, 'M16 6q-4 5 0 7t0-7z'],
  egg: ['M9 25q-3-18 7-18t7 18q-7 3-14 0z', 'M16 17m-4 0a4 4 0 1 0 8 0 4 4 0 1 0-8 0'],
  coconut: ['M4 17a12 10 0 1 1 24 0 12 10 0 1 1-24 0', 'M8 17a8 6 0 1 1 16 0'],
  salty: ['M10 26V12h12v14z', 'M12 12q4-7 8 0M14 9h1M17 8h1'],
  bland: [loaf, 'M12 18h8'],
  soapy: [loaf, 'M9 9a3 3 0 1 0 6 0 3 3 0 1 0-6 0M19 7a2 2 0 1 0 4 0 2 2 0 1 0-4 0'],
  sharp: [loaf, 'M9 20l4-9 3 6 3-8 4 11'],
  cool: [loaf, 'M16 9v12M10 12l12 6M22 12l-12 6'],
  purple: [loaf, 'M9 21q7-9 14 0'],
}
</script>

<template>
  <svg viewBox="0 0 32 28" width="40" height="35" aria-hidden="true">
    <path :d="(drawn[picture] ?? [loaf, ''])[0]" class="bread" />
    <path :d="(drawn[picture] ?? [loaf, ''])[1]" class="fault" />
  </svg>
</template>

<style scoped>
.bread {
  fill: var(--role-egg);
  stroke: var(--rule-strong);
}

.fault {
  fill: none;
  stroke: var(--act);
  stroke-width: 1.8;
  stroke-linecap: round;
  stroke-linejoin: round;
}
</style>
