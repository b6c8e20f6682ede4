<script setup lang="ts">
/**
 * What is handed to whoever bakes it next? The eye falls on the ingredients in grams and measures, then on the method; a step is
 * rewritten by pressing it, and says so when the figures no longer agree with it.
 */
import { refDebounced } from '@vueuse/core'
import { computed, nextTick, ref } from 'vue'
import { api, settled } from '@/api/client'
import type { FormulaDocument, RecipeStep } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { useBench } from '@/stores/bench'

const props = defineProps<{ document: FormulaDocument; batches: number; sort: string }>()
const bench = useBench()
const rested = refDebounced(
  computed(() => props.batches),
  250,
)
const asked = useAsk(
  () => ['recipe', props.document, rested.value, props.sort],
  (at) =>
    settled(
      api.POST('/api/kitchens/{kitchen_id}/recipe', {
        params: { path: at },
        body: { document: props.document, batches: rested.value, sort: props.sort, formula_id: bench.formulaId },
      }),
    ),
  { keep: true },
)
const recipe = computed(() => asked.answer.value)
const editing = ref('')
const words = ref('')
const box = ref<HTMLTextAreaElement[]>([])
function open(step: RecipeStep): void {
  if (!bench.mayEdit) return
  editing.value = step.id
  words.value = step.text
  void nextTick(() => box.value[0]?.focus())
}
/** Own words for a step; none takes the computed ones back. */
function keep(step: RecipeStep, text: string | null): void {
  editing.value = ''
  if (text === step.text) return
  bench.edit((doc) => {
    const method = { ...doc.method }
    // eslint-disable-next-line @typescript-eslint/no-dynamic-delete -- a step in the computed words is no edit
    if (text === null || text === step.computed) delete method[step.id]
    else method[step.id] = { text, of: step.computed }
    return { ...doc, method }
  })
}
const left = computed(() => Object.entries(props.document.method ?? {}).filter(([, edit]) => !edit?.text?.trim()))
</script>

<template>
  <p v-if="asked.trouble.value" role="alert" class="act">{{ asked.trouble.value }}</p>
  <div v-if="!recipe && !asked.trouble.value" class="skeleton wait" />
  <article v-else-if="recipe" class="sheet">
    <header>
      <h2>{{ recipe.name }}</h2>
      <p>
        {{ recipe.form }} · {{ recipe.yields }} · <b>{{ $t('card-recipe-sheet-net-carbs', { net_carbs: recipe.net_carbs }) }}</b>
        {{ $t('card-recipe-sheet-per-piece') }} <span class="note">({{ recipe.net_rule }})</span
        ><template v-if="recipe.cost"> · {{ recipe.cost }}</template>
      </p>
      <p v-if="recipe.incomplete" class="act" role="alert">{{ recipe.incomplete }}</p>
    </header>
    <div class="columns">
      <div>
        <template v-for="group in recipe.groups" :key="group.title">
          <h3>{{ group.title }}</h3>
          <table>
            <tbody>
              <tr v-for="line in group.lines" :key="line.line">
                <td class="grams">{{ line.amount }}</td>
                <td class="measure">
                  {{ line.measure
                  }}<span v-if="line.weigh_it" class="weigh" :title="$t('card-recipe-sheet-a-spoon-is-not-accurate-enough')">
                    {{ $t('card-recipe-sheet-weigh-it') }}</span
                  >
                </td>
                <td>
                  {{ line.name }}<span v-if="line.note" class="note">, {{ line.note }}</span>
                </td>
              </tr>
            </tbody>
          </table>
        </template>
        <template v-if="recipe.variants.length">
          <h3>{{ $t('card-recipe-sheet-variations') }}</h3>
          <ul class="variants">
            <li v-for="variant in recipe.variants" :key="`${variant.kind} ${variant.name}`">
              <b>{{ variant.name }}</b>: {{ variant.text }}
            </li>
          </ul>
        </template>
        <h3>{{ $t('card-recipe-sheet-storage') }}</h3>
        <p>{{ recipe.keeping.text }}</p>
      </div>
      <div>
        <h3>{{ $t('card-recipe-sheet-method') }}</h3>
        <ol>
          <li v-for="(step, n) in recipe.steps" :key="step.id" :class="{ stale: step.stale }">
            <div v-if="editing === step.id">
              <textarea
                ref="box"
                v-model="words"
                rows="3"
                :aria-label="$t('card-recipe-sheet-step', { title: step.title })"
                @keydown.esc="editing = ''"
              />
              <span class="acts no-print">
                <v-btn class="act-button tiny-button" @click="keep(step, words)">{{ $t('card-recipe-sheet-save') }}</v-btn>
                <v-btn class="quiet-button tiny-button" @click="keep(step, '')">{{ $t('card-recipe-sheet-hide-step') }}</v-btn>
                <v-btn v-if="step.edited" class="quiet-button tiny-button" @click="keep(step, null)">{{
                  $t('card-recipe-sheet-reset-to-computed-text')
                }}</v-btn>
                <v-btn class="quiet-button tiny-button" @click="editing = ''">{{ $t('card-recipe-sheet-cancel') }}</v-btn>
              </span>
            </div>
            <template v-else>
              <span class="words" :class="{ may: bench.mayEdit }" @click="open(step)"
                ><b v-if="recipe.steps[n - 1]?.title !== step.title">{{ step.title }}. </b>{{ step.text }}</span
              >
              <v-btn
                v-if="bench.mayEdit"
                class="quiet-button tiny-button pen no-print"
                :aria-label="$t('card-recipe-sheet-rewrite', { title: step.title })"
                @click="open(step)"
                >✎</v-btn
              >
              <p v-if="step.stale" class="act no-print">
                {{ $t('card-recipe-sheet-the-numbers-changed-since-you-edited', { computed: step.computed }) }}
                <v-btn class="quiet-button tiny-button" @click="keep(step, null)">{{ $t('card-recipe-sheet-use-new-text') }}</v-btn>
              </p>
            </template>
          </li>
        </ol>
        <p v-if="left.length && bench.mayEdit" class="note no-print">
          {{ $t('card-recipe-sheet-left-out', { left: left.length }) }}
          <v-btn
            class="quiet-button tiny-button"
            @click="
              bench.edit((doc) => ({
                ...doc,
                method: Object.fromEntries(Object.entries(doc.method ?? {}).filter(([, e]) => e?.text?.trim())),
              }))
            "
            >{{ $t('card-recipe-sheet-show-hidden-steps') }}</v-btn
          >
        </p>
      </div>
    </div>
    <p v-if="recipe.notes" class="notes">{{ recipe.notes }}</p>
  </article>
</template>

<style scoped>
.sheet {
  padding: 20px 24px 26px;
  border: 1px solid var(--rule);
  border-radius: 10px;
  background: var(--panel);
}

h2 {
  font-size: 26px;
}

h3 {
  margin: 12px 0 2px;
  font-size: 15px;
}

header p {
  margin: 2px 0 0;
}

.columns {
  display: grid;
  grid-template-columns: minmax(280px, 5fr) minmax(0, 6fr);
  gap: 30px;
}

table {
  border-collapse: collapse;
}

td {
  padding: 2px 8px 2px 0;
  vertical-align: top;
}

.grams {
  min-width: 62px;
  font-variant-numeric: tabular-nums;
  font-weight: 650;
  text-align: right;
  white-space: nowrap;
}

.measure {
  min-width: 90px;
  color: var(--ink-2);
}

.weigh {
  color: var(--act);
  font-size: 12px;
}

ol {
  margin: 0;
  padding-left: 20px;
}

li {
  margin-bottom: 6px;
}

.words.may {
  cursor: text;
}

.pen {
  margin-left: 6px;
  opacity: 0.5;
}

li:hover .pen,
.pen:focus-visible {
  opacity: 1;
}

textarea {
  width: 100%;
  padding: 6px 8px;
  border: 1px solid var(--rule-strong);
  border-radius: 8px;
  background: var(--ground);
  color: var(--ink);
  font: inherit;
}

.acts {
  display: flex;
  gap: 6px;
}

.notes {
  margin-top: 14px;
  color: var(--ink-2);
  white-space: pre-line;
}

.wait {
  height: 60vh;
}

@media (max-width: 700px) {
  .sheet {
    padding: 14px;
  }

  .columns {
    grid-template-columns: 1fr;
    gap: 6px;
  }
}

@media print {
  .no-print {
    display: none;
  }

  .sheet {
    border: 0;
    padding: 4mm;
  }
}
</style>
