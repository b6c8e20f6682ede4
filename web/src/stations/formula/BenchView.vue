<script setup lang="ts">
/**
 * The Formula station decides how much of each. The eye falls on the sentence, then on a red bracket;
 * the next keystroke or pull changes one line's grams, and the sentence, strata and brackets answer.
 */
import { useEventListener } from '@vueuse/core'
import FormulaFrame from '@/components/frame/FormulaFrame.vue'
import LineTable from '@/components/lines/LineTable.vue'
import { useOpenFormula } from '@/composables/useOpenFormula'
import { usePanels } from '@/composables/usePanels'
import { useBench } from '@/stores/bench'
import ClashBanner from './ClashBanner.vue'
import FactsTable from './FactsTable.vue'
import FrontPanel from './FrontPanel.vue'
import HandlingCurve from './HandlingCurve.vue'
import FormulaNotes from './FormulaNotes.vue'
import MixPanel from './MixPanel.vue'
import NoticeList from './NoticeList.vue'
import PartsPanel from './PartsPanel.vue'
import PastePanel from './PastePanel.vue'
import ProposalBanner from './ProposalBanner.vue'
import ScalePanel from './ScalePanel.vue'
import SettlePanel from './SettlePanel.vue'
import SummarySentence from './SummarySentence.vue'
import TextureBars from './TextureBars.vue'
import VersionsPanel from './VersionsPanel.vue'
import WhatIfPanel from './WhatIfPanel.vue'
import ZerosHidden from './ZerosHidden.vue'

const props = defineProps<{ id: number }>()
const bench = useBench()
const panels = usePanels()
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
    <VersionsPanel v-if="panels.open.value === 'versions'" />
    <PastePanel v-else-if="panels.open.value === 'paste'" />
    <ScalePanel v-else-if="panels.open.value === 'scale'" />
    <SettlePanel v-else-if="panels.open.value === 'settle'" />
    <WhatIfPanel v-else-if="panels.open.value === 'what-if'" />
    <FrontPanel v-else-if="panels.open.value === 'front'" />
    <MixPanel v-else-if="panels.open.value === 'mix'" />
    <PartsPanel v-else-if="panels.open.value === 'parts'" />
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
