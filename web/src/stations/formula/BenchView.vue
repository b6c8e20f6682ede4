<script setup lang="ts">
/**
 * The Formula station decides how much of each. The eye falls on the sentence, then on a red bracket;
 * the next keystroke or pull changes one line's grams, and the sentence, strata and brackets answer.
 */
import { useEventListener } from '@vueuse/core'
import { onBeforeUnmount, ref, watch } from 'vue'
import { Refusal } from '@/api/client'
import BalancePanel from '@/components/balance/BalancePanel.vue'
import CoreColumn from '@/components/core/CoreColumn.vue'
import LineTable from '@/components/lines/LineTable.vue'
import { usePanels } from '@/composables/usePanels'
import { useBench } from '@/stores/bench'
import ClashBanner from './ClashBanner.vue'
import FactsTable from './FactsTable.vue'
import HandlingCurve from './HandlingCurve.vue'
import FormulaNotes from './FormulaNotes.vue'
import NoticeList from './NoticeList.vue'
import PastePanel from './PastePanel.vue'
import SummarySentence from './SummarySentence.vue'
import VersionsPanel from './VersionsPanel.vue'
import ZerosHidden from './ZerosHidden.vue'

const props = defineProps<{ id: number }>()
const bench = useBench()
const panels = usePanels()
const missing = ref('')

watch(() => props.id, async (id) => {
  missing.value = ''
  if (panels.open.value !== 'paste') panels.open.value = 'lines'
  try {
    await bench.flush()
    await bench.open(id)
  } catch (error) {
    missing.value = error instanceof Refusal ? error.sentence : 'The formula could not be opened.'
  }
}, { immediate: true })

useEventListener(window, 'pagehide', () => { bench.leave() })
onBeforeUnmount(() => void bench.flush())

/** A whole list pasted anywhere but into a field goes to the paste panel. */
useEventListener(window, 'paste', (event: ClipboardEvent) => {
  const typing = event.target instanceof HTMLElement && event.target.matches('input, textarea')
  const text = event.clipboardData?.getData('text/plain') ?? ''
  if (!typing && bench.mayEdit && text.trim()) panels.paste(text)
})
</script>

<template>
  <div v-if="missing" class="missing" role="alert"><p>{{ missing }}</p><router-link class="quiet-button" to="/formula">To the shelf</router-link></div>
  <div v-else class="bench">
    <CoreColumn />
    <div class="middle">
      <ClashBanner />
      <SummarySentence />
      <VersionsPanel v-if="panels.open.value === 'versions'" />
      <PastePanel v-else-if="panels.open.value === 'paste'" />
      <template v-else>
        <LineTable />
        <div class="below"><div><HandlingCurve /><FactsTable /></div><div class="beside"><NoticeList /><ZerosHidden /><FormulaNotes /></div></div>
      </template>
    </div>
    <BalancePanel />
  </div>
</template>

<style scoped>
.bench {
  display: grid;
  grid-template-columns: 192px minmax(0, 1fr) 300px;
  height: 100%;
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

.below {
  display: grid;
  grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr);
  gap: 28px;
  padding-top: 6px;
}

.beside:only-child {
  grid-column: 1 / -1;
}

.missing {
  margin: 14vh auto 0;
  max-width: 520px;
}

.missing a {
  text-decoration: none;
}

@media (max-width: 1140px) {
  .bench {
    grid-template-columns: 176px minmax(0, 1fr) 258px;
  }

  .below {
    grid-template-columns: 1fr;
  }
}
</style>
