<script setup lang="ts">
/** What the stations of a formula share: the core at the left, the balance at the right, the work between. */
import BalancePanel from '@/components/balance/BalancePanel.vue'
import CoreColumn from '@/components/core/CoreColumn.vue'

const { balance = true } = defineProps<{ missing: string; balance?: boolean }>()
</script>

<template>
  <div v-if="missing" class="missing" role="alert">
    <p>{{ missing }}</p>
    <router-link class="quiet-button" to="/formula">To the shelf</router-link>
  </div>
  <div v-else class="station" :class="{ wide: !balance }">
    <CoreColumn class="core-side" />
    <div class="middle"><slot /></div>
    <slot v-if="balance" name="side"><BalancePanel class="balance-side" /></slot>
  </div>
</template>

<style scoped>
.station {
  display: grid;
  grid-template-columns: 192px minmax(0, 1fr) 300px;
  height: 100%;
}

.station.wide {
  grid-template-columns: 192px minmax(0, 1fr);
}

.middle {
  display: flex;
  flex-direction: column;
  gap: 12px;
  min-width: 0;
  margin-left: -6px;
  padding: 14px 12px 40px 6px;
  overflow-y: auto;
  scrollbar-width: thin;
}

.missing {
  margin: 14vh auto 0;
  max-width: 520px;
}

.missing a {
  text-decoration: none;
}

@media (max-width: 1140px) {
  .station {
    grid-template-columns: 176px minmax(0, 1fr) 258px;
  }
}

@media (max-width: 700px) {
  .station,
  .station.wide {
    display: block;
    overflow-y: auto;
  }

  .core-side,
  .balance-side {
    display: none;
  }

  .middle {
    margin: 0;
    padding: 10px 12px 40px;
    overflow: visible;
  }
}

@media print {
  .station,
  .station.wide {
    display: block;
    height: auto;
  }

  .core-side,
  .balance-side {
    display: none;
  }

  .middle {
    padding: 0;
    overflow: visible;
  }
}
</style>
