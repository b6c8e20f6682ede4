<script setup lang="ts">
/** The label as it is printed, figure by figure; Enter and Tab lead down the list. */
import { computed, ref, watch } from 'vue'
import type { LabelDocument, Words } from '@/api/types'
import { useSession } from '@/stores/session'

const label = defineModel<LabelDocument>({ required: true })
const props = defineProps<{ readonly: boolean; wrongField: string; marked: readonly string[] }>()
const session = useSession()
const style = computed(() => (label.value.style === 'eu' ? 'eu' : 'us'))
const place = (f: Words['label_figures'][number]): number => f.places[style.value] ?? 0
const figures = computed(() =>
  (session.words?.label_figures ?? []).filter((f) => place(f) > 0).sort((one, other) => place(one) - place(other)),
)
const form = ref<HTMLElement>()
const grams = ref('')
watch(
  () => label.value.per_g,
  (now) => {
    if (Number(grams.value.replace(',', '.')) !== now) grams.value = now ? String(now) : ''
  },
  { immediate: true },
)

function setFigure(id: string, text: string): void {
  label.value = { ...label.value, figures: { ...label.value.figures, [id]: text } }
}

/** Grams and the size of their last digit, as they are written. */
function setGrams(text: string): void {
  grams.value = text
  const plain = text.trim().replace(',', '.')
  const value = Number(plain)
  if (plain && Number.isFinite(value))
    label.value = { ...label.value, per_g: value, per_digit_g: 10 ** -(plain.split('.')[1]?.length ?? 0) }
}

function setStyle(next: 'us' | 'eu'): void {
  const { per_g: per } = label.value
  label.value = { ...label.value, style: next, ...(next === 'eu' && !per ? { per_g: 100, per_digit_g: 0 } : {}) }
}

function next(event: KeyboardEvent): void {
  const fields = [...(form.value?.querySelectorAll<HTMLInputElement>('input:not([type=radio])') ?? [])]
  const to = fields[fields.indexOf(event.target as HTMLInputElement) + 1]
  to?.focus()
  to?.select()
}
</script>

<template>
  <section ref="form" class="label" :aria-label="$t('pantry-label-form-label-as-printed')" @keydown.enter.exact.prevent="next">
    <v-radio-group
      class="style"
      inline
      :aria-label="$t('pantry-label-form-label-style')"
      :model-value="style"
      :disabled="readonly"
      @update:model-value="setStyle($event === 'eu' ? 'eu' : 'us')"
    >
      <v-radio v-for="s in ['us', 'eu'] as const" :key="s" :value="s">
        <template #label>
          <span
            ><b>{{ s === 'us' ? $t('pantry-label-form-united-states') : $t('pantry-label-form-european') }}</b
            >{{ ' '
            }}<span class="note">{{
              s === 'us' ? $t('pantry-label-form-carbohydrate-includes-fiber') : $t('pantry-label-form-carbohydrate-excludes-fiber')
            }}</span></span
          >
        </template>
      </v-radio>
    </v-radio-group>
    <div class="serving">
      <label class="note"
        >{{ $t('pantry-label-form-values-are-for') }}
        <span class="with"
          ><v-text-field
            class="field"
            :class="{ wrong: wrongField === 'label.per_g' }"
            inputmode="decimal"
            :model-value="grams"
            :readonly="readonly"
            :aria-label="$t('pantry-label-form-grams-the-values-are-for')"
            @input="setGrams(($event.target as HTMLInputElement).value)"
          />
          g</span
        >
      </label>
      <label class="note"
        >{{ $t('pantry-label-form-serving-size-on-the-pack') }}
        <v-text-field
          class="field"
          :model-value="label.serving_measure"
          :placeholder="$t('pantry-label-form-2-tbsp')"
          maxlength="60"
          :readonly="readonly"
          @input="label = { ...label, serving_measure: ($event.target as HTMLInputElement).value }"
        />
      </label>
    </div>
    <div class="figures">
      <label v-for="f in figures" :key="f.id" class="figure-row" :class="{ part: f.part, marked: props.marked.includes(f.id) }">
        <span>{{ f.name }}</span>
        <input
          class="cell"
          :class="{ wrong: wrongField === f.id }"
          :value="label.figures?.[f.id] ?? ''"
          :aria-label="`${f.name}, ${f.unit}`"
          placeholder="–"
          maxlength="40"
          autocomplete="off"
          :readonly="readonly"
          :data-figure="f.id"
          @input="setFigure(f.id, ($event.target as HTMLInputElement).value)"
          @focus="($event.target as HTMLInputElement).select()"
        />
        <span class="note unit">{{ f.unit }}</span>
      </label>
    </div>
  </section>
</template>

<style scoped>
.label {
  padding: 12px 14px;
  border: 2px solid var(--ink);
  border-radius: 4px;
  background: var(--panel);
}

.style {
  margin-bottom: 4px;
}

.style .note {
  display: block;
}

.serving {
  display: grid;
  grid-template-columns: 110px 1fr;
  gap: 10px;
  padding: 10px 0;
  border-bottom: 6px solid var(--ink);
}

.with {
  display: flex;
  align-items: center;
  gap: 5px;
}

.field {
  color: var(--ink);
  font-size: 15px;
}

.figure-row {
  display: grid;
  grid-template-columns: 1fr 84px 34px;
  align-items: center;
  min-height: 27px;
  border-bottom: 1px solid var(--rule);
  font-weight: 650;
  font-size: 13px;
}

.figure-row.part {
  padding-left: 16px;
  font-weight: 400;
}

.figure-row.marked {
  background: var(--act-soft);
}

.cell {
  height: 24px;
  padding: 0 6px;
  border: 1px solid transparent;
  border-bottom-color: var(--rule-strong);
  background: transparent;
  text-align: right;
}

.cell:focus {
  border-color: var(--focus);
  border-radius: 4px;
  outline: 1px solid var(--focus);
}

.wrong {
  border-color: var(--act);
}

.unit {
  padding-left: 6px;
}
</style>
