<script setup lang="ts">
/** The recipe's ways out: files, and an address that somebody without an account may read. */
import { computed, ref } from 'vue'
import { api, settled } from '@/api/client'
import type { FormulaDocument } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { download } from '@/domain/download'
import { useSession } from '@/stores/session'
import { useToasts } from '@/stores/toasts'
import { t } from '@/messages'

const props = defineProps<{ id: number; document: FormulaDocument; batches: number; sort: string }>()
const session = useSession()
const toasts = useToasts()
const STYLES = [
  { id: 'pdf-a4', name: 'PDF, A4' },
  { id: 'pdf-letter', name: 'PDF, Letter' },
  { id: 'pdf-a6', name: 'PDF, A6 card' },
  { id: 'text', name: t('card-card-out-plain-text') },
  { id: 'markdown', name: t('card-card-out-markdown') },
  { id: 'jsonld', name: 'recipe JSON-LD' },
  { id: 'csv', name: 'CSV' },
  { id: 'xlsx', name: t('card-card-out-excel-workbook-xlsx') },
  { id: 'png', name: t('card-card-out-layer-diagram-png') },
]
const style = ref('pdf-a4')
const ENDINGS: Record<string, string> = { text: 'txt', markdown: 'md', jsonld: 'json', csv: 'csv', xlsx: 'xlsx', png: 'png' }
const filing = useDo((wanted: string, at) =>
  settled(
    api.POST('/api/kitchens/{kitchen_id}/recipe/files/{style}', {
      params: { path: { ...at, style: wanted } },
      body: { document: props.document, batches: props.batches, sort: props.sort, formula_id: props.id },
      parseAs: 'blob',
    }),
  ),
)
async function save(): Promise<void> {
  const data = (await filing.run(style.value)) as unknown as Blob | null
  if (!data) return
  const name = (props.document.name || 'recipe').replace(/[^\p{L}\p{N} -]/gu, '').slice(0, 60)
  download(`${name}.${ENDINGS[style.value] ?? 'pdf'}`, data)
}
const shared = useAsk(
  () => ['share', props.id],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/formulas/{formula_id}/share', { params: { path: { ...at, formula_id: props.id } } })),
)
const sharing = useDo(
  (on: boolean, at) =>
    settled(
      api.POST('/api/kitchens/{kitchen_id}/formulas/{formula_id}/share', {
        params: { path: { ...at, formula_id: props.id } },
        body: { on },
      }),
    ),
  { then: () => shared.again() },
)
const address = computed(() => (shared.answer.value?.address ? `${window.location.origin}${shared.answer.value.address}` : ''))
async function copy(): Promise<void> {
  try {
    await navigator.clipboard.writeText(address.value)
    toasts.show(t('card-card-out-link-copied'))
  } catch {
    toasts.show(t('card-card-out-copying-is-blocked-in-this-browser'), { tone: 'act' })
  }
}
</script>

<template>
  <div class="out no-print plain-fields">
    <label
      >{{ $t('card-card-out-as') }}
      <select v-model="style" :aria-label="$t('card-card-out-file-format')">
        <option v-for="s in STYLES" :key="s.id" :value="s.id">{{ s.name }}</option>
      </select></label
    >
    <v-btn class="quiet-button" :disabled="filing.busy.value" @click="save">{{ $t('card-card-out-download') }}</v-btn>
    <template v-if="session.may('formulas.share')">
      <template v-if="address">
        <span class="note"
          >{{ $t('card-card-out-anyone-with-this-link-can-view') }} <code>{{ address }}</code></span
        >
        <v-btn class="quiet-button tiny-button" @click="copy">{{ $t('card-card-out-copy') }}</v-btn>
        <v-btn class="quiet-button tiny-button" @click="sharing.run(false)">{{ $t('card-card-out-stop-sharing') }}</v-btn>
      </template>
      <v-btn v-else class="quiet-button" :disabled="sharing.busy.value" @click="sharing.run(true)">{{
        $t('card-card-out-create-a-share-link')
      }}</v-btn>
    </template>
  </div>
</template>

<style scoped>
.out {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  margin-bottom: 12px;
}

code {
  font-size: 12px;
  overflow-wrap: anywhere;
}
</style>
