<script setup lang="ts">
/** Search as you type over names and aliases; an amount may stand before the name; a pasted list opens the paste panel. */
import { computed, nextTick, ref, watch } from 'vue'
import { api, settled } from '@/api/client'
import type { FormulaDocument, Ingredient, LineDocument } from '@/api/types'
import RoleSwatch from '@/components/core/RoleSwatch.vue'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { usePanels } from '@/composables/usePanels'
import { withLines } from '@/domain/edits'
import { useBench } from '@/stores/bench'
import { useToasts } from '@/stores/toasts'
import { t } from '@/messages'

const bench = useBench()
const toasts = useToasts()
const panels = usePanels()
const text = ref('')
const at = ref(0)
const focused = ref(false)

/** The words after the amount, for the search; the core reads the amount itself. */
const spoken = (typed: string): string => typed.replace(/^[\d\s.,/½¼¾⅓⅔⅛–-]+(?:(?:g|kg|oz|lb|ml|l|dl|cups?|c|tbsp|tsp|T|t)\b\.?)?\s*/u, '')

/** An ingredient chosen without an amount: the next number typed is its weight. */
const wanted = panels.wanted
const box = ref<HTMLInputElement>()
const bare = /^\d+(?:[.,]\d+)?\s*\S{0,5}$/u
watch(
  wanted,
  async (now) => {
    if (!now) return
    text.value = ''
    await nextTick()
    box.value?.focus()
  },
  { immediate: true },
)

const search = computed(() => spoken(text.value).slice(0, 100).trim())
const hits = useAsk(
  () => [t('frame-add-line-ingredients-typed'), search.value, 7],
  async () => {
    const typed = search.value
    return { typed, items: await settled(api.GET('/api/ingredients', { params: { query: { search: typed, limit: 7 } } })) }
  },
  { keep: true, when: () => search.value !== '' },
)
const found = computed<readonly Ingredient[]>(() => (search.value ? (hits.answer.value?.items ?? []) : []))
/** What is listed is of these very letters: a fast Enter never takes what was found for fewer. */
const answered = computed(() => hits.answer.value?.typed === search.value)
/** Only like what was typed: taken by a press or after an arrow key, never by Enter alone. */
const far = computed(() => answered.value && found.value.some((item) => item.far))
const pointed = ref(false)
let enterWaits = false
watch(text, () => {
  at.value = 0
  pointed.value = false
  enterWaits = false
})
watch(answered, (now) => {
  if (now && enterWaits) enter()
})

async function choose(ingredient: Ingredient): Promise<void> {
  const amount = text.value.slice(0, text.value.length - spoken(text.value).length).trim()
  if (!amount) {
    wanted.value = ingredient
    return
  }
  // The core reads the whole line: what was typed beside the name is kept as its note.
  const read = (await reading.run(text.value))?.flatMap((p) => p.lines) ?? []
  const same = read.length === 1 ? read[0] : undefined
  if (same?.ingredient === ingredient.id) put({ ...same, id: ingredient.id } as LineDocument)
  else add(ingredient, amount, beside(ingredient))
}

/** What was typed behind the whole name; of a few letters of it, nothing. */
function beside(ingredient: Ingredient): string {
  const [name, typed] = [ingredient.name.split(',')[0]?.toLowerCase() ?? '', search.value.toLowerCase()]
  return name && typed.startsWith(`${name} `) ? search.value.slice(name.length).trim() : ''
}

function put(line: LineDocument): void {
  bench.edit((doc) => withLines(doc, [line]))
  wanted.value = null
  select()
}

function add(ingredient: Ingredient, amount: string, note = ''): void {
  const entered = /^\d+(?:[.,]\d+)?$/.test(amount) && ingredient.role !== 'egg' ? `${amount} g` : amount
  put({ id: ingredient.id, ingredient: ingredient.id, entered, note, grams: null } as LineDocument)
}

/** Nothing chosen from the list: let the core read the whole text as a pasted line. */
const reading = useDo((typed: string, here) =>
  settled(api.POST('/api/kitchens/{kitchen_id}/paste', { params: { path: here }, body: { text: typed } })),
)
async function read(): Promise<void> {
  if (!text.value.trim()) return
  const pasted = await reading.run(text.value)
  const lines = pasted?.filter((p) => p.status === 'read').flatMap((p) => p.lines) ?? []
  if (lines.length) {
    bench.edit((doc) => withLines(doc, lines.map((line) => ({ ...line, id: line.ingredient })) as unknown as LineDocument[]))
    select()
  } else if (pasted) {
    panels.paste(text.value)
  }
}

function select(): void {
  bench.selected = bench.lines.at(-1)?.id ?? ''
  text.value = ''
}

function enter(): void {
  enterWaits = false
  if (wanted.value && bare.test(text.value.trim())) {
    add(wanted.value, text.value.trim())
    return
  }
  if (search.value && !answered.value && !hits.trouble.value) {
    enterWaits = true
    return
  }
  const chosen = found.value[at.value]
  if (chosen && (!far.value || pointed.value)) void choose(chosen)
  else if (!far.value) void read()
}

function onKey(event: KeyboardEvent): void {
  if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
    event.preventDefault()
    at.value =
      pointed.value || !far.value
        ? (at.value + (event.key === 'ArrowDown' ? 1 : -1) + found.value.length) % Math.max(found.value.length, 1)
        : 0
    pointed.value = true
  } else if (event.key === 'Enter') {
    event.preventDefault()
    enter()
  } else if (event.key === 'Escape') {
    text.value = ''
    wanted.value = null
  }
}

const loose = computed(() => bench.lines.some((line) => !line.lot && line.ingredient && line.ingredient !== 'water'))

/** Take every line that still goes by the reference from the pack that should be used up next, as one edit. */
const choosing = useDo((document: FormulaDocument, here) =>
  settled(api.POST('/api/kitchens/{kitchen_id}/choose-packs', { params: { path: here }, body: document })),
)
async function usePacks(): Promise<void> {
  if (!bench.document) return
  const packs = await choosing.run(bench.document)
  if (!packs) return
  const count = Object.keys(packs).length
  if (count) bench.edit((doc) => ({ ...doc, lines: (doc.lines ?? []).map((line) => ({ ...line, lot: packs[line.id] ?? line.lot ?? '' })) }))
  toasts.show(
    count ? t('frame-add-line-your-packs', { count }) : t('frame-add-line-nothing-changed-none-of-these-ingredients'),
    count
      ? {
          action: {
            label: t('frame-add-line-undo'),
            run: () => {
              bench.goBack()
            },
          },
        }
      : {},
  )
}

function onPaste(event: ClipboardEvent): void {
  const pasted = event.clipboardData?.getData('text/plain') ?? ''
  if (!pasted.trim().includes('\n')) return
  event.preventDefault()
  panels.paste(pasted)
}
</script>

<template>
  <div class="add">
    <span class="plus" aria-hidden="true">+</span>
    <input
      ref="box"
      v-model="text"
      class="entry"
      id="add-ingredient"
      data-finder
      :placeholder="
        wanted
          ? $t('frame-add-line-how-much-80-2-tbsp', { split: wanted.name.split(',')[0]?.toLowerCase() })
          : $t('frame-add-line-add-an-ingredient-30-g-psyllium')
      "
      maxlength="300"
      role="combobox"
      :aria-label="$t('frame-add-line-add-an-ingredient')"
      :aria-expanded="focused && found.length > 0"
      aria-controls="found-ingredients"
      :aria-activedescendant="found[at] ? `found-${at}` : undefined"
      autocomplete="off"
      @keydown="onKey"
      @paste="onPaste"
      @focus="focused = true"
      @blur="focused = false"
    />
    <v-btn v-if="loose" class="note paste" :title="$t('frame-add-line-use-your-packs-for-all-ingredients')" @click="usePacks">{{
      $t('frame-add-line-use-my-packs')
    }}</v-btn>
    <v-btn class="note paste" @click="panels.paste('')">{{ $t('frame-add-line-paste-a-list') }}</v-btn>
    <p v-if="focused && far" class="note none" role="status">{{ $t('frame-add-line-nothing-is-called-press-one-of', { search }) }}</p>
    <ul v-if="focused && found.length" id="found-ingredients" role="listbox" :aria-label="$t('frame-add-line-ingredients')">
      <li
        v-for="(item, i) in found"
        :id="`found-${i}`"
        :key="item.id"
        role="option"
        :aria-selected="i === at && (!far || pointed)"
        :class="{ on: i === at && (!far || pointed) }"
        @mousemove="at = i"
        @pointerdown.prevent="void choose(item)"
      >
        <RoleSwatch :role="item.role" /><span>{{ item.name }}</span
        ><span class="note also">{{ item.aliases.slice(0, 3).join(', ') }}</span>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.none {
  position: absolute;
  z-index: 6;
  top: 34px;
  left: 46px;
  margin: 0;
  padding: 4px 10px;
  background: var(--sheet);
}

.none + ul {
  margin-top: 26px;
}

.add {
  position: relative;
  display: flex;
  align-items: center;
  height: 36px;
}

.plus {
  width: 46px;
  color: var(--ink-2);
  font-size: 18px;
  text-align: center;
}

.entry {
  flex: 1;
  height: 30px;
  border: 0;
  background: none;
  outline: none;
}

.entry::placeholder {
  color: var(--ink-2);
  opacity: 1;
}

.add:focus-within {
  box-shadow: inset 0 0 0 2px var(--focus);
  border-radius: 0 0 9px 9px;
}

.paste {
  padding: 0 14px;
  text-decoration: underline;
  text-decoration-color: var(--rule-strong);
  text-underline-offset: 3px;
}

ul {
  position: absolute;
  top: 100%;
  left: 40px;
  z-index: 12;
  width: 440px;
  margin: 4px 0 0;
  padding: 6px;
  list-style: none;
  border: 1px solid var(--rule-strong);
  border-radius: 10px;
  background: var(--panel);
  box-shadow: var(--shadow);
}

li {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 4px 8px;
  border-radius: 7px;
  cursor: pointer;
}

li.on {
  background: var(--select);
}

.also {
  margin-left: auto;
  max-width: 190px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
