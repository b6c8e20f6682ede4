<script setup lang="ts">
/** The most that amounts rounded to 0 on packs can come to, per piece. */
import { useBench } from '@/stores/bench'

const bench = useBench()
const amount = (value: number): string => value.toFixed(value < 1 ? 2 : 1)
</script>

<template>
  <section v-if="bench.analysis?.hidden.length" class="zeros" :aria-label="$t('formula-zeros-hidden-amounts-hidden-by-rounding-to-0')">
    <h3>{{ $t('formula-zeros-hidden-amounts-hidden-by-rounding-to-0') }}</h3>
    <p class="note">{{ $t('formula-zeros-hidden-up-to-per-piece') }}</p>
    <details v-for="h in bench.analysis.hidden" :key="h.figure">
      <summary>
        {{ h.name.toLowerCase() }} <b>{{ amount(h.most_a_piece) }} {{ h.unit }}</b>
      </summary>
      <v-btn v-for="z in h.zeros" :key="z.line" class="note" @click="bench.selected = z.line">
        {{
          $t('formula-zeros-hidden-per-g-can-be-up-to', {
            name: z.name,
            printed: z.printed,
            per_g: z.per_g,
            most_a_piece: amount(z.most_a_piece),
            unit: z.unit,
          })
        }}</v-btn
      >
    </details>
  </section>
</template>

<style scoped>
.zeros {
  margin-bottom: 10px;
}

h3 {
  font-size: 15px;
}

p {
  margin: 0 0 2px;
}

summary {
  padding: 3px 0;
  border-top: 1px solid var(--rule);
  font-size: 13px;
  cursor: pointer;
}

summary b {
  float: right;
}

button {
  display: block;
  padding: 2px 0 2px 16px;
  text-align: left;
}
</style>
