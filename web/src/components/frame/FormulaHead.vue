<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { usePanels } from '@/composables/usePanels'
import { t } from '@/messages'

const bench = useBench()
const route = useRoute()
const router = useRouter()
const session = useSession()
const panels = usePanels()
const name = ref('')
watch(
  () => bench.document?.name,
  (now) => {
    name.value = now ?? ''
  },
  { immediate: true },
)

const form = computed(() => session.words?.forms.find((f) => f.id === bench.document?.form.kind))
const pieces = computed(() => bench.document?.form.pieces ?? 0)
const piecesTyped = ref('')
const servingTyped = ref('')
watch(
  () => bench.document?.form,
  (now) => {
    piecesTyped.value = String(now?.pieces ?? '')
    servingTyped.value = String(now?.serving_pieces ?? 1)
  },
  { immediate: true },
)

const saveWord = computed(
  () =>
    ({
      saved: bench.changed ? 'draft' : 'saved',
      waiting: 'draft …',
      saving: 'draft …',
      offline: t('frame-formula-head-saved-on-this-device-not-synced'),
      refused: t('frame-formula-head-not-saved'),
      clash: t('frame-formula-head-conflicting-drafts'),
    })[bench.saveState],
)

/** The versions lie on the bench; from another station one goes there. */
async function toVersions(): Promise<void> {
  if (route.name === 'bench') panels.toggle('versions')
  else {
    await router.push(`/formula/${bench.formulaId}`)
    panels.open.value = 'versions'
  }
}

function rename(): void {
  const wanted = name.value.trim()
  if (wanted && wanted !== bench.document?.name) bench.edit((doc) => ({ ...doc, name: wanted }))
  else name.value = bench.document?.name ?? ''
}

function setForm(kind: string): void {
  bench.edit((doc) => ({ ...doc, form: { ...doc.form, kind } }))
}

/** The core refuses what cannot be counted and says why; the number stays where it was typed. */
function setCount(field: 'pieces' | 'serving_pieces', text: string): void {
  const value = Number(text.replace(',', '.'))
  if (text.trim() !== '' && Number.isFinite(value)) bench.edit((doc) => ({ ...doc, form: { ...doc.form, [field]: value } }))
}
</script>

<template>
  <input
    v-model="name"
    class="name"
    :aria-label="$t('frame-formula-head-name-of-the-formula')"
    maxlength="120"
    :readonly="!bench.mayEdit"
    @change="rename"
    @keydown.enter="($event.target as HTMLInputElement).blur()"
  />
  <v-btn
    class="quiet-button"
    :class="{ warn: bench.saveState === 'clash' || bench.saveState === 'refused' || bench.saveState === 'offline' }"
    :aria-expanded="panels.open.value === 'versions'"
    @click="toVersions"
  >
    {{ bench.baseNumber ? `v${bench.baseNumber}` : $t('frame-formula-head-new') }} · <span aria-live="polite">{{ saveWord }}</span>
  </v-btn>
  <v-menu :close-on-content-click="false" location="bottom start">
    <template #activator="{ props: menu }">
      <v-btn v-bind="menu" class="quiet-button">
        {{ form?.name.toLowerCase() ?? '…' }} · {{ pieces }} {{ $t('frame-formula-head-value', { pieces }) }}
      </v-btn>
    </template>
    <div class="sheet popover">
      <div class="forms" role="radiogroup" :aria-label="$t('frame-formula-head-shape')">
        <v-btn
          v-for="f in session.words?.forms"
          :key="f.id"
          role="radio"
          :aria-checked="f.id === form?.id"
          class="form"
          :class="{ on: f.id === form?.id }"
          :disabled="!bench.mayEdit"
          @click="setForm(f.id)"
        >
          {{ f.name }}
        </v-btn>
      </div>
      <p v-if="form?.note" class="note">{{ form.note }}</p>
      <div class="counts">
        <label
          >{{ $t('frame-formula-head-pieces') }}
          <v-text-field
            v-model="piecesTyped"
            class="field"
            inputmode="numeric"
            :readonly="!bench.mayEdit"
            @change="setCount('pieces', piecesTyped)"
        /></label>
        <label
          >{{ $t('frame-formula-head-pieces-per-serving') }}
          <v-text-field
            v-model="servingTyped"
            class="field"
            inputmode="numeric"
            :readonly="!bench.mayEdit"
            @change="setCount('serving_pieces', servingTyped)"
        /></label>
      </div>
    </div>
  </v-menu>
</template>

<style scoped>
.name {
  min-width: 60px;
  max-width: 340px;
  field-sizing: content;
  padding: 2px 4px;
  margin-left: -4px;
  border: 1px solid transparent;
  border-radius: 6px;
  background: transparent;
  font: 700 22px/1.2 var(--head);
  letter-spacing: -0.01em;
  text-overflow: ellipsis;
}

.name:hover:not([readonly]) {
  border-color: var(--rule-strong);
}

.warn {
  border-color: var(--act);
  color: var(--act);
}

.sheet {
  width: 360px;
}

.forms {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
}

.form {
  padding: 7px 4px;
  border: 1px solid var(--rule);
  border-radius: 8px;
  font-size: 13px;
}

.form.on {
  border-color: var(--act);
  box-shadow: inset 0 0 0 1px var(--act);
  font-weight: 650;
}

.counts {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  margin-top: 12px;
  font-size: 12px;
  color: var(--ink-2);
}

.counts .field {
  margin-top: 3px;
  color: var(--ink);
  font-size: 15px;
}
</style>
