<script setup lang="ts">
/**
 * Import decides how a file's columns are read and whether its good rows are kept. The eye falls on the columns
 * with what each is taken for, then on the rows that cannot be read; nothing is in the pantry until all is kept at once.
 */
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, inWords, settled } from '@/api/client'
import type { BadRow, PackImport } from '@/api/types'
import JobProgress from '@/components/frame/JobProgress.vue'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { useJob } from '@/composables/useJob'
import { useSession } from '@/stores/session'
import PantryBar from './PantryBar.vue'

const props = defineProps<{ id: number }>()
const session = useSession()
const router = useRouter()
const asked = useAsk(
  () => ['import', props.id],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/imports/{import_id}', { params: { path: { ...at, import_id: props.id } } })),
  { when: () => props.id > 0, keep: true },
)
const found = computed<PackImport | null>(() => (asked.answer.value?.id === props.id ? asked.answer.value : null))
const missing = computed(() => asked.missing.value)
const { job, underWay, trouble, start: startJob, follow, stop: stopJob } = useJob()
const text = ref('')
const over = ref(false)
const figures = computed(() => new Map(session.words?.label_figures.map((f) => [f.id, `${f.name}, ${f.unit}`]) ?? []))
const fieldName = (id: string): string =>
  figures.value.get(id) ??
  { per_g: 'serving', pack_g: 'pack weight', use_by: 'use by', bought_on: 'bought on', may_contain: 'may contain' }[id] ??
  id

/** After a reload the job that was under way is followed again; when it is over, the import has moved on. */
watch(
  () => found.value?.job?.id,
  () => {
    if (found.value?.job && job.value?.id !== found.value.job.id) follow(found.value.job)
  },
)
watch(
  () => job.value?.state,
  (now) => {
    if (now === 'done' || now === 'failed' || now === 'stopped') void asked.again()
  },
)
watch(
  () => props.id,
  () => {
    follow(null)
  },
)

const reading = useDo(
  ({ name, content }: { name: string; content: string }, at) =>
    settled(api.POST('/api/kitchens/{kitchen_id}/imports', { params: { path: at }, body: { file_name: name, text: content } })),
  { then: (made) => router.push(`/pantry/import/${made.id}`) },
)
const start = (name: string, content: string): Promise<unknown> => reading.run({ name, content })

async function take(files: FileList | null | undefined): Promise<void> {
  over.value = false
  const file = files?.[0]
  if (file) await start(file.name, await file.text())
}

/** A long list is sent as it comes: a text field that holds megabytes would only make the page slow. */
function paste(event: ClipboardEvent): void {
  const pasted = event.clipboardData?.getData('text/plain') ?? ''
  if (pasted.length < 50_000) return
  event.preventDefault()
  void start('pasted', pasted)
}

const matching = useDo((columns: Pick<PackImport, 'columns' | 'style' | 'per_100'>, at) =>
  settled(
    api.PUT('/api/kitchens/{kitchen_id}/imports/{import_id}/columns', { params: { path: { ...at, import_id: props.id } }, body: columns }),
  ),
)
function match(change: Partial<Pick<PackImport, 'columns' | 'style' | 'per_100'>>): void {
  if (!found.value) return
  const { columns, style, per_100 } = { ...found.value, ...change }
  void matching.run({ columns, style, per_100 })
}
const go = (kind: 'import-check' | 'import-save'): void => {
  void startJob({ kind, import_id: props.id })
}
const givingUp = useDo((id: number, at) =>
  settled(api.POST('/api/kitchens/{kitchen_id}/imports/{import_id}/stop', { params: { path: { ...at, import_id: id } } })),
)

function setColumn(at: number, field: string): void {
  match({ columns: found.value?.columns.map((f, i) => (i === at ? field : f === field ? '' : f)) ?? [] })
}
const why = (row: BadRow): string => inWords(row)
</script>

<template>
  <div class="page">
    <PantryBar title="Import packs" />
    <p v-if="missing" class="start" role="alert">
      {{ missing }} <router-link class="quiet-button" to="/pantry/import">Start again</router-link>
    </p>
    <div
      v-else-if="!id"
      class="start"
      :class="{ over }"
      @dragover.prevent="over = true"
      @dragleave.self="over = false"
      @drop.prevent="take($event.dataTransfer?.files)"
    >
      <p class="figure">Drop a file of products here</p>
      <p class="note">
        CSV with any headers, or JSON with keys that say what they hold: name, serving size, protein (g), price … Up to 20,000 products, 8
        MB. Nothing is saved before you say so.
      </p>
      <label class="quiet-button"
        >Choose a file
        <input class="visually-hidden" type="file" accept=".csv,.json,.tsv,.txt" @change="take(($event.target as HTMLInputElement).files)"
      /></label>
      <form @submit.prevent="start('pasted', text)">
        <v-textarea
          v-model="text"
          class="field"
          rows="8"
          placeholder="… or paste rows from a spreadsheet"
          aria-label="Rows of products"
          @paste="paste"
        />
        <v-btn type="submit" class="act-button" :disabled="!text.trim()">Read it</v-btn>
      </form>
    </div>
    <div v-else-if="found" class="page-sheet">
      <p class="head">
        <b class="figure">{{ found.file_name }}</b>{{ ' ' }}<span class="note">{{ found.total }} products, {{ found.kind }}</span>
      </p>
      <template v-if="found.headers.length">
        <div class="options">
          <v-radio-group
            label="Labels are"
            hide-details="auto"
            :model-value="found.style"
            :disabled="!session.may('packs.edit')"
            :error-messages="found.style ? [] : ['The file does not tell: choose.']"
            @update:model-value="match({ style: $event === 'eu' ? 'eu' : 'us' })"
          >
            <v-radio value="us" label="United States: carbohydrate includes fibre" />
            <v-radio value="eu" label="European: it leaves fibre out" />
          </v-radio-group>
          <v-radio-group
            label="Figures are"
            :model-value="found.per_100"
            :disabled="!session.may('packs.edit')"
            @update:model-value="match({ per_100: $event === true })"
          >
            <v-radio :value="true" label="per 100 g" />
            <v-radio :value="false" label="per serving, which a column gives" />
          </v-radio-group>
        </div>
        <div class="scroll">
          <table>
            <thead>
              <tr>
                <th class="note">row</th>
                <th v-for="(h, i) in found.headers" :key="i">{{ h || '–' }}</th>
                <th>read as</th>
              </tr>
              <tr class="as">
                <td class="note">is</td>
                <td v-for="(f, i) in found.columns" :key="i">
                  <v-select
                    class="field"
                    :class="{ none: !f }"
                    :model-value="f"
                    :disabled="!session.may('packs.edit')"
                    :aria-label="`Column ${found.headers[i]} is`"
                    @update:model-value="setColumn(i, $event)"
                    :items="[
                      { value: '', title: 'left out' },
                      ...(session.words?.import_fields ?? []).map((id_) => ({ value: id_, title: fieldName(id_) })),
                    ]"
                  />
                </td>
                <td />
              </tr>
            </thead>
            <tbody>
              <tr v-for="r in found.rows" :key="r.number" :class="{ bad: r.problem }">
                <td class="note">{{ r.number }}</td>
                <td v-for="(c, i) in r.cells" :key="i" :class="{ none: !found.columns[i] }">{{ c }}</td>
                <td>{{ r.problem ? r.problem.what : r.ingredient }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </template>
      <p v-if="underWay && job" class="progress">
        <JobProgress :job="job" :what="job.kind === 'import-check' ? 'looked at' : 'put in'" @stop="stopJob" />
      </p>
      <p v-if="trouble" role="alert" class="act">{{ trouble }}</p>
      <p v-if="found.state === 'checked' || found.state === 'saved'" class="result">
        <b>{{ found.good }}</b> can be read<span v-if="found.odd"
          >, <b>{{ found.odd }}</b> of them with a label to look at again</span
        >; <b>{{ found.total - found.good }}</b> cannot.
      </p>
      <div v-if="session.may('packs.edit') && !underWay" class="actions">
        <v-btn v-if="found.state === 'matching'" class="act-button" @click="go('import-check')">Look at all {{ found.total }}</v-btn>
        <v-btn v-if="found.state === 'checked'" class="act-button" :disabled="!found.good" @click="go('import-save')">
          Import the {{ found.good }} good ones, all at once
        </v-btn>
        <v-btn v-if="found.state === 'matching' || found.state === 'checked'" class="quiet-button" @click="givingUp.run(found.id)">
          Import nothing
        </v-btn>
        <p v-if="found.state === 'saved'">
          {{ found.good }} packs are in the pantry. <router-link to="/pantry?own=true">See them</router-link>
        </p>
        <p v-if="found.state === 'stopped'">Stopped; nothing was imported. <router-link to="/pantry/import">Start again</router-link></p>
      </div>
      <section v-if="found.bad.length" class="bads" aria-label="Rows that cannot be read">
        <h3>Rows that cannot be read</h3>
        <ul>
          <li v-for="r in found.bad.slice(0, 200)" :key="r.number">
            <b>row {{ r.number }}</b> {{ r.name }}: {{ why(r) }}
          </li>
        </ul>
        <p v-if="found.total - found.good > 200" class="note">and {{ found.total - found.good - 200 }} more</p>
      </section>
    </div>
    <div v-else class="page-sheet"><div class="skeleton wait" /></div>
  </div>
</template>

<style scoped>
.start {
  width: 620px;
  max-width: 90%;
  margin: 6vh auto 0;
  padding: 30px;
  border: 2px dashed var(--rule-strong);
  border-radius: 14px;
  text-align: center;
}

.start.over {
  border-color: var(--act);
  background: var(--select);
}

.start form {
  display: grid;
  gap: 10px;
  justify-items: end;
  margin-top: 18px;
}

.head {
  margin: 0 0 8px;
}

.head .figure {
  font-size: 17px;
}

.options {
  display: flex;
  gap: 40px;
  margin-bottom: 10px;
}

fieldset {
  display: grid;
  gap: 2px;
  padding: 0;
  border: 0;
  font-size: 13px;
}

fieldset input {
  accent-color: var(--act);
}

.scroll {
  overflow-x: auto;
  border: 1px solid var(--rule);
  border-radius: 10px;
  background: var(--panel);
}

table {
  border-collapse: collapse;
  font-size: 13px;
}

th,
td {
  padding: 5px 10px;
  border-bottom: 1px solid var(--rule);
  text-align: left;
  white-space: nowrap;
  max-width: 220px;
  overflow: hidden;
  text-overflow: ellipsis;
}

.as .field {
  min-width: 112px;
  --field-height: 28px;
  border-color: var(--in);
  font-size: 12px;
}

.as .field.none,
td.none {
  color: var(--ink-2);
  opacity: 0.75;
  border-color: var(--rule-strong);
}

tr.bad td:last-child {
  color: var(--act);
}

.progress,
.actions {
  display: flex;
  align-items: center;
  gap: 12px;
  margin-top: 14px;
}

.result {
  margin: 14px 0 0;
}

.bads h3 {
  margin: 18px 0 6px;
  font-size: 15px;
}

.bads ul {
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 13px;
}

.bads li {
  padding: 3px 0;
  border-top: 1px solid var(--rule);
}

.wait {
  height: 240px;
}
</style>
