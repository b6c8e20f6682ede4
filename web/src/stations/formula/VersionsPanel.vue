<script setup lang="ts">
/** Versions with what changed in words, and two of them side by side. */
import { computed, ref, shallowRef, watch } from 'vue'
import { api, Refusal, settled } from '@/api/client'
import type { Analysis, FormulaDocument } from '@/api/types'
import { usePanels } from '@/composables/usePanels'
import { ago } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { useToasts } from '@/stores/toasts'
import SideBySide from './SideBySide.vue'

export interface Side {
  word: string
  document: FormulaDocument
  analysis: Analysis
}

const bench = useBench()
const session = useSession()
const toasts = useToasts()
const panels = usePanels()
const note = ref('')
const saving = ref(false)
const sides = ref<[number, number] | null>(null)
const pair = shallowRef<{ left: Side; right: Side; changes: string[] } | null>(null)
const draftChanges = ref<string[]>([])
const path = computed(() => ({ kitchen_id: session.kitchen?.id ?? 0, formula_id: bench.formulaId }))

const changesBetween = async (before: number, after: number): Promise<string[]> =>
  (await settled(api.GET('/api/kitchens/{kitchen_id}/formulas/{formula_id}/compare', { params: { path: path.value, query: { before, after } } }))).map((c) => c.text)

watch(() => [bench.saveState, bench.baseNumber] as const, async ([state]) => {
  if (state !== 'saved') return
  draftChanges.value = bench.baseNumber ? await changesBetween(bench.baseNumber, 0).catch(() => []) : []
}, { immediate: true })

async function save(): Promise<void> {
  saving.value = true
  try {
    const saved = await bench.saveVersion(note.value)
    if (saved) {
      note.value = ''
      toasts.show(`Kept as v${saved.number}.`)
    } else {
      toasts.show('The draft could not be saved yet, so no version was kept. Its note is still here.', { tone: 'act' })
    }
  } catch (error) {
    toasts.show(error instanceof Refusal ? error.sentence : 'The version could not be kept.', { tone: 'act' })
  }
  saving.value = false
}

async function side(number: number): Promise<Side> {
  const document = number === 0
    ? bench.document
    : ((await settled(api.GET('/api/kitchens/{kitchen_id}/formulas/{formula_id}/versions/{number}', { params: { path: { ...path.value, number } } }))).document as FormulaDocument)
  if (!document) throw new Error('no document on the bench')
  const analysis = await settled(api.POST('/api/kitchens/{kitchen_id}/analyse', { params: { path: { kitchen_id: path.value.kitchen_id } }, body: document }))
  return { word: number === 0 ? 'draft' : `v${number}`, document, analysis }
}

watch(sides, async (two) => {
  pair.value = null
  if (!two) return
  try {
    const [left, right, changes] = await Promise.all([side(two[0]), side(two[1]), changesBetween(two[0], two[1])])
    pair.value = { left, right, changes }
  } catch (error) {
    toasts.show(error instanceof Refusal ? error.sentence : 'The two could not be compared.', { tone: 'act' })
  }
})

watch(panels.version, (number) => {
  sides.value = number === 0 ? null : number === 1 ? [1, 0] : [number - 1, number]
}, { immediate: true })

function close(): void {
  panels.version.value = 0
  sides.value = null
}

async function recall(number: number): Promise<void> {
  await bench.recall(number)
  toasts.show(`v${number} is on the bench as your draft.`, { action: { label: 'Undo', run: () => { bench.goBack() } } })
  panels.open.value = 'lines'
}
</script>

<template>
  <section class="versions" aria-label="Versions">
    <div class="panel-head"><h3>Versions</h3><button class="note" @click="panels.open.value = 'lines'">back to the lines</button></div>
    <form v-if="bench.mayEdit" class="keep" @submit.prevent="save">
      <input v-model="note" class="field" maxlength="500" placeholder="What is this version about?" aria-label="Note for the version" />
      <button class="act-button" :disabled="saving || (!bench.changed && bench.saveState === 'saved')">Keep as v{{ (bench.versions[0]?.number ?? 0) + 1 }}</button>
    </form>
    <p v-if="draftChanges.length" class="since"><b>Draft since v{{ bench.baseNumber }}:</b> {{ draftChanges.join(' · ') }}
      <button class="note" @click="sides = [bench.baseNumber, 0]">side by side</button></p>
    <SideBySide v-if="pair" :left="pair.left" :right="pair.right" :changes="pair.changes" @close="close" />
    <ol v-else class="list">
      <li v-for="v in bench.versions" :key="v.number">
        <span class="figure number">v{{ v.number }}</span>
        <div>
          <p class="about">{{ v.note || 'no note' }}</p>
          <ul v-if="v.changes.length" class="changes"><li v-for="c in v.changes" :key="c">{{ c }}</li></ul>
          <p class="note">{{ v.author }} · {{ ago(v.created_at) }}</p>
        </div>
        <div class="doings">
          <button v-if="v.number > 1" class="note" @click="sides = [v.number - 1, v.number]">beside v{{ v.number - 1 }}</button>
          <button class="note" @click="sides = [v.number, 0]">beside the draft</button>
          <button v-if="bench.mayEdit" class="note" @click="recall(v.number)">bring back</button>
        </div>
      </li>
      <li v-if="!bench.versions.length" class="none note">No version kept yet. A version never changes; the draft goes on.</li>
    </ol>
  </section>
</template>

<style scoped>
.keep {
  display: flex;
  gap: 10px;
}

.keep .act-button {
  flex: none;
}

.since {
  margin: 12px 0 0;
  padding: 8px 12px;
  border-radius: 8px;
  background: var(--select);
}

.since button,
.doings button {
  text-decoration: underline;
  text-decoration-color: var(--rule-strong);
  text-underline-offset: 3px;
}

.list {
  margin: 14px 0 0;
  padding: 0;
  list-style: none;
}

.list > li {
  display: grid;
  grid-template-columns: 46px 1fr auto;
  gap: 8px;
  padding: 12px 0;
  border-top: 1px solid var(--rule);
}

.list > li.none {
  display: block;
}

.number {
  font-size: 18px;
}

.about {
  margin: 0;
  font-weight: 650;
}

.changes {
  margin: 4px 0;
  padding: 0;
  list-style: none;
}

.changes li::before {
  content: '· ';
}

p {
  margin: 0;
}

.doings {
  display: flex;
  flex-direction: column;
  align-items: flex-end;
  gap: 4px;
}
</style>
