<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, settled } from '@/api/client'
import type { FormulaDocument, ShelfItem } from '@/api/types'
import CoreThumb from '@/components/core/CoreThumb.vue'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { readFile } from '@/composables/useDocumentFiles'
import { usePanels } from '@/composables/usePanels'
import { ago, figure } from '@/domain/format'
import { useSession } from '@/stores/session'
import { useToasts } from '@/stores/toasts'

const PAGE = 60
const session = useSession()
const toasts = useToasts()
const panels = usePanels()
const router = useRouter()
const search = ref('')
const settledSearch = refDebounced(search, 150)
const form = ref('')
const archived = ref(false)
const shown = ref(PAGE)
const over = ref(false)

const shelf = useAsk(
  () => ['shelf', settledSearch.value, form.value, archived.value, shown.value],
  (at) =>
    settled(
      api.GET('/api/kitchens/{kitchen_id}/formulas', {
        params: {
          path: at,
          query: { search: settledSearch.value, form: form.value, archived: archived.value, limit: Math.min(shown.value, 200) },
        },
      }),
    ),
  { keep: true },
)
const items = computed(() => shelf.answer.value?.items ?? [])
const total = computed(() => shelf.answer.value?.total ?? 0)
const forms = computed(() => session.words?.forms ?? [])
const formName = (id: string): string => forms.value.find((f) => f.id === id)?.name.toLowerCase() ?? id

const creating = useDo((document: FormulaDocument, at) =>
  settled(api.POST('/api/kitchens/{kitchen_id}/formulas', { params: { path: at }, body: document })),
)
const reading = useDo(
  (document: FormulaDocument, at) => settled(api.POST('/api/kitchens/{kitchen_id}/formulas', { params: { path: at }, body: document })),
  { here: true },
)
async function start(paste: boolean): Promise<void> {
  const made = await creating.run({
    substrata: 1,
    name: 'New formula',
    notes: '',
    form: { kind: form.value || 'thin-crust', pieces: 6, serving_pieces: 1 },
    lines: [],
    targets: {},
  } as FormulaDocument)
  if (!made) return
  await router.push(`/formula/${made.id}`)
  if (paste) panels.paste('')
}

async function drop(event: DragEvent): Promise<void> {
  over.value = false
  for (const file of event.dataTransfer?.files ?? []) {
    const document = await readFile(file).catch((error: unknown) => {
      toasts.show((error as Error).message, { tone: 'act' })
    })
    const made = document ? await reading.run(document) : null
    if (reading.trouble.value) toasts.show(`${file.name}: ${reading.trouble.value}`, { tone: 'act' })
    if (made)
      toasts.show(`${file.name} is on the shelf.`, { action: { label: 'Open', run: () => void router.push(`/formula/${made.id}`) } })
  }
}

const archiving = useDo(
  ({ item, away }: { item: ShelfItem; away: boolean }, at) =>
    settled(
      api.POST('/api/kitchens/{kitchen_id}/formulas/{formula_id}/archive', {
        params: { path: { ...at, formula_id: item.id } },
        body: { archived: away },
      }),
    ),
  {
    then: (_, { item, away }) => {
      toasts.show(away ? `${item.name} put away.` : `${item.name} is back on the shelf.`, {
        action: {
          label: 'Undo',
          run: () => {
            put(item, !away)
          },
        },
      })
    },
  },
)
function put(item: ShelfItem, away: boolean): void {
  void archiving.run({ item, away })
}

const forking = useDo(
  (item: ShelfItem, at) =>
    settled(
      api.POST('/api/kitchens/{kitchen_id}/formulas/{formula_id}/fork', {
        params: { path: { ...at, formula_id: item.id } },
        body: { name: '' },
      }),
    ),
  { then: (made) => router.push(`/formula/${made.id}`) },
)
const fork = (item: ShelfItem): void => {
  void forking.run(item)
}
</script>

<template>
  <div class="shelf" :class="{ over }" @dragover.prevent="over = session.mayEdit" @dragleave.self="over = false" @drop.prevent="drop">
    <div class="bar">
      <h2>{{ archived ? 'Put away' : 'Formulas' }}</h2>
      <v-text-field
        v-model="search"
        class="field find"
        data-finder
        type="search"
        placeholder="Find a formula"
        aria-label="Find a formula"
        maxlength="100"
      />
      <v-select
        v-model="form"
        class="field form"
        aria-label="Form"
        :items="[{ value: '', title: 'every form' }, ...forms.map((f) => ({ value: f.id, title: f.name.toLowerCase() }))]"
      />
      <v-btn class="quiet-button" :aria-pressed="archived" @click="archived = !archived">
        {{ archived ? 'back to the shelf' : 'what is put away' }}
      </v-btn>
      <span class="spring" />
      <template v-if="session.mayEdit">
        <v-btn class="quiet-button" @click="start(true)">Paste a list</v-btn>
        <v-btn class="act-button" @click="start(false)">New formula</v-btn>
      </template>
    </div>

    <div v-if="shelf.missing.value" class="empty" role="alert">
      <p class="figure">{{ shelf.trouble.value }}</p>
      <v-btn class="quiet-button" @click="shelf.again()">Try again</v-btn>
    </div>
    <ul v-else-if="shelf.waiting.value" class="grid" aria-label="Loading">
      <li v-for="n in 6" :key="n" class="skeleton card" />
    </ul>
    <div v-else-if="!items.length" class="empty">
      <p class="figure">{{ search || form ? 'No formula fits.' : archived ? 'Nothing is put away.' : 'The shelf is empty.' }}</p>
      <p class="note">
        {{
          search || form
            ? 'Search by a few letters of the name, or choose every form.'
            : 'Start with a new formula, paste an ingredient list, or drop a *.substrata.json file here.'
        }}
      </p>
    </div>
    <ul v-else class="grid">
      <li v-for="item in items" :key="item.id" class="card">
        <router-link :to="`/formula/${item.id}`" class="face">
          <CoreThumb :strata="item.thumb.strata" :width="44" :height="116" />
          <span class="words">
            <span class="name">{{ item.name }}</span>
            <span class="note">{{ formName(item.form) }} · {{ item.thumb.pieces }} {{ item.thumb.pieces === 1 ? 'piece' : 'pieces' }}</span>
            <span class="figures">
              <span
                ><b class="figure">{{ figure(item.thumb.net_carbs, 1) }}</b
                >{{ ' ' }}<span class="note">g net ({{ item.thumb.convention }})</span></span
              >
              <span
                ><b class="figure">{{ figure(item.thumb.protein, 1) }}</b
                >{{ ' ' }}<span class="note">g protein</span></span
              >
            </span>
            <span class="note foot">
              {{ item.versions ? `v${item.versions}` : 'draft' }} · {{ ago(item.touched_at) }}
              <span v-if="item.thumb.outside" class="act"> · {{ item.thumb.outside }} outside</span>
              <span v-if="item.thumb.problems" class="act"> · {{ item.thumb.problems }} not read</span>
            </span>
          </span>
        </router-link>
        <span v-if="session.mayEdit" class="actions">
          <v-btn class="note" @click="fork(item)">fork</v-btn>
          <v-btn class="note" @click="put(item, !archived)">{{ archived ? 'bring back' : 'put away' }}</v-btn>
        </span>
      </li>
    </ul>
    <v-btn v-if="total > items.length && shown < 200" class="quiet-button further" @click="shown += PAGE">
      {{ total - items.length }} more
    </v-btn>
    <p v-else-if="total > items.length" class="note further">The first {{ items.length }} of {{ total }}. Search to narrow it down.</p>
  </div>
</template>

<style scoped>
.shelf {
  height: 100%;
  padding: 22px 28px 40px;
  overflow-y: auto;
}

.shelf.over {
  box-shadow: inset 0 0 0 3px var(--in);
}

.bar {
  display: flex;
  align-items: center;
  gap: 10px;
  margin-bottom: 20px;
}

h2 {
  margin-right: 12px;
  font-size: 22px;
}

.find {
  width: 230px;
}

.form {
  width: 140px;
}

.spring {
  flex: 1;
}

.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(340px, 1fr));
  gap: 14px;
  margin: 0;
  padding: 0;
  list-style: none;
}

.card {
  position: relative;
  min-height: 144px;
  border: 1px solid var(--rule);
  border-radius: 12px;
  background: var(--panel);
  transition: border-color 0.15s;
}

.card:hover {
  border-color: var(--rule-strong);
}

.skeleton.card {
  border-color: transparent;
}

.face {
  display: flex;
  gap: 18px;
  padding: 13px 18px;
  text-decoration: none;
}

.words {
  display: flex;
  flex-direction: column;
  min-width: 0;
  flex: 1;
}

.name {
  font: 700 18px/1.25 var(--head);
  letter-spacing: -0.01em;
}

.figures {
  display: flex;
  gap: 18px;
  margin: 10px 0 auto;
}

.figures b {
  font-size: 20px;
}

.actions {
  position: absolute;
  right: 14px;
  bottom: 12px;
  display: flex;
  gap: 12px;
  opacity: 0;
  transition: opacity 0.15s;
}

.card:hover .actions,
.card:focus-within .actions {
  opacity: 1;
}

.actions button:hover {
  color: var(--act);
}

.empty {
  margin: 14vh auto 0;
  text-align: center;
}

.empty .figure {
  margin: 0 0 4px;
  font-size: 20px;
}

.further {
  margin-top: 18px;
}
</style>
