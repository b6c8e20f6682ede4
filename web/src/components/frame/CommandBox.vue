<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, settled } from '@/api/client'
import { useAsk } from '@/composables/useAsk'
import { useCommands } from '@/composables/useCommands'
import { usePanels } from '@/composables/usePanels'
import { useFiles } from '@/composables/useDocumentFiles'
import { useFormulaActions } from '@/composables/useFormulaActions'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { stationAddress, stations } from './stations'
import { t } from '@/messages'

interface Choice {
  key: string
  text: string
  kind: string
  /** Other words for it. */
  also?: string
  run: () => void
}

const { open, keys } = useCommands()
const panels = usePanels()
const bench = useBench()
const session = useSession()
const router = useRouter()
const route = useRoute()
const text = ref('')
const at = ref(0)
const box = ref<HTMLInputElement>()
const files = useFiles()
const formulaActions = useFormulaActions()
let enterWaits = false
let returnTo: HTMLElement | null = null

watch(open, async (on) => {
  if (!on) {
    returnTo?.focus()
    return
  }
  returnTo = document.activeElement instanceof HTMLElement ? document.activeElement : null
  text.value = ''
  at.value = 0
  await nextTick()
  box.value?.focus()
})
const search = computed(() => text.value.slice(0, 100))
const found = useAsk(
  () => ['found', search.value],
  async (at_) => {
    const [shelf, ingredients] = await Promise.all([
      settled(api.GET('/api/kitchens/{kitchen_id}/formulas', { params: { path: at_, query: { search: search.value, limit: 6 } } })),
      search.value ? settled(api.GET('/api/ingredients', { params: { query: { search: search.value, limit: 5 } } })) : Promise.resolve([]),
    ])
    return { formulas: shelf.items, ingredients: ingredients.filter((item) => !item.far) }
  },
  { when: () => open.value },
)
/** What was found for older letters is not offered under newer ones: an answer is that of its own question. */
const answered = computed(() => found.answer.value !== null || found.trouble.value !== '')
watch(text, () => {
  at.value = 0
  enterWaits = false
})
watch(answered, (now) => {
  if (now && enterWaits) choose(choices.value[at.value])
})

const actions = computed<Choice[]>(() => {
  const onBench = route.name === 'bench'
  const all: Choice[] = [
    ...(bench.document && /^\/formula\/\d/.test(route.path) ? formulaActions() : []).map((a): Choice => ({ ...a, kind: 'do' })),
    ...(onBench && bench.mayEdit
      ? [{ key: 'd-undo', text: t('frame-command-box-undo'), also: 'back', kind: 'do', run: () => void bench.goBack() }]
      : []),
    ...stations.map((s): Choice => ({
      key: `s-${s.id}`,
      text: s.word,
      kind: 'station',
      run: () => void router.push(stationAddress(s, bench.formulaId)),
    })),
    {
      key: 'd-shelf',
      text: t('frame-command-box-all-formulas'),
      also: t('frame-command-box-open-formulas-list-new-paste-archive'),
      kind: 'do',
      run: () => void router.push('/formula'),
    },
    {
      key: 'd-export-all',
      text: t('frame-command-box-export-all-formulas-and-packs'),
      also: t('frame-command-box-save-download-kitchen-file-backup'),
      kind: 'do',
      run: () => void files.exportKitchen(),
    },
    {
      key: 'd-import',
      text: t('frame-command-box-import-packs-into-the-pantry'),
      also: t('frame-command-box-csv-file-packs'),
      kind: 'do',
      run: () => void router.push('/pantry/import'),
    },
    {
      key: 'd-compare',
      text: t('frame-command-box-compare-ingredients'),
      also: t('frame-command-box-side-by-side'),
      kind: 'do',
      run: () => void router.push('/pantry/compare'),
    },
    {
      key: 'd-theme',
      text: session.theme === 'dark' ? t('frame-command-box-light-theme') : t('frame-command-box-dark-theme'),
      kind: 'do',
      run: () => {
        session.toggleTheme()
      },
    },
    {
      key: 'd-people',
      text: t('frame-command-box-kitchen-members'),
      also: t('frame-command-box-invite-add-member-role-history-leave'),
      kind: 'do',
      run: () => void router.push('/kitchen'),
    },
    {
      key: 'd-account',
      text: t('frame-command-box-your-account'),
      also: t('frame-command-box-password-email-two-step-verification-passk'),
      kind: 'do',
      run: () => void router.push('/account'),
    },
    {
      key: 'd-keys',
      text: t('frame-command-box-keyboard-shortcuts'),
      also: t('frame-command-box-help-shortcuts-keyboard'),
      kind: 'do',
      run: () => {
        keys.value = true
      },
    },
  ]
  const wanted = text.value.trim().toLowerCase()
  return all
    .filter(
      (choice) =>
        `${choice.text} ${choice.also ?? ''}`
          .toLowerCase()
          .split(' ')
          .some((word) => word.startsWith(wanted)) || choice.text.toLowerCase().includes(wanted),
    )
    .slice(0, 7)
})

/** What can be done comes first where something is typed; nothing here changes the dough: an ingredient asks for its amount first. */
const choices = computed<Choice[]>(() => [
  ...(text.value.trim() ? actions.value : []),
  ...(found.answer.value?.formulas ?? []).map((f): Choice => ({
    key: `f-${f.id}`,
    text: f.name,
    kind: 'formula',
    run: () => void router.push(`/formula/${f.id}`),
  })),
  ...(route.name === 'bench' && bench.mayEdit ? (found.answer.value?.ingredients ?? []) : []).map((i): Choice => ({
    key: `i-${i.id}`,
    text: t('frame-command-box-add', { name: i.name }),
    kind: 'ingredient',
    run: () => {
      panels.open.value = 'lines'
      panels.wanted.value = i
    },
  })),
  ...(text.value.trim() ? [] : actions.value),
])

function choose(choice: Choice | undefined): void {
  // Enter came before the answer: it is done when the answer is there.
  enterWaits = !choice && !answered.value
  if (!choice) return
  open.value = false
  choice.run()
}

function onKey(event: KeyboardEvent): void {
  if (event.key === 'Escape') open.value = false
  else if (event.key === 'Enter') choose(choices.value[at.value])
  else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
    event.preventDefault()
    const step = event.key === 'ArrowDown' ? 1 : -1
    at.value = (at.value + step + choices.value.length) % Math.max(choices.value.length, 1)
  }
}
</script>

<template>
  <div v-if="open" class="veil" @click.self="open = false">
    <div class="box" role="dialog" :aria-label="$t('frame-command-box-search-or-run-a-command')">
      <input
        ref="box"
        v-model="text"
        class="entry"
        :placeholder="$t('frame-command-box-search-for-a-formula-or-ingredient')"
        role="combobox"
        aria-expanded="true"
        aria-controls="command-choices"
        :aria-activedescendant="choices[at] ? `command-${at}` : undefined"
        :aria-label="$t('frame-command-box-search-or-run-a-command')"
        @keydown="onKey"
      />
      <ul id="command-choices" role="listbox" :aria-label="$t('frame-command-box-search-results')">
        <li
          v-for="(choice, i) in choices"
          :id="`command-${i}`"
          :key="choice.key"
          role="option"
          :aria-selected="i === at"
          :class="{ on: i === at }"
          @mousemove="at = i"
          @click="choose(choice)"
        >
          <span>{{ choice.text }}</span><span class="note">{{ choice.kind }}</span>
        </li>
        <li v-if="!choices.length" class="none note">{{ $t('frame-command-box-nothing-found-with-that-name') }}</li>
      </ul>
    </div>
  </div>
</template>

<style scoped>
.box {
  width: min(560px, 92vw);
  margin: 90px auto 0;
  overflow: hidden;
  border: 1px solid var(--rule-strong);
  border-radius: 14px;
  background: var(--panel);
  box-shadow: var(--shadow);
}

.entry {
  width: 100%;
  padding: 16px 20px;
  border: 0;
  border-bottom: 1px solid var(--rule);
  background: none;
  font-size: 18px;
  outline: none;
}

ul {
  max-height: 380px;
  margin: 0;
  padding: 6px;
  overflow-y: auto;
  list-style: none;
}

li {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  padding: 8px 14px;
  border-radius: 8px;
  cursor: pointer;
}

li.on {
  background: var(--select);
}

.none {
  cursor: default;
}
</style>
