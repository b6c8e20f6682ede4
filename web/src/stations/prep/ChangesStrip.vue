<script setup lang="ts">
/** What the scale's weight changed, with the way back. */
import type { FigureChange } from '@/api/types'

defineProps<{ changes: readonly FigureChange[]; mayUndo: boolean }>()
const emit = defineEmits<{ undo: []; close: [] }>()
const spoilt = (c: FigureChange): boolean => ['low', 'high', 'out'].includes(c.state_after)
</script>

<template>
  <section v-if="changes.length" class="changes" aria-live="polite" :aria-label="$t('prep-changes-strip-what-the-weight-changed')">
    <b>{{ $t('prep-changes-strip-with-the-real-weight') }}</b>
    <ul>
      <li v-for="c in changes" :key="c.key" :class="{ act: spoilt(c) && c.state_before !== c.state_after }">{{ c.text }}</li>
    </ul>
    <div class="do">
      <v-btn v-if="mayUndo" class="quiet-button" @click="emit('undo')">{{ $t('prep-changes-strip-undo') }}</v-btn><v-btn
        class="quiet-button"
        @click="emit('close')"
        >{{ $t('prep-changes-strip-ok') }}</v-btn
      >
    </div>
  </section>
</template>

<style scoped>
.changes {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 14px;
  padding: 8px 12px;
  border: 1px solid var(--rule-strong);
  border-left: 4px solid var(--water);
  border-radius: 8px;
  background: var(--panel);
}

ul {
  display: flex;
  flex: 1;
  flex-wrap: wrap;
  gap: 2px 14px;
  min-width: 260px;
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 13px;
}

.do {
  display: flex;
  gap: 6px;
}
</style>
