<script setup lang="ts">
/**
 * How much of this dough to make. The eye falls on the four ways to say it; the next keystroke in any of them
 * shows the new weights beside the old ones, and one press takes them.
 */
import { computed, ref, watch } from 'vue'
import { api, settled } from '@/api/client'
import type { FormulaDocument } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { usePanels } from '@/composables/usePanels'
import { figure, gramsOf, weight, weightUnit } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { useToasts } from '@/stores/toasts'
import { t } from '@/messages'

const bench = useBench()
const session = useSession()
const toasts = useToasts()
const panels = usePanels()
type Way = 'factor' | 'pieces' | 'piece_g' | 'line'
const way = ref<Way>('factor')
const typed = ref('2')
const line = ref(bench.selected || (bench.lines[0]?.id ?? ''))
const keep = ref(false)
const ways: readonly { value: Way; title: string }[] = [
  { value: 'factor', title: t('formula-scale-panel-times-as-much') },
  { value: 'pieces', title: t('formula-scale-panel-this-many-pieces') },
  { value: 'piece_g', title: t('formula-scale-panel-pieces-of-this-weight') },
  { value: 'line', title: t('formula-scale-panel-what-i-have-of-one-ingredient') },
]
const lines = computed(() => bench.lines.map((l) => ({ value: l.id, title: bench.reading(l)?.name ?? l.note ?? '' })))
watch(way, (now) => {
  typed.value = now === 'factor' ? '2' : now === 'pieces' ? String(bench.document?.form.pieces ?? '') : ''
})

const number = computed(() => Number(typed.value.trim().replace(',', '.')))
const wish = computed(() => {
  if (!typed.value.trim()) return null
  if (way.value === 'line') return { line: line.value, amount: typed.value, keep_pieces: keep.value }
  if (!Number.isFinite(number.value)) return null
  if (way.value === 'pieces') return Number.isInteger(number.value) ? { pieces: number.value } : null
  if (way.value === 'piece_g') return { piece_g: gramsOf(number.value, session.units) }
  return { factor: number.value, keep_pieces: keep.value }
})
const asked = useAsk(
  () => ['scale', bench.formulaId, bench.document, wish.value],
  (at) =>
    settled(
      api.POST('/api/kitchens/{kitchen_id}/scale', {
        params: { path: at },
        body: { document: bench.document as FormulaDocument, amount: '', keep_pieces: false, ...wish.value },
      }),
    ),
  { keep: true, when: () => wish.value !== null && bench.document !== null },
)
const scaled = computed(() => (wish.value && !asked.trouble.value ? asked.answer.value : null))
const after = computed(() => new Map(((scaled.value?.document as FormulaDocument | undefined)?.lines ?? []).map((l) => [l.id, l])))
const pieces = computed(() => (scaled.value?.document as FormulaDocument | undefined)?.form.pieces ?? 0)
const grams = (g: number | null | undefined): string => (g == null ? '' : `${weight(g, session.units)} ${weightUnit(session.units)}`)

function take(): void {
  const made = scaled.value
  if (!made) return
  bench.edit(() => made.document as FormulaDocument)
  toasts.show(t('formula-scale-panel-scaled-by', { factor: figure(made.factor, 2) }), {
    action: { label: t('formula-scale-panel-undo'), run: () => void bench.goBack() },
  })
  panels.open.value = 'lines'
}
</script>

<template>
  <section class="scale" :aria-label="$t('formula-scale-panel-scale')">
    <div class="panel-head">
      <h3>{{ $t('formula-scale-panel-scale') }}</h3>
      <v-btn class="note" @click="panels.open.value = 'lines'">{{ $t('formula-scale-panel-back-to-ingredients') }}</v-btn>
    </div>
    <div class="ways">
      <v-text-field
        v-model="typed"
        @keydown.enter="take"
        class="field much"
        autofocus
        :aria-label="ways.find((w) => w.value === way)?.title"
        autocomplete="off"
      />
      <span v-if="way === 'piece_g'">{{ weightUnit(session.units) }}</span>
      <v-select v-model="way" class="field way" :aria-label="$t('formula-scale-panel-scale-by')" :items="ways" />
      <v-select v-if="way === 'line'" v-model="line" class="field way" :aria-label="$t('formula-scale-panel-ingredient')" :items="lines" />
      <v-checkbox
        v-if="way === 'factor' || way === 'line'"
        v-model="keep"
        :label="$t('formula-scale-panel-keep-the-number-of-pieces-change')"
      />
    </div>
    <p v-if="way === 'line'" class="note">{{ $t('formula-scale-panel-type-what-you-have-3-eggs') }}</p>
    <p v-if="asked.trouble.value && wish" class="act" role="alert">{{ asked.trouble.value }}</p>
    <template v-if="scaled">
      <p class="said" aria-live="polite">
        {{
          $t('formula-scale-panel-this-formula-of-dough-of', {
            factor: figure(scaled.factor, 2),
            dough_g: grams(scaled.dough_g),
            pieces,
            piece_g: grams(scaled.piece_g),
          })
        }}
      </p>
      <table class="figures">
        <thead>
          <tr>
            <th scope="col">{{ $t('formula-scale-panel-ingredient-2') }}</th>
            <th scope="col">{{ $t('formula-scale-panel-now') }}</th>
            <th scope="col">{{ $t('formula-scale-panel-then') }}</th>
            <th scope="col">{{ $t('formula-scale-panel-as-measured') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="l in bench.lines" :key="l.id">
            <th scope="row">{{ bench.reading(l)?.name ?? l.note }}</th>
            <td>{{ grams(l.grams) }}</td>
            <td>
              <b>{{ grams(after.get(l.id)?.grams) }}</b>
            </td>
            <td>{{ after.get(l.id)?.entered }}</td>
          </tr>
        </tbody>
      </table>
      <v-btn class="act-button" @click="take">{{ $t('formula-scale-panel-apply-these-weights') }}</v-btn>
    </template>
  </section>
</template>

<style scoped>
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}

.much {
  width: 110px;
}

.way {
  width: 250px;
}

.said {
  font-size: 17px;
}

table {
  min-width: min(100%, 460px);
  margin: 6px 0 16px;
}
</style>
