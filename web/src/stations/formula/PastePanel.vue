<script setup lang="ts">
/** A pasted list, read line by line before anything is added. The text stays until it is used. */
import { refDebounced } from '@vueuse/core'
import { computed, nextTick, ref } from 'vue'
import { api, settled } from '@/api/client'
import type { BakeStage, FormulaDocument, LineDocument, PastedLine, Told } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { usePanels } from '@/composables/usePanels'
import { withBake, withLines } from '@/domain/edits'
import { minutes, temperature, weight, weightUnit } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { useToasts } from '@/stores/toasts'
import { t } from '@/messages'

const bench = useBench()
const session = useSession()
const toasts = useToasts()
const panels = usePanels()
const text = panels.pasted
const rested = refDebounced(text, 250)
const box = ref<HTMLTextAreaElement>()
/** The ingredient chosen for a line, by the line's text: it outlives a new reading of the box. */
const chosen = ref<Record<string, string>>({})

const EXAMPLE = [
  t('formula-paste-panel-friday-rolls'),
  'makes 8',
  t('formula-paste-panel-1-1-2-cups-almond-flour'),
  t('formula-paste-panel-2-t-psyllium-husk-powder'),
  t('formula-paste-panel-2-lg-eggs-2-whites'),
  t('formula-paste-panel-a-knob-of-butter'),
  t('formula-paste-panel-tsp-salt'),
  t('formula-paste-panel-bake-at-400-f-for-15'),
].join('\n')
void nextTick(() => box.value?.focus())
/** Names first: rows that grow when their names arrive would move the button away from under the pointer. */
const all = useAsk(
  () => ['ingredients', '', 300],
  () => settled(api.GET('/api/ingredients', { params: { query: { limit: 300 } } })),
)
const names = computed(() => new Map((all.answer.value ?? []).map((i) => [i.id, i.name])))
const pasted = useAsk(
  () => ['paste', rested.value],
  (at) => settled(api.POST('/api/kitchens/{kitchen_id}/paste', { params: { path: at }, body: { text: rested.value } })),
  { keep: true, when: () => rested.value.trim() !== '' },
)
const refusal = computed(() => pasted.trouble.value || all.trouble.value)
const rows = computed<readonly PastedLine[]>(() =>
  rested.value.trim() && all.answer.value && !pasted.trouble.value ? (pasted.answer.value ?? []) : [],
)

/** Rows that the baker leaves out, by their text. What is told of the whole formula is left out where one is on the bench already. */
const ignored = ref<Record<string, boolean>>({})
const fresh = computed(() => bench.lines.length === 0)
const isIgnored = (row: PastedLine): boolean => ignored.value[row.text] ?? (row.status === 'told' && !row.phrases?.note && !fresh.value)
const isRead = (row: PastedLine): boolean => row.status === 'read' || !!chosen.value[row.text]

const ready = computed<LineDocument[]>(
  () =>
    rows.value
      .filter((row) => !isIgnored(row))
      .flatMap((row) => {
        const choice = chosen.value[row.text]
        if (row.status === 'read') return row.lines
        if (choice) return row.lines.map((line) => ({ ...line, id: choice, ingredient: choice }))
        return []
      }) as LineDocument[],
)
const told = computed(() => rows.value.filter((row) => row.phrases && !isIgnored(row)).map((row) => row.phrases as Told))
const left = computed(() => rows.value.filter((row) => ['unsure', 'unknown'].includes(row.status) && !isRead(row) && !isIgnored(row)))
function onPaste(event: ClipboardEvent): void {
  if (!panels.takes(event.clipboardData?.getData('text/plain') ?? '')) event.preventDefault()
}

const reading = useDo(
  (file: File, at) =>
    settled(
      api.POST('/api/kitchens/{kitchen_id}/read-file', {
        params: { path: at },
        body: { file: file as never },
        bodySerializer: () => {
          const form = new FormData()
          form.append('file', file)
          return form
        },
      }),
    ),
  {
    here: true,
    then: (found) => {
      if (found.document) bench.edit(() => found.document as FormulaDocument)
      else text.value = found.text
      if (found.unread.length) toasts.show(t('formula-paste-panel-not-imported', { unread: found.unread.join(', ') }))
    },
  },
)
async function onFile(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) await reading.run(file)
  input.value = ''
}

const nameOf = (id: string): string => names.value.get(id) ?? t('formula-paste-panel-an-ingredient-that-is-not-in')
const grams = (row: PastedLine): string => {
  const known = row.weights.filter((w) => w !== null)
  if (!known.length || known.length < row.lines.length) return ''
  const sum = known.reduce((all, w) => all + (w?.value ?? 0), 0)
  const half = Math.hypot(...known.map((w) => ((w?.high ?? 0) - (w?.low ?? 0)) / 2))
  const spread = half > 0.03 * sum && half >= 0.5 ? ` ± ${weight(half < 2 ? half : Math.round(half), session.units)}` : ''
  return `${weight(sum, session.units)}${spread} ${weightUnit(session.units)}`
}
const means = (row: Told): string =>
  [
    row.name && t('formula-paste-panel-name', { name: row.name }),
    row.form && (session.words?.forms.find((f) => f.id === row.form)?.name.toLowerCase() ?? row.form),
    row.pieces && t('formula-paste-panel-pieces', { pieces: row.pieces }),
    row.oven_c &&
      t('formula-paste-panel-oven-at', {
        oven_c: temperature(row.oven_c, session.units),
        fan: row.fan ? ' ' + t('formula-paste-panel-with-fan') : '',
      }),
    row.minutes && t('formula-paste-panel-min', { minutes: minutes(row.minutes) }),
    row.note && t('formula-paste-panel-kept-as-a-note'),
  ]
    .filter(Boolean)
    .join(', ')

/** What the paste says of the whole formula. */
function withTold(doc: FormulaDocument): FormulaDocument {
  return told.value.reduce((now, t) => {
    let next = now
    if (t.name) next = { ...next, name: t.name }
    if (t.form) next = { ...next, form: { ...next.form, kind: t.form } }
    if (t.pieces) next = { ...next, form: { ...next.form, pieces: t.pieces } }
    if (t.oven_c) next = withBake(next, { oven_c: t.oven_c, ...(t.fan === null ? {} : { fan: t.fan }) })
    if (t.minutes) next = withBake(next, { stages: [{ kind: 'bake', minutes: t.minutes }] as BakeStage[] })
    return t.note ? { ...next, notes: [next.notes, t.note].filter(Boolean).join('\n') } : next
  }, doc)
}

function add(): void {
  const count = ready.value.length
  const rest = left.value.map((row) => row.text)
  bench.edit((doc) =>
    withLines(
      withTold(doc),
      ready.value.map((line) => ({ ...line, id: line.ingredient })),
    ),
  )
  text.value = rest.join('\n')
  toasts.show(
    t('formula-paste-panel-added', { count, rest: rest.length ? t('formula-paste-panel-still-to-choose', { rest: rest.length }) : '' }),
    {
      action: {
        label: t('formula-paste-panel-undo'),
        run: () => {
          bench.goBack()
        },
      },
    },
  )
  if (!rest.length) panels.open.value = 'lines'
}
</script>

<template>
  <section class="paste" :aria-label="$t('formula-paste-panel-paste-a-list')">
    <div class="panel-head">
      <h3>{{ $t('formula-paste-panel-paste-a-recipe') }}</h3>
      <label class="quiet-button file"
        ><input type="file" accept=".txt,.md,.csv,.tsv,.xlsx,.json,.html,.htm" class="visually-hidden" @change="onFile" />{{
          $t('formula-paste-panel-from-a-file')
        }}</label
      >
      <v-btn class="note" @click="panels.open.value = 'lines'">{{ $t('formula-paste-panel-back-to-ingredients') }}</v-btn>
    </div>
    <v-textarea
      ref="box"
      v-model="text"
      class="field"
      rows="7"
      :aria-label="$t('formula-paste-panel-ingredient-list')"
      spellcheck="false"
      @paste="onPaste"
      :placeholder="EXAMPLE"
    />
    <p v-if="panels.refused.value || reading.trouble.value || refusal" class="act" role="alert">
      {{ panels.refused.value || reading.trouble.value || refusal }}
    </p>
    <ol v-if="rows.length" class="rows">
      <li v-for="row in rows" :key="row.number" :class="[row.status, { off: isIgnored(row) }]">
        <b v-if="row.status === 'section'">{{ row.text }}</b>
        <template v-else>
          <span class="said">{{ row.text }}</span>
          <span v-if="row.phrases" class="means"
            ><b>{{ means(row.phrases) }}</b></span
          >
          <span v-else-if="row.status === 'read'" class="means">
            <span v-for="(line, i) in row.lines" :key="line.id"
              >{{ i ? ' + ' : '' }}<b>{{ nameOf(line.ingredient) }}</b> {{ line.entered
              }}<span v-if="line.note" class="note beside">{{ line.note }}</span></span
            >
            <span v-if="row.problem" class="act"> · {{ row.problem.what }}</span>
          </span>
          <span v-else class="means">
            <span :class="{ act: !chosen[row.text] && !isIgnored(row) }">{{ row.problem?.what }}:</span>
            <v-btn
              v-for="id in row.nearest"
              :key="id"
              class="near"
              :class="{ on: chosen[row.text] === id }"
              :aria-pressed="chosen[row.text] === id"
              @click="chosen[row.text] = chosen[row.text] === id ? '' : id"
            >
              {{ nameOf(id) }}
            </v-btn>
            <span v-if="!row.nearest.length" class="note">{{ $t('formula-paste-panel-no-match-in-the-pantry-this') }}</span>
          </span>
          <span class="grams figure">{{ grams(row) }}</span>
          <v-btn
            class="note ignore"
            :aria-pressed="isIgnored(row)"
            :aria-label="$t('formula-paste-panel-ignore', { row: row.text })"
            @click="ignored[row.text] = !isIgnored(row)"
          >
            {{ isIgnored(row) ? $t('formula-paste-panel-use') : $t('formula-paste-panel-ignore-2') }}
          </v-btn>
        </template>
      </li>
    </ol>
    <div class="foot">
      <v-btn class="act-button" :disabled="!ready.length && !told.length" @click="add"
        >{{ $t('formula-paste-panel-add', { shown: ready.length || '', count: ready.length }) }}
      </v-btn>
      <span v-if="left.length" class="note">{{ $t('formula-paste-panel-to-choose-text-you-skip-stays', { left: left.length }) }}</span>
    </div>
  </section>
</template>

<style scoped>
.file {
  cursor: pointer;
}

.file:focus-within {
  outline: 2px solid var(--focus);
}

textarea {
  display: block;
  resize: vertical;
  line-height: 1.5;
}

.rows {
  margin: 12px 0 0;
  padding: 0;
  list-style: none;
  border: 1px solid var(--rule);
  border-radius: 10px;
  background: var(--panel);
}

li {
  display: grid;
  grid-template-columns: 2fr 3fr 92px 44px;
  gap: 14px;
  padding: 5px 12px;
}

@media (max-width: 700px) {
  li {
    grid-template-columns: 1fr auto 44px;
    padding: 10px 12px;
    row-gap: 2px;
  }

  .said,
  li > b {
    grid-column: 1 / -1;
  }
}

li + li {
  border-top: 1px solid var(--rule);
}

.said {
  color: var(--ink-2);
}

.off .said,
.off .means,
.off .grams {
  opacity: 0.55;
  text-decoration: line-through;
}

.grams {
  text-align: right;
  font-size: 14px;
}

.ignore {
  align-self: start;
  min-height: 24px;
}

.beside {
  margin-left: 6px;
}

.near {
  margin: 0 0 2px 6px;
  padding: 0 9px;
  border: 1px solid var(--rule-strong);
  border-radius: 999px;
  font-size: 13px;
}

.near.on {
  border-color: var(--in);
  background: var(--in-soft);
  font-weight: 650;
}

.foot {
  display: flex;
  align-items: center;
  gap: 14px;
  margin-top: 14px;
}
</style>
