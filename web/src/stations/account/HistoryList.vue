<script setup lang="ts">
/** What happened, newest first: who, what, from where; what was refused stands out. Older pages come when asked for. */
import { ref, watch } from 'vue'
import { sentenceOf } from '@/api/policy'
import type { History, HistoryRow } from '@/api/types'

const props = defineProps<{ ask: (before: number) => Promise<History>; who?: boolean }>()
const rows = ref<HistoryRow[]>([])
const before = ref(0)
const trouble = ref('')
const busy = ref(false)
const when = (row: HistoryRow): string => new Date(row.at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })

async function more(): Promise<void> {
  busy.value = true
  try {
    const page = await props.ask(before.value)
    rows.value = [...rows.value, ...page.rows]
    before.value = page.before
    trouble.value = ''
  } catch (error) {
    trouble.value = sentenceOf(error)
  }
  busy.value = false
}
watch(
  () => props.ask,
  () => {
    rows.value = []
    before.value = 0
    void more()
  },
  { immediate: true },
)
</script>

<template>
  <table class="history">
    <tbody>
      <tr v-for="row in rows" :key="row.id" :class="{ refused: row.refused }">
        <td class="when">{{ when(row) }}</td>
        <td v-if="who">{{ row.who }}</td>
        <td>{{ row.text }}</td>
        <td class="note">{{ row.place }}</td>
      </tr>
    </tbody>
  </table>
  <p v-if="trouble" class="act" role="alert">{{ trouble }}</p>
  <p v-else-if="!rows.length && !busy" class="note">{{ $t('account-history-list-no-activity-yet') }}</p>
  <v-btn v-if="before" class="quiet-button" :disabled="busy" @click="more">{{ $t('account-history-list-show-older') }}</v-btn>
</template>

<style scoped>
.history {
  width: 100%;
  border-collapse: collapse;
  font-size: 14px;
}

td {
  padding: 4px 14px 4px 0;
  border-top: 1px solid var(--rule);
  vertical-align: baseline;
  overflow-wrap: anywhere;
}

.when {
  width: 172px;
  color: var(--ink-2);
  white-space: nowrap;
}

.refused {
  color: var(--act);
}

@media (max-width: 700px) {
  tr {
    display: block;
    border-top: 1px solid var(--rule);
    padding: 4px 0;
  }

  td {
    display: inline-block;
    padding: 1px 12px 1px 0;
    border: 0;
    overflow-wrap: break-word;
  }
}
</style>
