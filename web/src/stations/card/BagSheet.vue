<script setup lang="ts">
/** How many bags of the dry things, and what stands on each? The label first; a number typed weighs all of them anew. */
import { computed, reactive } from 'vue'
import { api, settled } from '@/api/client'
import type { FormulaDocument } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { download } from '@/domain/download'
import { localDay, weight, weightUnit } from '@/domain/format'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

const props = defineProps<{ document: FormulaDocument }>()
const session = useSession()
const wish = reactive({ bags: 6, made_on: localDay(new Date()), width_mm: 90, height_mm: 60 })
const body = computed(() => ({ document: props.document, ...wish }))
const asked = useAsk(
  () => [t('card-bag-sheet-premix-bags'), body.value],
  (at) => settled(api.POST('/api/kitchens/{kitchen_id}/premix-bags', { params: { path: at }, body: body.value })),
  { keep: true },
)
const bags = computed(() => (asked.trouble.value ? null : asked.answer.value))
const unit = computed(() => weightUnit(session.units))
const printing = useDo((_: null, at) =>
  settled(api.POST('/api/kitchens/{kitchen_id}/premix-bags/file', { params: { path: at }, body: body.value, parseAs: 'blob' })),
)
async function save(): Promise<void> {
  const data = (await printing.run(null)) as unknown as Blob | null
  if (data) download('bags.pdf', data)
}
</script>

<template>
  <div class="form-and-sheet">
    <form class="no-print plain-fields" @submit.prevent>
      <label>{{ $t('card-bag-sheet-bags-one-batch-each') }}<input v-model.lazy.number="wish.bags" type="number" min="1" max="500" /></label>
      <label>{{ $t('card-bag-sheet-made-on') }}<input v-model.lazy="wish.made_on" type="date" /></label>
      <label>{{ $t('card-bag-sheet-label-width-mm') }}<input v-model.lazy.number="wish.width_mm" type="number" min="30" max="210" /></label>
      <label
        >{{ $t('card-bag-sheet-label-height-mm') }}<input v-model.lazy.number="wish.height_mm" type="number" min="20" max="297"
      /></label>
      <v-btn class="act-button" :disabled="printing.busy.value || !bags" @click="save">{{
        $t('card-bag-sheet-download-labels-pdf')
      }}</v-btn>
      <p v-if="asked.trouble.value" role="alert" class="act">{{ asked.trouble.value }}</p>
    </form>
    <div v-if="bags" class="told">
      <article class="bag">
        <h2>{{ bags.words[0] }}</h2>
        <p v-for="w in bags.words.slice(1)" :key="w">{{ w }}</p>
      </article>
      <p class="note">
        {{ $t('card-bag-sheet-use-by-date-based-on', { why_use_by: bags.why_use_by }) }}
        <template v-if="bags.to_add_allergens.length">
          {{ $t('card-bag-sheet-added-ingredients-contain', { to_add_allergens: bags.to_add_allergens.join(', ') }) }}</template
        >
      </p>
      <table class="figures">
        <thead>
          <tr>
            <th>{{ $t('card-bag-sheet-in-the-bag') }}</th>
            <th>{{ $t('card-bag-sheet-one-bag') }}</th>
            <th>{{ bags.bags }} {{ $t('card-bag-sheet-value', { bags: bags.bags }) }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="p in bags.parts" :key="p.line">
            <td>{{ p.name }}</td>
            <td class="n">{{ weight(p.grams, session.units) }} {{ unit }}</td>
            <td class="n">{{ weight(p.whole_g, session.units) }} {{ unit }}</td>
          </tr>
          <tr class="sum">
            <td>{{ $t('card-bag-sheet-together') }}</td>
            <td class="n">{{ weight(bags.bag_g, session.units) }} {{ unit }}</td>
            <td class="n">{{ weight(bags.whole_g, session.units) }} {{ unit }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
.told {
  max-width: 520px;
}

.bag {
  padding: 14px 18px;
  border: 1px solid var(--rule-strong);
  border-radius: 6px;
  background: var(--panel);
}

.bag h2 {
  font-size: 20px;
}

.bag p {
  margin: 6px 0;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th {
  font-weight: 400;
  font-size: 12px;
  color: var(--ink-2);
  text-align: left;
}

th + th,
.n {
  text-align: right;
}

td {
  padding: 4px 0;
  border-top: 1px solid var(--rule);
}

.figures td:first-child,
.figures th:first-child {
  text-align: left;
}

.sum td {
  font-weight: 700;
}
</style>
