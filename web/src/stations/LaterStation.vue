<script setup lang="ts">
import { computed } from 'vue'
import { stations } from '@/components/frame/stations'

const props = defineProps<{ station: string }>()
const here = computed(() => stations.find((s) => s.id === props.station))
</script>

<template>
  <section class="later">
    <h2>{{ here?.word }}</h2>
    <p class="decides">{{ here?.decides }}.</p>
    <p class="note">Coming later.</p>
    <router-link class="quiet-button" to="/formula">To the formulas</router-link>
  </section>
</template>

<style scoped>
.later {
  max-width: 520px;
  margin: 12vh auto 0;
  padding: 0 24px;
}

h2 {
  font-size: 30px;
}

.decides {
  font-size: 18px;
}

a {
  text-decoration: none;
}
</style>
