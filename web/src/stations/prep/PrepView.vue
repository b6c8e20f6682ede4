<script setup lang="ts">
/**
 * Prep decides how each thing is readied before it meets the others: how dry the vegetable, how warm the water, how
 * long the cheese. The eye falls on the first card's number and on the matter drawn beside it; the next keystroke
 * changes an input or types a weight, and the card, the core and the balance answer.
 */
import { computed, shallowRef, watch } from 'vue'
import { api, settled } from '@/api/client'
import type { FormulaDocument } from '@/api/types'
import FormulaFrame from '@/components/frame/FormulaFrame.vue'
import { useLatest } from '@/composables/useLatest'
import { useOpenFormula } from '@/composables/useOpenFormula'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import ChangesStrip from './ChangesStrip.vue'
import PrepTaskView from './PrepTaskView.vue'
import PrepInputs from './PrepInputs.vue'

const props = defineProps<{ id: number }>()
const bench = useBench()
const session = useSession()
const { missing } = useOpenFormula(() => props.id)
/** The document before the last weight was typed: what changed since is told. */
const before = shallowRef<FormulaDocument | null>(null)

const latest = useLatest((question: { kitchenId: number; document: FormulaDocument; before: FormulaDocument | null }) =>
  settled(
    api.POST('/api/kitchens/{kitchen_id}/prep', {
      params: { path: { kitchen_id: question.kitchenId } },
      body: { document: question.document, before: question.before },
    }),
  ),
)
const plan = computed(() => latest.answer.value?.plan ?? null)
const changes = computed(() => (before.value ? (latest.answer.value?.changes ?? []) : []))

watch(
  [() => bench.document, () => session.kitchen, before],
  ([document, kitchen]) => {
    if (document && kitchen && bench.formulaId === props.id) latest.ask({ kitchenId: kitchen.id, document, before: before.value })
  },
  { immediate: true },
)

function remember(): void {
  before.value = bench.document
}
function undo(): void {
  before.value = null
  bench.goBack()
}
</script>

<template>
  <FormulaFrame :missing="missing">
    <div class="top">
      <h2>{{ $t('prep-prep-view-before-mixing') }}</h2>
      <PrepInputs v-if="plan" :inputs="plan.room" />
    </div>
    <p v-if="latest.refusal.value" role="alert" class="act">{{ latest.refusal.value.sentence }}</p>
    <p v-if="plan?.problems.length" class="act">
      {{ $t('prep-prep-view-left-out-fix-in-the-formula', { problems: plan.problems.length }) }}
    </p>
    <ChangesStrip :changes="changes" :may-undo="bench.canUndo" @undo="undo" @close="before = null" />
    <div v-if="!plan && !latest.refusal.value" class="skeleton wait" />
    <p v-else-if="plan && !plan.tasks.length" class="note">
      {{ $t('prep-prep-view-nothing-to-prepare-yet-add-at') }}
      <router-link :to="`/formula/${id}`">{{ $t('prep-prep-view-back-to-the-formula') }}</router-link>
    </p>
    <ol v-else-if="plan" class="cards">
      <PrepTaskView
        v-for="(task, n) in plan.tasks"
        :key="`${task.kind} ${task.lines[0] ?? ''}`"
        :task="task"
        :number="n + 1"
        @weighing="remember"
      />
    </ol>
  </FormulaFrame>
</template>

<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  justify-content: space-between;
  gap: 4px 18px;
}

h2 {
  font-size: 22px;
}

.cards {
  display: flex;
  flex-direction: column;
  gap: 10px;
  margin: 0;
  padding: 0;
  list-style: none;
}

.wait {
  height: 50vh;
}
</style>
