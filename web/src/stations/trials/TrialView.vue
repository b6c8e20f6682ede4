<script setup lang="ts">
/**
 * Was it good, why not, what next? Before a verdict the eye falls on three large words and on the faults as pictures; after it, on
 * the first cause and on what to do next time. The next key answers a question or opens the proposal on the bench.
 */
import { computed, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, settled } from '@/api/client'
import type { FormulaDocument, Proposal, Verdict } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { useJob } from '@/composables/useJob'
import { ago } from '@/domain/format'
import { useSession } from '@/stores/session'
import { useSettle } from '@/stores/settle'
import CrustPhotos from './CrustPhotos.vue'
import FaultPicture from './FaultPicture.vue'
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

type Said = Required<Verdict>
const empty = (): Said => ({
  hours_after: null,
  liked: '',
  again: '',
  faults: [],
  colour: null,
  lightness: null,
  scores: {},
  asked: {},
  note: '',
})
const verdict = reactive<Said>(empty())
watch(judged, (known) => Object.assign(verdict, empty(), known ? (JSON.parse(JSON.stringify(known)) as Verdict) : {}), { immediate: true })

const GROUPS = [
  { id: 'dough', name: 'the dough' },
  { id: 'out', name: 'as it came out' },
  { id: 'crumb', name: 'inside' },
  { id: 'taste', name: 'eaten' },
]
const faults = computed(() => {
  const form = row.value?.form ?? ''
  const own = (session.words?.faults ?? []).filter((f) => !f.forms.length || f.forms.includes(form))
  return GROUPS.map((group) => ({ ...group, own: own.filter((f) => f.group === group.id) })).filter((g) => g.own.length)
})
const has = (id: string): boolean => verdict.faults.some((f) => f.id === id)
function toggle(id: string): void {
  verdict.faults = has(id) ? verdict.faults.filter((f) => f.id !== id) : [...verdict.faults, { id, where: '' }]
}
const chips = [-2, -1, 0, 1, 2] as const
const chipWords = ['far too pale', 'pale', 'as wanted', 'dark', 'far too dark']
/** The three scores that are asked first; more can be said. */
const more = ref(false)
const axes = computed(() => {
  const every = session.words?.textures ?? []
  return more.value ? every : every.slice(0, 3)
})

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
  verdict.asked = { ...verdict.asked, [cause]: yes }
  await giving.run(verdict)
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
    <p v-if="opened.missing.value" role="alert">{{ opened.trouble.value }} <router-link to="/trials">To the trials</router-link></p>
    <template v-if="row">
      <header>
        <h2>{{ row.name }}</h2>
        <span class="note">{{ ago(row.started_at) }} · {{ row.number ? `version ${row.number}` : 'draft' }} · {{ row.batches }} ×</span>
        <router-link v-if="row.formula_id" class="quiet-button" :to="`/trials?formula=${row.formula_id}`">Trials of it</router-link>
        <v-btn v-if="judged && session.may('bakes.edit')" class="quiet-button" @click="editing = !editing">{{
          editing ? 'Back' : 'Change the verdict'
        }}</v-btn>
        <v-btn v-if="session.may('bakes.edit')" class="quiet-button" @click="leaving.run(!row.left_out)">{{
          row.left_out ? 'Take it into the learning' : 'Leave it out of the learning'
        }}</v-btn>
      </header>
      <form v-if="asking" class="ask" @submit.prevent="giving.run(verdict)">
        <fieldset>
          <legend>How was it?</legend>
          <div class="row">
            <v-btn
              v-for="word in ['good', 'so-so', 'bad']"
              :key="word"
              class="word"
              :class="{ chosen: verdict.liked === word }"
              :aria-pressed="verdict.liked === word"
              @click="verdict.liked = word as Verdict['liked']"
              >{{ word }}</v-btn
            >
            <label class="eaten"
              >eaten
              <v-text-field
                class="field few"
                inputmode="decimal"
                aria-label="Hours after baking"
                :model-value="verdict.hours_after === null ? '' : String(verdict.hours_after)"
                @update:model-value="(v: string) => (verdict.hours_after = v.trim() && Number.isFinite(Number(v)) ? Number(v) : null)"
              />
              h after baking</label
            >
          </div>
        </fieldset>
        <fieldset>
          <legend>Its colour</legend>
          <div class="row">
            <v-btn
              v-for="(chip, n) in chips"
              :key="chip"
              class="chip"
              :class="{ chosen: verdict.colour === chip }"
              :aria-pressed="verdict.colour === chip"
              :aria-label="chipWords[n]"
              @click="verdict.colour = verdict.colour === chip ? null : chip"
              ><span :class="`crust c${n}`" /><small>{{ chipWords[n] }}</small></v-btn
            >
          </div>
        </fieldset>
        <fieldset>
          <legend>Or a photo of it</legend>
          <CrustPhotos :run-id="runId" @read="(l) => (verdict.lightness = l)" />
        </fieldset>
        <fieldset v-for="group in faults" :key="group.id">
          <legend>What went wrong: {{ group.name }}</legend>
          <div class="row">
            <v-btn
              v-for="f in group.own"
              :key="f.id"
              class="fault"
              :class="{ chosen: has(f.id) }"
              :aria-pressed="has(f.id)"
              @click="toggle(f.id)"
              ><FaultPicture :picture="f.picture" /><span>{{ f.name }}</span></v-btn
            >
          </div>
        </fieldset>
        <fieldset>
          <legend>0 to 10, if you like</legend>
          <label v-for="axis in axes" :key="axis.id" class="score"
            ><span>{{ axis.name }}</span>
            <v-slider
              :model-value="verdict.scores[axis.id] ?? 5"
              :min="0"
              :max="10"
              :step="0.5"
              :aria-label="axis.name"
              hide-details
              @update:model-value="(v: number) => (verdict.scores = { ...verdict.scores, [axis.id]: v })"
            />
            <b>{{ verdict.scores[axis.id] ?? '–' }}</b></label
          >
          <v-btn class="quiet-button" @click="more = !more">{{ more ? 'fewer' : 'more' }}</v-btn>
        </fieldset>
        <fieldset>
          <legend>Again?</legend>
          <div class="row">
            <v-btn
              v-for="word in ['keep', 'again', 'drop']"
              :key="word"
              class="word"
              :class="{ chosen: verdict.again === word }"
              :aria-pressed="verdict.again === word"
              @click="verdict.again = word as Verdict['again']"
              >{{ word === 'keep' ? 'keep it so' : word === 'again' ? 'try again' : 'drop it' }}</v-btn
            >
          </div>
        </fieldset>
        <v-textarea v-model="verdict.note" class="field" rows="2" placeholder="A note" aria-label="A note" maxlength="5000" />
        <p v-if="giving.trouble.value" role="alert" class="act">{{ giving.trouble.value }}</p>
        <v-btn type="submit" class="act-button huge" :disabled="giving.busy.value || !session.may('bakes.edit')">Save the verdict</v-btn>
      </form>
      <div v-else class="told">
        <p class="verdict">
          <span class="liked" :class="judged?.liked">{{ judged?.liked || 'judged' }}</span>
          <span v-if="judged?.colour != null"> · colour: {{ chipWords[judged.colour + 2] }}</span>
          <span v-if="judged?.note"> · “{{ judged.note }}”</span>
        </p>
        <p v-for="n in notes" :key="n.id" class="note">{{ n.word }}</p>
        <p v-if="why.underWay.value && !diagnosis" class="note" role="status">Working out why …</p>
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

.ask {
  max-width: 900px;
}

fieldset {
  margin: 0 0 12px;
  padding: 0;
  border: 0;
}

legend {
  margin-bottom: 5px;
  font-weight: 650;
}

.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}

.word,
.fault,
.chip {
  min-height: 48px;
  padding: 4px 16px;
  border: 1px solid var(--rule-strong);
  border-radius: 12px;
  background: var(--panel);
  font-size: 17px;
}

.fault {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 4px 12px 4px 6px;
  font-size: 15px;
}

.chip {
  display: flex;
  flex-direction: column;
  align-items: center;
  width: 92px;
  padding: 5px;
}

.chosen {
  border: 3px solid var(--act);
  background: var(--select);
}

.eaten {
  display: flex;
  align-items: center;
  gap: 6px;
  margin-left: 10px;
}

.few {
  width: 58px;
}

.crust {
  display: block;
  width: 100%;
  height: 26px;
  border-radius: 6px;
}

.c0 {
  background: #efe2c4;
}

.c1 {
  background: #e3c68c;
}

.c2 {
  background: #c8913f;
}

.c3 {
  background: #8a5424;
}

.c4 {
  background: #3d2413;
}

.score {
  display: grid;
  grid-template-columns: 110px minmax(0, 380px) 40px;
  align-items: center;
  gap: 10px;
  min-height: 44px;
}

.huge {
  min-height: 56px;
  margin-top: 10px;
  padding: 0 30px;
  font-size: 19px;
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

  .chip {
    width: 64px;
  }
}
</style>
