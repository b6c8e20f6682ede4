<script setup lang="ts">
/** All steps of a run, those that are over with a tick: press one to go there, or to do it again. */
import type { RunStep } from '@/api/types'
import { useRun } from '@/stores/run'

const emit = defineEmits<{ go: [step: RunStep]; again: [step: RunStep] }>()
const run = useRun()
const wordOf = (step: RunStep): string | undefined => run.done.get(step.id)?.word

function press(step: RunStep): void {
  if (run.done.has(step.id)) emit('again', step)
  else emit('go', step)
}
</script>

<template>
  <ol class="list">
    <li v-for="s in run.steps" :key="s.id" :class="{ here: s.id === run.step?.id }">
      <v-btn class="touch" @click="press(s)">
        <span class="tick" aria-hidden="true">{{ run.done.has(s.id) ? (wordOf(s) === 'skipped' ? '–' : '✓') : '·' }}</span>
        {{ s.text }} <span class="note">{{ s.target }}</span>
        <span v-if="run.done.has(s.id)" class="visually-hidden">{{
          $t('run-step-list-redo-step', { word_of: wordOf(s) === 'skipped' ? $t('run-step-list-skipped') : $t('run-step-list-done') })
        }}</span>
      </v-btn>
    </li>
  </ol>
</template>

<style scoped src="./bench.css"></style>

<style scoped>
.list {
  flex: 1;
  min-height: 0;
  margin: 0;
  padding: 12px 22px 10px;
  overflow-y: auto;
  list-style: none;
}

.list .touch {
  width: 100%;
  margin-bottom: 4px;
  text-align: left;
}

.list .here .touch {
  border: 3px solid var(--act);
}

.tick {
  display: inline-block;
  width: 24px;
  font-weight: 800;
}

@media (max-width: 700px) {
  .list {
    padding: 8px 14px;
  }
}
</style>
