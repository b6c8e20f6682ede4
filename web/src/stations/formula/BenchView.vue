<script setup lang="ts">
/**
 * The Formula station decides how much of each. The eye falls on the sentence, then on a red bracket;
 * the next keystroke or pull changes one line's grams, and the sentence, strata and brackets answer.
 */
import { useEventListener } from '@vueuse/core'
import { computed, defineAsyncComponent, type Component } from 'vue'
import FormulaFrame from '@/components/frame/FormulaFrame.vue'
import LineTable from '@/components/lines/LineTable.vue'
import { useOpenFormula } from '@/composables/useOpenFormula'
import { usePanels, type Panel } from '@/composables/usePanels'
import { useBench } from '@/stores/bench'
import ClashBanner from './ClashBanner.vue'
import FactsTable from './FactsTable.vue'
import HandlingCurve from './HandlingCurve.vue'
import FormulaNotes from './FormulaNotes.vue'
import NoticeList from './NoticeList.vue'
import ProposalBanner from './ProposalBanner.vue'
import SummarySentence from './SummarySentence.vue'
import TextureBars from './TextureBars.vue'
import ZerosHidden from './ZerosHidden.vue'

/** What opens in place of the lines is fetched when it is opened. */
const PANELS: Partial<Record<Panel, Component>> = {
  versions: defineAsyncComponent(() => import('./VersionsPanel.vue')),
  paste: defineAsyncComponent(() => import('./PastePanel.vue')),
  scale: defineAsyncComponent(() => import('./ScalePanel.vue')),
  settle: defineAsyncComponent(() => import('./SettlePanel.vue')),
  'what-if': defineAsyncComponent(() => import('./WhatIfPanel.vue')),
  front: defineAsyncComponent(() => import('./FrontPanel.vue')),
  mix: defineAsyncComponent(() => import('./MixPanel.vue')),
  parts: defineAsyncComponent(() => import('./PartsPanel.vue')),
}
const props = defineProps<{ id: number }>()
const bench = useBench()
const panels = usePanels()
const panel = computed(() => PANELS[panels.open.value])
const { missing } = useOpenFormula(
  () => props.id,
  () => {
    if (panels.open.value !== 'paste') panels.open.value = 'lines'
  },
)

/** A whole list pasted anywhere but into a field goes to the paste panel. */
useEventListener(window, 'paste', (event: ClipboardEvent) => {
  const typing = event.target instanceof HTMLElement && event.target.matches('input, textarea')
  const text = event.clipboardData?.getData('text/plain') ?? ''
  if (!typing && bench.mayEdit && text.trim()) panels.paste(text)
})
</script>

<template>
  <FormulaFrame :missing="missing">
    <ClashBanner />
    <ProposalBanner />
    <SummarySentence />
    <component :is="panel" v-if="panel" />
    <template v-else>
      <LineTable />
      <div class="below">
        <div><HandlingCurve id="handling" /><TextureBars id="texture" /><FactsTable /></div>
        <div class="beside"><NoticeList /><ZerosHidden /><FormulaNotes /></div>
      </div>
    </template>
  </FormulaFrame>
</template>

<style scoped>
.below {
  display: grid;
  grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr);
  gap: 28px;
  padding-top: 6px;
}

.beside:only-child {
  grid-column: 1 / -1;
}

@media (max-width: 1140px) {
  .below {
    grid-template-columns: 1fr;
  }
}
</style>
