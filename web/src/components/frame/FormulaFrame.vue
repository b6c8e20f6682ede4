<script setup lang="ts">
/** What the stations of a formula share: the core at the left, the balance at the right, the work between. */
import { useMediaQuery } from '@vueuse/core'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import BalancePanel from '@/components/balance/BalancePanel.vue'
import CoreColumn from '@/components/core/CoreColumn.vue'
import { stations } from '@/components/frame/stations'
import { useBalance } from '@/composables/useBalance'
import { figure } from '@/domain/format'
import { isOutside } from '@/domain/states'
import { useBench } from '@/stores/bench'
import { t } from '@/messages'

const { balance = true, sideWord = '' } = defineProps<{ missing: string; balance?: boolean; sideWord?: string }>()
const bench = useBench()
const route = useRoute()
const station = computed(() => stations.find((s) => s.id === route.meta.station)?.word ?? '')
const { sheet } = useBalance()
/** On a phone the side comes up as a sheet, from the sentence or from its own button. */
const phone = useMediaQuery('(max-width: 700px)')
const told = computed(() => {
  if (sideWord) return sideWord
  const brackets = bench.analysis?.brackets ?? []
  const short = (key: string, word: string): string => {
    const b = brackets.find((row) => row.key === key)
    return b ? `${figure(b.estimate.value, b.decimals)} g ${word}` : ''
  }
  const outside = brackets.filter((b) => isOutside(b.state)).length
  return [
    t('frame-formula-frame-targets'),
    short('net_carbs', 'net'),
    short('protein', 'protein'),
    outside ? t('frame-formula-frame-outside', { outside }) : '',
  ]
    .filter(Boolean)
    .join(' · ')
})
</script>

<template>
  <div v-if="missing" class="missing" role="alert">
    <p>{{ missing }}</p>
    <router-link class="quiet-button" to="/formula">{{ $t('frame-formula-frame-back-to-formulas') }}</router-link>
  </div>
  <div v-else class="station" :class="{ wide: !balance }">
    <CoreColumn class="core-side" />
    <div class="middle">
      <h2 class="visually-hidden">{{ station }}</h2>
      <slot />
    </div>
    <slot v-if="balance && !phone" name="side"><BalancePanel class="balance-side" /></slot>
    <template v-else-if="balance">
      <v-btn class="sheet-button" aria-haspopup="dialog" @click="sheet = true">{{ told }}</v-btn>
      <v-bottom-sheet v-model="sheet" scrollable :aria-label="sideWord || $t('frame-formula-frame-targets')">
        <div class="sheet-inside">
          <v-btn class="quiet-button sheet-close" @click="sheet = false">{{ $t('frame-formula-frame-close') }}</v-btn>
          <slot name="side"><BalancePanel /></slot>
        </div>
      </v-bottom-sheet>
    </template>
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

  .core-side {
    display: none;
  }

  .middle {
    margin: 0;
    padding: 10px 12px 70px;
    overflow: visible;
  }

  .sheet-button {
    position: sticky;
    bottom: 0;
    display: block;
    width: 100%;
    min-height: 44px;
    padding: 8px 12px;
    border-top: 1px solid var(--rule-strong);
    border-radius: 0;
    background: var(--balance);
    font-weight: 650;
    text-align: left;
  }
}

.sheet-inside {
  max-height: 78vh;
  overflow-y: auto;
  border-radius: 14px 14px 0 0;
  background: var(--balance);
}

.sheet-close {
  position: sticky;
  top: 8px;
  z-index: 2;
  display: block;
  margin: 8px 12px 0 auto;
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
