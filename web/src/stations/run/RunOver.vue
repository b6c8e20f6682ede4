<script setup lang="ts">
/** The last step is over: what was left out, and on to how it was. */
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { api, settled } from '@/api/client'
import type { RunStep } from '@/api/types'
import { useDo } from '@/composables/useDo'
import { useRun } from '@/stores/run'

const props = defineProps<{ runId: number }>()
const emit = defineEmits<{ again: [step: RunStep] }>()
const run = useRun()
const router = useRouter()

const undone = computed(() =>
  run.steps.filter((s) => {
    const entry = run.done.get(s.id)
    return !entry || entry.word === 'skipped'
  }),
)
const finishing = useDo(() => settled(api.POST('/api/kitchens/{kitchen_id}/runs/{run_id}/finish', { params: { path: run.place() } })), {
  then: () => {
    void router.push(`/trials/${props.runId}`)
  },
})

async function finish(): Promise<void> {
  await run.send()
  await finishing.run(undefined)
}
</script>

<template>
  <section :aria-label="$t('run-run-over-now')">
    <h3>{{ $t('run-run-over-all-steps-done') }}</h3>
    <template v-if="undone.length">
      <p class="target">{{ $t('run-run-over-skipped') }}</p>
      <ul>
        <li v-for="s in undone" :key="s.id">
          <v-btn class="touch" @click="emit('again', s)">{{ s.text }}</v-btn>
        </li>
      </ul>
    </template>
    <v-btn class="act-button huge" :disabled="finishing.busy.value || run.offline" @click="finish">{{
      $t('run-run-over-finish-and-rate')
    }}</v-btn>
    <p v-if="run.offline" class="note">{{ $t('run-run-over-you-are-offline-nothing-is-lost') }}</p>
  </section>
</template>

<style scoped src="./bench.css"></style>

<style scoped>
li + li {
  margin-top: 4px;
}

ul {
  padding: 0;
  list-style: none;
}
</style>
