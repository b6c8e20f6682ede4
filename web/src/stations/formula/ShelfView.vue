<script setup lang="ts">
import { refDebounced, useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, settled } from '@/api/client'
import type { FormulaDocument } from '@/api/types'
import LongRows from '@/components/frame/LongRows.vue'
import MoreRows from '@/components/frame/MoreRows.vue'
import { useCopyAndArchive } from '@/composables/useCopyAndArchive'
import { useDo } from '@/composables/useDo'
import { useFiles } from '@/composables/useDocumentFiles'
import { usePages } from '@/composables/usePages'
import { usePanels } from '@/composables/usePanels'
import { NEW_NAME } from '@/stores/bench'
import { useSession } from '@/stores/session'
import ShelfBegin from './ShelfBegin.vue'
import ShelfCard from './ShelfCard.vue'
import { t } from '@/messages'

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
  { value: '', title: t('formula-shelf-view-all-shapes') },
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
      <h2>{{ archived ? $t('formula-shelf-view-archive') : $t('formula-shelf-view-formulas') }}</h2>
      <v-text-field
        v-model="search"
        class="field find"
        data-finder
        type="search"
        :placeholder="$t('formula-shelf-view-find-a-formula')"
        :aria-label="$t('formula-shelf-view-find-a-formula')"
        maxlength="100"
      />
      <v-select v-model="form" class="field form" :aria-label="$t('formula-shelf-view-shape')" :items="shapes" />
      <v-btn class="quiet-button" :aria-pressed="archived" @click="archived = !archived">
        {{ archived ? $t('formula-shelf-view-back-to-the-formulas') : $t('formula-shelf-view-archive') }}
      </v-btn>
      <span class="spring" />
      <template v-if="session.may('formulas.edit')">
        <v-btn class="quiet-button" @click="chooser?.click()">{{ $t('formula-shelf-view-import') }}</v-btn>
        <input
          ref="chooser"
          class="visually-hidden"
          type="file"
          multiple
          accept=".json,application/json"
          :aria-label="$t('formula-shelf-view-formula-files')"
          tabindex="-1"
          @change="take(($event.target as HTMLInputElement).files)"
        />
      </template>
      <v-btn class="quiet-button" :title="$t('formula-shelf-view-all-formulas-with-their-versions-packs')" @click="files.exportKitchen()">{{
        $t('formula-shelf-view-export-all')
      }}</v-btn>
      <template v-if="session.may('formulas.edit')">
        <v-btn class="quiet-button" @click="router.push('/formula/begin')">{{ $t('formula-shelf-view-start-from-a-shape') }}</v-btn>
        <v-btn class="quiet-button" @click="start(true)">{{ $t('formula-shelf-view-paste-a-list') }}</v-btn>
        <v-btn class="act-button" @click="start(false)">{{ $t('formula-shelf-view-new-formula') }}</v-btn>
      </template>
    </div>

    <div v-if="shelf.trouble.value && !items.length" class="empty" role="alert">
      <p class="figure">{{ shelf.trouble.value }}</p>
      <v-btn class="quiet-button" @click="shelf.again()">{{ $t('formula-shelf-view-try-again') }}</v-btn>
    </div>
    <ul v-else-if="shelf.waiting.value" class="grid" :aria-label="$t('formula-shelf-view-loading')">
      <li v-for="n in 6" :key="n" class="skeleton card" />
    </ul>
    <ShelfBegin v-else-if="empty && session.may('formulas.edit')" :form-name="formName" @start="start" @choose="chooser?.click()" />
    <div v-else-if="!items.length" class="empty">
      <p class="figure">
        {{
          search || form
            ? $t('formula-shelf-view-no-formula-found')
            : archived
              ? $t('formula-shelf-view-the-archive-is-empty')
              : $t('formula-shelf-view-no-formulas-yet')
        }}
      </p>
      <p v-if="search || form" class="note">{{ $t('formula-shelf-view-type-part-of-the-name-or') }}</p>
    </div>
    <div v-else ref="grid" role="list">
      <LongRows :items="rows" :whole="30" :item-height="CARD.height + CARD.gap">
        <template #default="{ item: row, itemRef }">
          <div :ref="itemRef" class="grid abreast" role="presentation">
            <ShelfCard
              v-for="item in row"
              :key="item.id"
              :item="item"
              :form-name="formName(item.form)"
              :archived="archived"
              @copy="shelving.copy(item.id)"
              @archive="shelving.archive(item.id, !archived)"
            />
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

@media (hover: none), (max-width: 700px) {
  .shelf {
    padding-inline: 12px;
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
</style>
