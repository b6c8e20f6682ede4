<script setup lang="ts">
/** What a hand does with a dough of each class, drawn: a finger, and what the dough does under it. */
defineProps<{ feel: string }>()
const drawn: Record<string, { dough: string; mark: string }> = {
  pourable: { dough: 'M4 34q10 4 20 2t20 2v6H4z', mark: 'M24 6v20M18 22q6 10 12 0' },
  spoonable: { dough: 'M4 32q8-6 18-2t22-1v15H4z', mark: 'M10 10q10-6 14 4t-4 12' },
  spreadable: { dough: 'M4 30q14-3 40 0v14H4z', mark: 'M6 22h34M34 18l6 4-6 4' },
  tacky: { dough: 'M4 28q10-8 16-8t6-6 6 8 12 6v16H4z', mark: 'M26 4v10M22 14q4 6 8 0' },
  rollable: { dough: 'M4 27h40v17H4z', mark: 'M12 16a6 6 0 1 0 12 0 6 6 0 1 0-12 0M26 16h16M38 12l4 4-4 4' },
  stiff: { dough: 'M4 24h40v20H4z', mark: 'M24 4v16M18 20h12' },
  crumbly: { dough: 'M4 34h12l2-4 6 6 4-8 8 6h8v10H4z', mark: 'M12 20l3-3M24 16l3-4M34 20l3-3M20 24l2-3' },
  tears: { dough: 'M4 24h17l-4 6 5 4-3 10H4zM44 24H27l-3 6 4 5-3 9h19z', mark: 'M14 14l-6 4M34 14l6 4' },
  greasy: { dough: 'M4 28h40v16H4z', mark: 'M16 12q-4 6 0 8t4-2-4-6M32 10q-4 6 0 8t4-2-4-6' },
}
</script>

<template>
  <svg viewBox="0 0 48 46" width="52" height="50" aria-hidden="true">
    <path :d="drawn[feel]?.dough ?? ''" class="dough" />
    <path :d="drawn[feel]?.mark ?? ''" class="hand" />
  </svg>
</template>

<style scoped>
.dough {
  fill: url(#hatch-base);
  stroke: var(--ink);
}

.hand {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.2;
  stroke-linecap: round;
  stroke-linejoin: round;
}
</style>
