<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { useBench } from '@/stores/bench'
import { stationAddress, stations, type Station } from './stations'

const route = useRoute()
const bench = useBench()
const here = computed(() => route.meta.station ?? String(route.params.station ?? ''))
/** Back to the formula on the bench; pressed again there, to the shelf. */
const home = (station: Station): string => (here.value === station.id ? `/${station.id}` : stationAddress(station, bench.formulaId))
</script>

<template>
  <nav class="rail" :aria-label="$t('frame-station-rail-stations')">
    <router-link to="/formula" class="mark" :aria-label="$t('frame-station-rail-substrata-all-formulas')">S</router-link>
    <router-link
      v-for="station in stations"
      :key="station.id"
      :to="home(station)"
      class="station"
      :class="{ here: here === station.id }"
      :aria-current="here === station.id ? 'page' : undefined"
    >
      <v-icon :icon="station.icon" size="21" aria-hidden="true" />
      <span>{{ station.word }}</span>
    </router-link>
  </nav>
</template>

<style scoped>
.rail {
  grid-row: 1 / 3;
  display: flex;
  flex-direction: column;
  gap: 2px;
  background: var(--rail);
  border-right: 1px solid var(--rule);
  overflow-y: auto;
  scrollbar-width: none;
}

.mark {
  padding: 10px 0 6px;
  font: 800 24px/1 var(--head);
  text-align: center;
  text-decoration: none;
}

.station {
  position: relative;
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 3px;
  padding: 8px 0 7px;
  font-size: 12px;
  text-decoration: none;
}

.station:hover {
  background: color-mix(in srgb, var(--panel) 55%, transparent);
}

.station.here {
  background: var(--ground);
  color: var(--ink);
  font-weight: 650;
}

.station.here::before {
  content: '';
  position: absolute;
  inset: 0 auto 0 0;
  width: 4px;
  background: var(--act);
}

.station:focus-visible {
  outline-offset: -3px;
}

@media (max-width: 700px) {
  .rail {
    grid-row: 3;
    flex-direction: row;
    border-top: 1px solid var(--rule);
    border-right: 0;
    overflow-x: auto;
  }

  .mark {
    display: none;
  }

  .station {
    flex: none;
    width: 62px;
    padding: 8px 0;
  }

  .station.here::before {
    inset: 0 0 auto;
    width: auto;
    height: 4px;
  }
}

@media (max-height: 740px) {
  .station {
    padding: 5px 0 4px;
  }
}
</style>
