<script setup lang="ts">
/** What stands on a pack, and what is still missing before it may be sold? Local rules come first. */
import { computed, reactive, watch } from 'vue'
import { api, settled } from '@/api/client'
import type { FormulaDocument } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { download } from '@/domain/download'

const props = defineProps<{ document: FormulaDocument; region: 'us' | 'eu' }>()
const KEPT = ['business', 'address'] as const
const told = reactive({
  business: localStorage.getItem('label business') ?? '',
  address: localStorage.getItem('label address') ?? '',
  pieces_a_pack: 1,
  lot: '',
  width_mm: 90,
  height_mm: 70,
  baked_on: new Date().toISOString().slice(0, 10),
})
watch(told, () => KEPT.forEach((key) => localStorage.setItem(`label ${key}`, told[key])))
const body = computed(() => ({ document: props.document, style: props.region, ...told }))
const asked = useAsk(
  () => ['label', body.value],
  (at) => settled(api.POST('/api/kitchens/{kitchen_id}/label', { params: { path: at }, body: body.value })),
  { keep: true },
)
const label = computed(() => asked.answer.value)
const printing = useDo((_: null, at) =>
  settled(api.POST('/api/kitchens/{kitchen_id}/label/file', { params: { path: at }, body: body.value, parseAs: 'blob' })),
)
async function save(): Promise<void> {
  const data = (await printing.run(null)) as unknown as Blob | null
  if (!data) return
  download('label.pdf', data)
}
</script>

<template>
  <div class="form-and-sheet">
    <form class="no-print plain-fields" @submit.prevent>
      <label>{{ $t('card-label-sheet-business') }}<input v-model.lazy="told.business" maxlength="120" /></label>
      <label>{{ $t('card-label-sheet-address') }}<input v-model.lazy="told.address" maxlength="200" /></label>
      <label
        >{{ $t('card-label-sheet-pieces-in-a-pack') }}<input v-model.lazy.number="told.pieces_a_pack" type="number" min="1" max="1000"
      /></label>
      <label>{{ $t('card-label-sheet-baked-on') }}<input v-model.lazy="told.baked_on" type="date" /></label>
      <label>{{ $t('card-label-sheet-lot') }}<input v-model.lazy="told.lot" maxlength="40" /></label>
      <label>{{ $t('card-label-sheet-width-mm') }}<input v-model.lazy.number="told.width_mm" type="number" min="30" max="210" /></label>
      <label>{{ $t('card-label-sheet-height-mm') }}<input v-model.lazy.number="told.height_mm" type="number" min="20" max="297" /></label>
      <v-btn class="act-button" :disabled="printing.busy.value" @click="save">{{ $t('card-label-sheet-download-label-pdf') }}</v-btn>
      <p v-if="asked.trouble.value" role="alert" class="act">{{ asked.trouble.value }}</p>
    </form>
    <div v-if="label">
      <article class="pack">
        <h2>{{ label.name }}</h2>
        <p>
          {{ $t('card-label-sheet-ingredients') }}
          <template v-for="(part, n) in label.statement" :key="n"
            ><b v-if="part.strong">{{ part.text }}</b
            ><template v-else>{{ part.text }}</template></template
          >
        </p>
        <p v-if="label.contains">
          <b>{{ label.contains }}</b>
        </p>
        <p v-for="w in label.words" :key="w">{{ w }}</p>
        <p class="note">{{ $t('card-label-sheet-the-nutrition-panel-for-this-region') }}</p>
      </article>
      <h3 class="no-print">{{ $t('card-label-sheet-still-needed-before-you-can-sell') }}</h3>
      <ul class="no-print">
        <li v-for="m in label.missing" :key="m">{{ m }}</li>
      </ul>
    </div>
  </div>
</template>

<style scoped>
.pack {
  max-width: 460px;
  padding: 14px 18px;
  border: 1px solid var(--rule-strong);
  border-radius: 6px;
  background: var(--panel);
}

.pack h2 {
  font-size: 20px;
}

.pack p {
  margin: 6px 0;
}

h3 {
  margin: 14px 0 2px;
  font-size: 15px;
}

ul {
  margin: 0;
  padding-left: 18px;
}
</style>
