<script setup lang="ts">
/**
 * Was it good, why not, what next? Before a verdict the eye falls on three large words and on the faults as pictures; after it, on
 * the first cause and on what to do next time. The next key answers a question or opens the proposal on the bench.
 */
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, settled } from '@/api/client'
import type { FormulaDocument, Proposal, Verdict } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { useJob } from '@/composables/useJob'
import { ago } from '@/domain/format'
import { useSession } from '@/stores/session'
import { useSettle } from '@/stores/settle'
import { chipWords, verdictFrom } from './verdicts'
import VerdictForm from './VerdictForm.vue'
import WhyPanel from './WhyPanel.vue'

const props = defineProps<{ runId: number }>()
const session = useSession()
const router = useRouter()
const settle = useSettle()
const opened = useAsk(
  () => ['trial', props.runId],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/runs/{run_id}', { params: { path: { ...at, run_id: props.runId } } })),
)
const row = computed(() => opened.answer.value?.run ?? null)
const editing = ref(false)
const judged = computed(() => opened.answer.value?.verdict ?? null)
const asking = computed(() => opened.answer.value !== null && (judged.value === null || editing.value))

const why = useJob()
const explain = (): void => {
  void why.start({ kind: 'why', run_id: props.runId })
}
watch(
  () => judged.value && row.value?.id,
  (id) => {
    if (id && !editing.value && session.may('bakes.edit')) explain()
  },
  { immediate: true },
)
const giving = useDo(
  (body: Verdict, at) =>
    settled(api.PUT('/api/kitchens/{kitchen_id}/runs/{run_id}/verdict', { params: { path: { ...at, run_id: props.runId } }, body })),
  {
    here: true,
    then: async () => {
      editing.value = false
      await opened.again()
      explain()
    },
  },
)
async function answer(cause: string, yes: boolean): Promise<void> {
  const verdict = verdictFrom(judged.value)
  await giving.run({ ...verdict, asked: { ...verdict.asked, [cause]: yes } })
}
const leaving = useDo(
  (left_out: boolean, at) =>
    settled(
      api.PATCH('/api/kitchens/{kitchen_id}/runs/{run_id}', { params: { path: { ...at, run_id: props.runId } }, body: { left_out } }),
    ),
  { then: () => opened.again() },
)
/** The proposal lies beside the core of the bench as a ghost, until it is taken. */
const placing = useDo((document: FormulaDocument, at) =>
  settled(
    api.POST('/api/kitchens/{kitchen_id}/runs/{run_id}/proposal', { params: { path: { ...at, run_id: props.runId } }, body: { document } }),
  ),
)
async function open(proposal: Proposal): Promise<void> {
  if (!proposal.document || !row.value?.formula_id) return
  const placed = await placing.run(proposal.document)
  if (!placed) return
  settle.proposal = {
    formulaId: row.value.formula_id,
    text: proposal.text,
    edits: proposal.edits,
    document: placed.document,
    conflicts: placed.conflicts,
  }
  await router.push(`/formula/${row.value.formula_id}`)
}
const diagnosis = computed(() => why.job.value?.why ?? null)
const notes = computed(() =>
  (opened.answer.value?.entries ?? []).filter((e) => e.kind === 'note' && e.word && !/^(step|target|read):/.test(e.what)),
)
</script>

<template>
  <div class="page">
    <p v-if="opened.missing.value" role="alert">
      {{ opened.trouble.value }} <router-link to="/trials">{{ $t('trials-trial-view-to-the-trials') }}</router-link>
    </p>
    <template v-if="row">
      <header>
        <h2>{{ row.name }}</h2>
        <span class="note"
          >{{ ago(row.started_at) }} ·
          {{ row.number ? $t('trials-trial-view-version', { number: row.number }) : $t('trials-trial-view-draft') }} ·
          {{ row.batches }} ×</span
        >
        <router-link v-if="row.formula_id" class="quiet-button" :to="`/trials?formula=${row.formula_id}`">{{
          $t('trials-trial-view-all-bakes-of-this-formula')
        }}</router-link>
        <v-btn v-if="judged && session.may('bakes.edit')" class="quiet-button" @click="editing = !editing">{{
          editing ? $t('trials-trial-view-back') : $t('trials-trial-view-edit-rating')
        }}</v-btn>
        <v-btn v-if="session.may('bakes.edit')" class="quiet-button" @click="leaving.run(!row.left_out)">{{
          row.left_out ? $t('trials-trial-view-use-for-learning') : $t('trials-trial-view-exclude-from-learning')
        }}</v-btn>
      </header>
      <VerdictForm
        v-if="asking"
        :run-id="runId"
        :form="row.form"
        :before="judged"
        :busy="giving.busy.value || !session.may('bakes.edit')"
        :trouble="giving.trouble.value"
        @save="giving.run($event)"
      />
      <div v-else class="told">
        <p class="verdict">
          <span class="liked" :class="judged?.liked">{{ judged?.liked || $t('trials-trial-view-rated') }}</span>
          <span v-if="judged?.colour != null"> {{ $t('trials-trial-view-color', { colour: chipWords[judged.colour + 2] }) }}</span>
          <span v-if="judged?.note"> · “{{ judged.note }}”</span>
        </p>
        <p v-for="n in notes" :key="n.id" class="note">{{ n.word }}</p>
        <p v-if="why.underWay.value && !diagnosis" class="note" role="status">{{ $t('trials-trial-view-working-out-why') }}</p>
        <p v-if="why.trouble.value" role="alert" class="act">{{ why.trouble.value }}</p>
        <WhyPanel v-if="diagnosis" :diagnosis="diagnosis" :may="session.may('bakes.edit')" @answer="answer" @open="open" />
      </div>
    </template>
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  padding: 14px 24px 60px;
  overflow-y: auto;
}

header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  margin-bottom: 8px;
}

header .note {
  flex: 1;
}

.quiet-button {
  text-decoration: none;
}

.verdict {
  font-size: 16px;
}

.liked {
  padding: 3px 12px;
  border-radius: 10px;
  background: var(--rail);
  font-weight: 700;
}

.liked.good {
  background: var(--in-soft);
  color: var(--in);
}

.liked.bad {
  background: var(--act-soft);
  color: var(--act);
}

@media (max-width: 700px) {
  .page {
    padding: 10px 12px 60px;
  }
}
</style>
