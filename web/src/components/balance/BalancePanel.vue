<script setup lang="ts">
/** The balance: every quantity against its window, then what else to know. */
import { computed, ref } from 'vue'
import { isOutside } from '@/domain/states'
import { useBench } from '@/stores/bench'
import { useBalance } from '@/composables/useBalance'
import { usePanels } from '@/composables/usePanels'
import { useReach } from '@/composables/useReach'
import BracketPanel from './BracketPanel.vue'
import ClaimStrip from './ClaimStrip.vue'
import EaterStrip from './EaterStrip.vue'
import MendList from './MendList.vue'

const bench = useBench()
const balance = useBalance()
const more = ref(false)
const primary = computed(() => bench.analysis?.brackets.filter((b) => b.primary) ?? [])
const others = computed(() => bench.analysis?.brackets.filter((b) => !b.primary) ?? [])
const asking = computed(() => others.value.filter((b) => isOutside(b.state)))
const panels = usePanels()
/** Their ends are shown of the bracket that is open, and of all while the dough is being settled. */
const ends = useReach(() => {
  const open = balance.open.value ? [balance.open.value] : []
  return panels.open.value === 'settle' ? [...new Set([...open, ...primary.value.map((b) => b.key)])] : open
})
const suffix = (key: string): string => (key === 'net_carbs' ? (bench.analysis?.basis.convention ?? '') : '')
</script>

<template>
  <aside class="balance" :aria-label="$t('frame-balance-panel-targets')">
    <template v-if="bench.analysis">
      <MendList />
      <BracketPanel
        v-for="b in primary"
        :key="b.key"
        :bracket="b"
        :suffix="suffix(b.key)"
        :ends="ends.get(b.key)"
        :open="balance.open.value === b.key"
        @toggle="balance.toggle(b.key)"
      />
      <BracketPanel
        v-for="b in more ? others : asking"
        :key="b.key"
        :bracket="b"
        :ends="ends.get(b.key)"
        :open="balance.open.value === b.key"
        @toggle="balance.toggle(b.key)"
      />
      <v-btn class="more note" :aria-expanded="more" @click="more = !more">
        {{ more ? $t('frame-balance-panel-fewer') : `${others.map((b) => b.label.toLowerCase()).join(', ')} …` }}
      </v-btn>
      <EaterStrip v-if="bench.analysis.eaters.length" :eaters="bench.analysis.eaters" />
      <ClaimStrip :allergens="bench.analysis.allergens" :claims="bench.analysis.claims" />
    </template>
    <template v-else>
      <div v-for="n in 6" :key="n" class="skeleton waiting" />
    </template>
  </aside>
</template>

<style scoped>
.balance {
  min-height: 0;
  padding: 6px 20px 20px;
  overflow: hidden auto;
  background: var(--balance);
  border-left: 1px solid var(--rule);
  scrollbar-width: thin;
}

@media (max-width: 1140px) {
  .balance {
    padding-inline: 14px;
  }
}

.more {
  width: 100%;
  padding: 8px 0;
  text-align: left;
}

.more:hover {
  color: var(--ink);
}

.waiting {
  height: 74px;
  margin-top: 18px;
}
</style>
