<script setup lang="ts">
/** A pasted list, read line by line before anything is added. The text stays until it is used. */
import { refDebounced } from '@vueuse/core'
import { computed, nextTick, ref } from 'vue'
import { api, settled } from '@/api/client'
import type { LineDocument, PastedLine } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { usePanels } from '@/composables/usePanels'
import { withLines } from '@/domain/edits'
import { useBench } from '@/stores/bench'
import { useToasts } from '@/stores/toasts'

const bench = useBench()
const toasts = useToasts()
const panels = usePanels()
const text = panels.pasted
const rested = refDebounced(text, 250)
const box = ref<HTMLTextAreaElement>()
/** The ingredient chosen for a line, by the line's text: it outlives a new reading of the box. */
const chosen = ref<Record<string, string>>({})

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

const ready = computed<LineDocument[]>(
  () =>
    rows.value.flatMap((row) => {
      const choice = chosen.value[row.text]
      if (row.status === 'read') return row.lines
      if (choice) return row.lines.map((line) => ({ ...line, id: choice, ingredient: choice }))
      return []
    }) as LineDocument[],
)
const left = computed(() => rows.value.filter((row) => row.status !== 'section' && row.status !== 'read' && !chosen.value[row.text]))
function onPaste(event: ClipboardEvent): void {
  if (!panels.takes(event.clipboardData?.getData('text/plain') ?? '')) event.preventDefault()
}

const nameOf = (id: string): string => names.value.get(id) ?? id

function add(): void {
  const count = ready.value.length
  const rest = left.value.map((row) => row.text)
  bench.edit((doc) =>
    withLines(
      doc,
      ready.value.map((line) => ({ ...line, id: line.ingredient })),
    ),
  )
  text.value = rest.join('\n')
  toasts.show(`${count} ${count === 1 ? 'line' : 'lines'} added${rest.length ? `, ${rest.length} still to choose` : ''}.`, {
    action: {
      label: 'Undo',
      run: () => {
        bench.goBack()
      },
    },
  })
  if (!rest.length) panels.open.value = 'lines'
}
</script>

<template>
  <section class="paste" aria-label="Paste a list">
    <div class="panel-head">
      <h3>Paste an ingredient list</h3>
      <v-btn class="note" @click="panels.open.value = 'lines'">back to the lines</v-btn>
    </div>
    <v-textarea
      ref="box"
      v-model="text"
      class="field"
      rows="7"
      aria-label="Ingredient list"
      spellcheck="false"
      @paste="onPaste"
      placeholder="1 1/2 cups almond flour&#10;2 T psyllium husk powder&#10;2 lg eggs + 2 whites&#10;¼ tsp salt"
    />
    <p v-if="panels.refused.value || refusal" class="act" role="alert">{{ panels.refused.value || refusal }}</p>
    <ol v-if="rows.length" class="rows">
      <li v-for="row in rows" :key="row.number" :class="row.status">
        <template v-if="row.status === 'section'"
          ><b>{{ row.text }}</b></template
        >
        <template v-else>
          <span class="said">{{ row.text }}</span>
          <span v-if="row.status === 'read'" class="means">
            <template v-for="(line, i) in row.lines" :key="line.id"
              >{{ i ? ' + ' : '' }}<b>{{ nameOf(line.ingredient) }}</b> {{ line.entered
              }}<span v-if="line.note" class="note beside">{{ line.note }}</span></template
            >
            <span v-if="row.problem" class="act"> · {{ row.problem.what }}</span>
          </span>
          <span v-else class="means">
            <span :class="{ act: !chosen[row.text] }">{{ row.problem?.what }}:</span>
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
            <span v-if="!row.nearest.length" class="note">nothing in the pantry comes near; it stays here</span>
          </span>
        </template>
      </li>
    </ol>
    <div class="foot">
      <v-btn class="act-button" :disabled="!ready.length" @click="add">
        Add {{ ready.length || '' }} {{ ready.length === 1 ? 'line' : 'lines' }}
      </v-btn>
      <span v-if="left.length" class="note">{{ left.length }} to choose; what is not chosen stays in the box</span>
    </div>
  </section>
</template>

<style scoped>
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
  grid-template-columns: 2fr 3fr;
  gap: 14px;
  padding: 5px 12px;
}

li + li {
  border-top: 1px solid var(--rule);
}

.said {
  color: var(--ink-2);
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
