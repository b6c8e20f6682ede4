<script setup lang="ts">
import { useBalance } from '@/composables/useBalance'
import { useBench } from '@/stores/bench'

const bench = useBench()
const balance = useBalance()
const toSection = (id: string): void => {
  document.getElementById(id)?.scrollIntoView({ block: 'center' })
}
</script>

<template>
  <p v-if="bench.analysis" class="sentence" aria-live="polite">
    <span v-for="(phrase, i) in bench.analysis.summary" :key="i"
      ><v-btn
        v-if="phrase.bracket"
        class="link"
        :class="{ asking: phrase.tone === 'act', about: phrase.tone === 'about' }"
        @click="balance.show(phrase.bracket)"
      >
        {{ phrase.text }}</v-btn
      ><v-btn
        v-else-if="phrase.section"
        class="link"
        :class="{ asking: phrase.tone === 'act', about: phrase.tone === 'about' }"
        @click="toSection(phrase.section)"
      >
        {{ phrase.text }}</v-btn
      ><span v-else>{{ phrase.text }}</span></span
    >
  </p>
  <div v-else class="skeleton waiting" />
</template>

<style scoped>
.sentence {
  margin: 0;
  font-size: 18px;
  line-height: 1.4;
  text-wrap: pretty;
}

.link {
  display: inline;
  text-align: left;
  border-bottom: 2px solid var(--role-base);
  line-height: 1.25;
}

.link.about {
  border-bottom-color: var(--about);
  color: var(--about);
}

.link.asking {
  border-bottom-color: var(--act);
  color: var(--act);
}

.waiting {
  height: 25px;
  width: 70%;
}
</style>
