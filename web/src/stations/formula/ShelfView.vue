<script setup lang="ts">
import { refDebounced, useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, settled } from '@/api/client'
import type { FormulaDocument } from '@/api/types'
import CoreThumb from '@/components/core/CoreThumb.vue'
import LongRows from '@/components/frame/LongRows.vue'
import MoreRows from '@/components/frame/MoreRows.vue'
import { useAsk } from '@/composables/useAsk'
import { useCopyAndArchive } from '@/composables/useCopyAndArchive'
import { useDo } from '@/composables/useDo'
import { useFiles } from '@/composables/useDocumentFiles'
import { usePages } from '@/composables/usePages'
import { usePanels } from '@/composables/usePanels'
import { ago, figure } from '@/domain/format'
import { NEW_NAME } from '@/stores/bench'
import { useSession } from '@/stores/session'

const PAGE = 60
/** The narrowest card, the lowest and what lies between two, px, as the styles below have them. */
const CARD = { width: 340, height: 144, gap: 14 }
const session = useSession()
const panels = usePanels()
const router = useRouter()
const search = ref('')
const settledSearch = refDebounced(search, 150)
const form = ref('')
const archived = ref(false)
const over = ref(false)

const shelf = usePages(
  () => ['shelf', settledSearch.value, form.value, archived.value],
  (at, offset) =>
    settled(
      api.GET('/api/kitchens/{kitchen_id}/formulas', {
        params: { path: at, query: { search: settledSearch.value, form: form.value, archived: archived.value, limit: PAGE, offset } },
      }),
    ),
)
const { items, total } = shelf
const grid = ref<HTMLElement>()
const { width } = useElementSize(grid)
/** Cards side by side: a shelf is drawn by rows, of which only those in sight are there. */
const rows = computed(() => {
  const abreast = Math.max(1, Math.floor((width.value + CARD.gap) / (CARD.width + CARD.gap)))
  return Array.from({ length: Math.ceil(items.value.length / abreast) }, (_, n) => items.value.slice(n * abreast, (n + 1) * abreast))
})
const forms = computed(() => session.words?.forms ?? [])
const shapes = computed(() => [
  { value: '', title: 'all shapes' },
  ...forms.value.map((f) => ({ value: f.id, title: f.name.toLowerCase() })),
])
const formName = (id: string): string => forms.value.find((f) => f.id === id)?.name.toLowerCase() ?? id

const creating = useDo((document: FormulaDocument, at) =>
  settled(api.POST('/api/kitchens/{kitchen_id}/formulas', { params: { path: at }, body: document })),
)
async function start(paste: boolean): Promise<void> {
  const made = await creating.run({
    substrata: 1,
    uid: '',
    name: NEW_NAME,
    notes: '',
    form: { kind: form.value || 'thin-crust', pieces: 6, serving_pieces: 1 },
    lines: [],
    targets: {},
  } as FormulaDocument)
  if (!made) return
  await router.push(`/formula/${made.id}`)
  if (paste) panels.paste('')
}

const files = useFiles()
const chooser = ref<HTMLInputElement>()
async function take(list: FileList | null | undefined): Promise<void> {
  over.value = false
  if (list) await files.take(list, empty.value)
  if (chooser.value) chooser.value.value = ''
}

/** Nothing on the shelf, and nothing was looked for: the kitchen has yet to begin. */
const empty = computed(
  () => !shelf.waiting.value && !shelf.trouble.value && total.value === 0 && !search.value && !form.value && !archived.value,
)
const house = useAsk(
  () => ['house formulas'],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/house-formulas', { params: { path: at } })),
  { when: () => empty.value && session.may('formulas.edit') },
)
const copying = useDo(
  (name: string, at) => settled(api.POST('/api/kitchens/{kitchen_id}/house-formulas', { params: { path: at }, body: { name } })),
  { then: (made) => router.push(`/formula/${made.id}`) },
)

const shelving = useCopyAndArchive()
</script>

<template>
  <div
    class="shelf"
    :class="{ over }"
    @dragover.prevent="over = session.may('formulas.edit')"
    @dragleave.self="over = false"
    @drop.prevent="take($event.dataTransfer?.files)"
  >
    <div class="bar">
      <h2>{{ archived ? 'Archive' : 'Formulas' }}</h2>
      <v-text-field
        v-model="search"
        class="field find"
        data-finder
        type="search"
        placeholder="Find a formula"
        aria-label="Find a formula"
        maxlength="100"
      />
      <v-select v-model="form" class="field form" aria-label="Shape" :items="shapes" />
      <v-btn class="quiet-button" :aria-pressed="archived" @click="archived = !archived">
        {{ archived ? 'Back to the formulas' : 'Archive' }}
      </v-btn>
      <span class="spring" />
      <template v-if="session.may('formulas.edit')">
        <v-btn class="quiet-button" @click="chooser?.click()">Import</v-btn>
        <input
          ref="chooser"
          class="visually-hidden"
          type="file"
          multiple
          accept=".json,application/json"
          aria-label="Files of formulas"
          tabindex="-1"
          @change="take(($event.target as HTMLInputElement).files)"
        />
      </template>
      <v-btn
        class="quiet-button"
        title="all formulas with their versions, packs, ovens and choices in one file"
        @click="files.exportKitchen()"
        >Export all</v-btn
      >
      <template v-if="session.may('formulas.edit')">
        <v-btn class="quiet-button" @click="router.push('/formula/begin')">Begin</v-btn>
        <v-btn class="quiet-button" @click="start(true)">Paste a list</v-btn>
        <v-btn class="act-button" @click="start(false)">New formula</v-btn>
      </template>
    </div>

    <div v-if="shelf.trouble.value && !items.length" class="empty" role="alert">
      <p class="figure">{{ shelf.trouble.value }}</p>
      <v-btn class="quiet-button" @click="shelf.again()">Try again</v-btn>
    </div>
    <ul v-else-if="shelf.waiting.value" class="grid" aria-label="Loading">
      <li v-for="n in 6" :key="n" class="skeleton card" />
    </ul>
    <section v-else-if="empty && session.may('formulas.edit')" class="begin" aria-label="Begin">
      <h3>Your kitchen has no formulas yet</h3>
      <p>Copy one of ours and make it your own, paste a recipe, start from nothing, or import a file.</p>
      <p class="choices">
        <v-btn class="act-button" @click="start(true)">Paste a recipe</v-btn>
        <v-btn class="quiet-button" @click="router.push('/formula/begin')">Begin from a shape</v-btn>
        <v-btn class="quiet-button" @click="start(false)">Start from nothing</v-btn>
        <v-btn class="quiet-button" @click="chooser?.click()">Import a file</v-btn>
      </p>
      <ul class="house">
        <li v-for="h in house.answer.value" :key="h.name">
          <v-btn class="house-button" :disabled="copying.busy.value" @click="copying.run(h.name)">
            <b>{{ h.name }}</b>
            <span class="note">{{ formName(h.form) }} · {{ h.pieces }} pieces</span>
          </v-btn>
        </li>
      </ul>
    </section>
    <div v-else-if="!items.length" class="empty">
      <p class="figure">{{ search || form ? 'No formula found.' : archived ? 'The archive is empty.' : 'No formulas yet.' }}</p>
      <p v-if="search || form" class="note">Search by a few letters of the name, or choose all shapes.</p>
    </div>
    <div v-else ref="grid" role="list">
      <LongRows :items="rows" :whole="30" :item-height="CARD.height + CARD.gap">
        <template #default="{ item: row, itemRef }">
          <div :ref="itemRef" class="grid abreast" role="presentation">
            <div v-for="item in row" :key="item.id" role="listitem" class="card">
              <router-link :to="`/formula/${item.id}`" class="face">
                <CoreThumb :strata="item.thumb.strata" :width="44" :height="116" />
                <span class="words">
                  <span class="name">{{ item.name }}</span>
                  <span class="note"
                    >{{ formName(item.form) }} · {{ item.thumb.pieces }} {{ item.thumb.pieces === 1 ? 'piece' : 'pieces' }}</span
                  >
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
              <span v-if="session.may('formulas.edit')" class="actions">
                <v-btn class="note" @click="shelving.copy(item.id)">copy</v-btn>
                <v-btn class="note" @click="shelving.archive(item.id, !archived)">{{ archived ? 'bring back' : 'archive' }}</v-btn>
              </span>
            </div>
          </div>
        </template>
      </LongRows>
    </div>
    <MoreRows :left="shelf.left.value" :busy="shelf.busy.value" @more="shelf.more" />
  </div>
</template>

<style scoped>
.shelf {
  position: relative;
  height: 100%;
  padding: 22px 28px 40px;
  overflow-y: auto;
}

.shelf.over {
  box-shadow: inset 0 0 0 3px var(--in);
}

.bar {
  display: flex;
  flex-wrap: wrap;
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

.abreast {
  padding-bottom: 14px;
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

@media (hover: none), (max-width: 700px) {
  .shelf {
    padding-inline: 12px;
  }

  .actions {
    opacity: 1;
  }
}

.empty {
  margin: 14vh auto 0;
  text-align: center;
}

.empty .figure {
  margin: 0 0 4px;
  font-size: 20px;
}

.begin {
  max-width: 760px;
  margin: 5vh auto 0;
}

.begin h3 {
  font-size: 22px;
}

.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}

.house {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 10px;
  margin: 18px 0 0;
  padding: 0;
  list-style: none;
}

.house-button {
  display: grid;
  width: 100%;
  padding: 10px 14px;
  border: 1px solid var(--rule-strong);
  border-radius: 10px;
  background: var(--panel);
  text-align: left;
}
</style>
