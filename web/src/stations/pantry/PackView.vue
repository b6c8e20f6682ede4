<script setup lang="ts">
/**
 * A pack's page decides whether its label can be trusted and what it means for a dough. The eye falls on the
 * findings, then on the bands; every keystroke in the label on the left moves the bands on the right.
 */
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, settled } from '@/api/client'
import type { LabelDocument, LotDocument, LotOut } from '@/api/types'
import IngredientFinder from '@/components/pantry/IngredientFinder.vue'
import { savePack } from '@/composables/useDocumentFiles'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { usePackDraft } from '@/composables/usePackDraft'
import { gramsOf, weight, weightUnit } from '@/domain/format'
import { useSession } from '@/stores/session'
import { useToasts } from '@/stores/toasts'
import LabelForm from './LabelForm.vue'
import PackMeaning from './PackMeaning.vue'
import PackMore from './PackMore.vue'
import PantryBar from './PantryBar.vue'
import { t } from '@/messages'

const props = defineProps<{ id: number }>()
const route = useRoute()
const router = useRouter()
const session = useSession()
const toasts = useToasts()
const asked = useAsk(
  () => ['pack', props.id],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/packs/{lot_id}', { params: { path: { ...at, lot_id: props.id } } })),
  { when: () => props.id > 0 },
)
const lot = shallowRef<LotOut | null>(null)
const missing = computed(() => asked.missing.value)
const ready = ref(false)
const onHand = ref('')
const nameField = ref<HTMLInputElement>()
const { draft, label, hasLabel, reading, refusal, changed, open, set, setLabel, clean, forget } = usePackDraft()
const readonly = computed(() => !session.may('packs.edit'))
const ingredientName = computed(() => reading.value?.reference.name ?? '')
const marked = computed(() => reading.value?.findings.filter((f) => f.severity !== 'note').flatMap((f) => f.figures ?? []) ?? [])
const wrongField = computed(() => refusal.value?.problem.field ?? '')

async function show(pack: LotOut | null): Promise<void> {
  lot.value = pack
  // What was on hand of the pack before is not on hand of this one.
  onHand.value = ''
  open(session.kitchen?.id ?? 0, pack, String(route.query.ingredient ?? ''))
  ready.value = true
  await nextTick()
  if (!pack) nameField.value?.focus()
}
watch(
  () => props.id,
  (id) => {
    ready.value = false
    lot.value = null
    if (!id) void show(null)
  },
  { immediate: true },
)
/** What is being typed stays: the pack is shown once, and again only when it was saved here. */
watch(
  asked.answer,
  (pack) => {
    if (pack && pack.id === props.id && !ready.value) void show(pack)
  },
  { immediate: true },
)

/** The name often says what it is: propose the ingredient while none is chosen. */
async function guess(): Promise<void> {
  if (draft.value.ingredient || draft.value.name.trim().length < 4) return
  const hits = await settled(
    api.GET('/api/ingredients', { params: { query: { search: draft.value.name.slice(0, 100), limit: 1 } } }),
  ).catch(() => [])
  if (hits[0] && !draft.value.ingredient) set({ ingredient: hits[0].id })
}

const saving = useDo(
  (document: LotDocument, at) => {
    const grams = gramsOf(Number(onHand.value.replace(',', '.')), session.units) || draft.value.pack_g || 0
    return lot.value
      ? settled(
          api.PUT('/api/kitchens/{kitchen_id}/packs/{lot_id}', {
            params: { path: { ...at, lot_id: lot.value.id } },
            body: { document, lock: lot.value.lock },
          }),
        )
      : settled(api.POST('/api/kitchens/{kitchen_id}/packs', { params: { path: at }, body: { document, on_hand_g: grams } }))
  },
  {
    then: (saved) => {
      forget()
      toasts.show(t('pantry-pack-view-is-in-the-pantry', { name: draft.value.name }))
      return lot.value ? show(saved) : router.replace(`/pantry/packs/${saved.id}`)
    },
  },
)
const save = (): void => {
  if (!saving.busy.value && !readonly.value) void saving.run(clean())
}

const archiving = useDo(
  ({ id, away }: { id: number; away: boolean }, at) =>
    settled(
      api.POST('/api/kitchens/{kitchen_id}/packs/{lot_id}/archive', { params: { path: { ...at, lot_id: id } }, body: { archived: away } }),
    ),
  {
    then: (_, { away }) => {
      if (lot.value) lot.value = { ...lot.value, archived: away }
      toasts.show(away ? t('pantry-pack-view-pack-archived-formulas-that-use-it') : t('pantry-pack-view-pack-restored'), {
        action: {
          label: t('pantry-pack-view-undo'),
          run: () => {
            putAway(!away)
          },
        },
      })
    },
  },
)
const putAway = (away: boolean): void => {
  if (lot.value) void archiving.run({ id: lot.value.id, away })
}

function mend(mended: LabelDocument): void {
  const before = draft.value.label
  setLabel(mended)
  toasts.show(t('pantry-pack-view-label-style-switched'), {
    action: {
      label: t('pantry-pack-view-undo'),
      run: () => {
        set({ label: before })
      },
    },
  })
}

/** A panel pasted anywhere but into a field is read into the label. */
const readingPanel = useDo(
  (text: string, at) => settled(api.POST('/api/kitchens/{kitchen_id}/packs/panel', { params: { path: at }, body: { text } })),
  {
    then: (panel) => {
      const before = draft.value.label
      setLabel({
        style: panel.style ?? label.value.style,
        per_g: panel.per_g ?? label.value.per_g,
        per_digit_g: panel.per_digit_g,
        serving_measure: panel.serving_measure || label.value.serving_measure,
        figures: { ...label.value.figures, ...panel.figures },
      })
      toasts.show([t('pantry-pack-view-values-read', { figures: Object.keys(panel.figures).length }), ...panel.notes].join(' '), {
        action: {
          label: t('pantry-pack-view-undo'),
          run: () => {
            set({ label: before })
          },
        },
      })
    },
  },
)
const readPanel = (text: string): Promise<unknown> => readingPanel.run(text)

useEventListener(window, 'paste', (event: ClipboardEvent) => {
  const text = event.clipboardData?.getData('text/plain') ?? ''
  const field = event.target instanceof HTMLElement && event.target.matches('input, textarea')
  // A whole panel is never meant for one small field.
  if (readonly.value || (field && text.length < 40)) return
  event.preventDefault()
  void readPanel(text)
})

async function fromClipboard(): Promise<void> {
  try {
    await readPanel(await navigator.clipboard.readText())
  } catch {
    toasts.show(t('pantry-pack-view-copy-the-panel-then-press-ctrl'), { tone: 'act' })
  }
}
</script>

<template>
  <div class="page" @keydown.ctrl.enter.prevent="save" @keydown.meta.enter.prevent="save">
    <PantryBar :title="lot ? $t('pantry-pack-view-pack') : $t('pantry-pack-view-new-pack')" />
    <div v-if="missing" class="page-blank" role="alert">
      <p>{{ missing }}</p>
      <router-link class="quiet-button" to="/pantry">{{ $t('pantry-pack-view-back-to-pantry') }}</router-link>
    </div>
    <div v-else-if="!ready" class="page-sheet" :aria-label="$t('pantry-pack-view-loading')"><div class="skeleton wait" /></div>
    <div v-else class="two">
      <div class="left">
        <label class="note"
          >{{ $t('pantry-pack-view-name-your-own') }}
          <v-text-field
            ref="nameField"
            class="field name"
            :model-value="draft.name"
            maxlength="120"
            :placeholder="$t('pantry-pack-view-brand-and-kind')"
            :readonly="readonly"
            @input="set({ name: ($event.target as HTMLInputElement).value })"
            @change="guess"
          />
        </label>
        <label class="note"
          >{{ $t('pantry-pack-view-it-is-a-pack-of') }}
          <IngredientFinder
            :shown="ingredientName"
            :placeholder="$t('pantry-pack-view-almond-flour')"
            :label="$t('pantry-pack-view-it-is-a-pack-of-2')"
            @pick="(key) => set({ ingredient: key })"
          />
        </label>
        <p v-if="refusal" class="act" role="alert">{{ refusal.sentence }}</p>
        <v-btn v-if="!readonly" class="note paste" @click="fromClipboard"
          >{{ $t('pantry-pack-view-paste-a-nutrition-panel-from-the') }} <kbd>{{ $t('pantry-pack-view-ctrl-v') }}</kbd>
        </v-btn>
        <LabelForm :model-value="label" :readonly="readonly" :wrong-field="wrongField" :marked="marked" @update:model-value="setLabel" />
        <PackMore :pack="draft" :readonly="readonly" :is-new="!lot" :on-hand="onHand" @set="set" @on-hand="onHand = $event" />
      </div>
      <div class="right" tabindex="0" role="region" :aria-label="$t('pantry-pack-view-label-price-and-uses')">
        <div class="actions">
          <span v-if="lot" class="stock"
            >{{ $t('pantry-pack-view-on-hand', { on_hand_g: weight(lot.on_hand_g, session.units), unit: weightUnit(session.units) })
            }}<span v-if="lot.reserved_g">{{
              $t('pantry-pack-view-reserved', { reserved_g: weight(lot.reserved_g, session.units) })
            }}</span></span
          >
          <span v-if="lot?.archived" class="note">{{ $t('pantry-pack-view-archived') }}</span>
          <span class="spring" />
          <v-btn v-if="lot" class="quiet-button" @click="savePack(clean())">{{ $t('pantry-pack-view-export') }}</v-btn>
          <template v-if="!readonly">
            <v-btn v-if="lot" class="quiet-button" @click="putAway(!lot.archived)">{{
              lot.archived ? $t('pantry-pack-view-restore') : $t('pantry-pack-view-archive')
            }}</v-btn>
            <v-btn
              class="act-button"
              :disabled="saving.busy.value || !draft.name.trim() || !draft.ingredient || (lot !== null && !changed)"
              :title="$t('pantry-pack-view-ctrl-enter')"
              @click="save"
            >
              {{ lot ? $t('pantry-pack-view-save') : $t('pantry-pack-view-add-to-the-pantry') }}
            </v-btn>
          </template>
        </div>
        <PackMeaning
          v-if="reading"
          :reading="reading"
          :has-label="hasLabel"
          :may-edit="!readonly"
          @mend="mend"
          @ingredient="(key) => set({ ingredient: key })"
        />
        <p v-else class="note">{{ $t('pantry-pack-view-name-the-pack-and-choose-its') }}</p>
        <section v-if="lot" class="uses">
          <h3>{{ $t('pantry-pack-view-used-in') }}</h3>
          <p v-if="!lot.uses.length" class="note">{{ $t('pantry-pack-view-no-formula-uses-this-pack-yet') }}</p>
          <router-link v-for="u in lot.uses" :key="u.id" class="quiet-button" :to="`/formula/${u.id}`">{{ u.name }}</router-link>
        </section>
      </div>
    </div>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 410px minmax(0, 1fr);
  flex: 1;
  min-height: 0;
}

.left,
.right {
  min-height: 0;
  padding: 4px 24px 40px;
  overflow-y: auto;
  scrollbar-width: thin;
}

.right {
  padding-left: 12px;
}

.left > label {
  display: block;
  margin-bottom: 8px;
}

.left > :deep(.label) {
  margin: 6px 0 14px;
}

.name {
  font: 700 17px/1.3 var(--head);
}

.left :deep(.field) {
  color: var(--ink);
  font-size: 14px;
}

.left .name {
  font-size: 17px;
}

.paste {
  text-decoration: underline;
  text-decoration-color: var(--rule-strong);
  text-underline-offset: 3px;
}

.actions {
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 34px;
  margin-bottom: 8px;
}

.spring {
  flex: 1;
}

.wait {
  height: 50vh;
}

.uses {
  margin-top: 18px;
}

.uses h3 {
  margin-bottom: 6px;
  font-size: 15px;
}

.uses a {
  margin: 0 6px 6px 0;
  text-decoration: none;
}

@media (max-width: 1140px) {
  .two {
    grid-template-columns: 360px minmax(0, 1fr);
  }
}

@media (max-width: 700px) {
  .two {
    display: block;
    height: auto;
    overflow: visible;
  }
}
</style>
