<script setup lang="ts">
/** Versions with what changed in words, and two of them side by side. */
import { computed, ref, watch } from 'vue'
import { api, settled } from '@/api/client'
import type { Analysis, FormulaDocument } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { usePanels } from '@/composables/usePanels'
import { ago } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { useToasts } from '@/stores/toasts'
import SideBySide from './SideBySide.vue'
import { t } from '@/messages'

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
const sides = ref<[number, number] | null>(null)
const path = computed(() => ({ kitchen_id: session.kitchen?.id ?? 0, formula_id: bench.formulaId }))

const changesBetween = async (before: number, after: number): Promise<string[]> =>
  (
    await settled(
      api.GET('/api/kitchens/{kitchen_id}/formulas/{formula_id}/compare', { params: { path: path.value, query: { before, after } } }),
    )
  ).map((c) => c.text)

const unsaved = useAsk(
  () => ['changes', bench.formulaId, bench.baseNumber, bench.saveState === 'saved' ? bench.document : null],
  () => changesBetween(bench.baseNumber, 0),
  { keep: true, when: () => bench.saveState === 'saved' && bench.baseNumber > 0 },
)
const draftChanges = computed(() => (bench.baseNumber ? (unsaved.answer.value ?? []) : []))

const saving = useDo((text: string) => bench.saveVersion(text), {
  then: (saved) => {
    if (saved) note.value = ''
    toasts.show(
      saved
        ? t('formula-versions-panel-saved-as-version', { number: saved.number })
        : t('formula-versions-panel-the-draft-could-not-be-saved'),
      saved ? {} : { tone: 'act' },
    )
  },
})
const save = (): Promise<unknown> => saving.run(note.value)

async function side(number: number): Promise<Side> {
  const document =
    number === 0
      ? bench.document
      : ((
          await settled(
            api.GET('/api/kitchens/{kitchen_id}/formulas/{formula_id}/versions/{number}', { params: { path: { ...path.value, number } } }),
          )
        ).document as FormulaDocument)
  if (!document) throw new Error(t('formula-versions-panel-no-formula-is-open'))
  const analysis = await settled(
    api.POST('/api/kitchens/{kitchen_id}/analyse', { params: { path: { kitchen_id: path.value.kitchen_id } }, body: document }),
  )
  return { word: number === 0 ? 'draft' : `v${number}`, document, analysis }
}

const compared = useAsk(
  () => [t('formula-versions-panel-side-by-side'), bench.formulaId, sides.value, bench.document],
  async () => {
    const [left, right] = sides.value ?? [0, 0]
    const [one, other, changes] = await Promise.all([side(left), side(right), changesBetween(left, right)])
    return { left: one, right: other, changes }
  },
  { keep: true, when: () => sides.value !== null },
)
const pair = computed(() => (sides.value ? compared.answer.value : null))

watch(
  panels.version,
  (number) => {
    sides.value = number === 0 ? null : number === 1 ? [1, 0] : [number - 1, number]
  },
  { immediate: true },
)

function close(): void {
  panels.version.value = 0
  sides.value = null
}

const recalling = useDo((number: number) => bench.recall(number), {
  then: (_, number) => {
    toasts.show(t('formula-versions-panel-v-is-now-your-draft', { number }), {
      action: {
        label: t('formula-versions-panel-undo'),
        run: () => {
          bench.goBack()
        },
      },
    })
    panels.open.value = 'lines'
  },
})
const recall = (number: number): void => {
  void recalling.run(number)
}
</script>

<template>
  <section class="versions" :aria-label="$t('formula-versions-panel-versions')">
    <div class="panel-head">
      <h3>{{ $t('formula-versions-panel-versions') }}</h3>
      <v-btn class="note" @click="panels.open.value = 'lines'">{{ $t('formula-versions-panel-back-to-ingredients') }}</v-btn>
    </div>
    <form v-if="bench.mayEdit" class="keep" @submit.prevent="save">
      <v-text-field
        v-model="note"
        class="field"
        maxlength="500"
        :placeholder="$t('formula-versions-panel-what-is-this-version-about')"
        :aria-label="$t('formula-versions-panel-note-for-the-version')"
      />
      <v-btn type="submit" class="act-button" :disabled="saving.busy.value || (!bench.changed && bench.saveState === 'saved')"
        >{{ $t('formula-versions-panel-save-version', { number: (bench.versions[0]?.number ?? 0) + 1 }) }}
      </v-btn>
    </form>
    <p v-if="draftChanges.length" class="since">
      <b>{{ $t('formula-versions-panel-draft-since-v', { base_number: bench.baseNumber }) }}</b> {{ draftChanges.join(' · ') }}
      <v-btn class="note" @click="sides = [bench.baseNumber, 0]">{{ $t('formula-versions-panel-side-by-side') }}</v-btn>
    </p>
    <SideBySide v-if="pair" :left="pair.left" :right="pair.right" :changes="pair.changes" @close="close" />
    <ol v-else class="list">
      <li v-for="v in bench.versions" :key="v.number">
        <span class="figure number">{{ $t('formula-versions-panel-v', { number: v.number }) }}</span>
        <div>
          <p class="about">{{ v.note || $t('formula-versions-panel-no-note') }}</p>
          <ul v-if="v.changes.length" class="changes">
            <li v-for="c in v.changes" :key="c">{{ c }}</li>
          </ul>
          <p class="note">{{ v.author }} · {{ ago(v.created_at) }}</p>
        </div>
        <div class="actions">
          <v-btn v-if="v.number > 1" class="note" @click="sides = [v.number - 1, v.number]">{{
            $t('formula-versions-panel-compare-with-v', { number: v.number - 1 })
          }}</v-btn>
          <v-btn class="note" @click="sides = [v.number, 0]">{{ $t('formula-versions-panel-compare-with-draft') }}</v-btn>
          <v-btn v-if="bench.mayEdit" class="note" @click="recall(v.number)">{{ $t('formula-versions-panel-restore') }}</v-btn>
        </div>
      </li>
      <li v-if="!bench.versions.length" class="none note">{{ $t('formula-versions-panel-no-version-saved-yet-a-saved') }}</li>
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
.actions button {
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

.actions {
  display: flex;
  flex-direction: column;
  align-items: flex-end;
  gap: 4px;
}
</style>
