<script setup lang="ts">
/**
 * What do I do now, and is it right? One thing stands on the screen, large enough to be read from a step away; the eye falls on its
 * number. Space says it is done and shows the next; `t` starts or stops the timer.
 */
import { useEventListener, useLocalStorage, useNow, useWakeLock } from '@vueuse/core'
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue'
import type { RunStep } from '@/api/types'
import { wakeAlarm } from '@/composables/useAlarm'
import { useBenchWorker } from '@/composables/useBenchWorker'
import { useTimers } from '@/composables/useTimers'
import { celsiusOf, gramsOf, inWeight, millimetresOf, temperatureUnit, lengthUnit, weightUnit } from '@/domain/format'
import { momentAt } from '@/domain/runs'
import { clock } from '@/domain/timers'
import { useRun } from '@/stores/run'
import { useSession } from '@/stores/session'
import FeelStep from './FeelStep.vue'
import LiveBake from './LiveBake.vue'
import NumberPad from './NumberPad.vue'
import RunHead from './RunHead.vue'
import RunOver from './RunOver.vue'
import StepList from './StepList.vue'
import TimerStrip from './TimerStrip.vue'
import WeighStep from './WeighStep.vue'

const props = defineProps<{ runId: number }>()
const run = useRun()
const session = useSession()
useBenchWorker()
const timers = useTimers()
const now = useNow({ interval: 1000 })
const left = useLocalStorage('left-handed', false)
const typed = ref('')
const listed = ref(false)
const noting = ref('')
const weighing = useTemplateRef<InstanceType<typeof WeighStep>>('weighing')
const awake = useWakeLock()

const step = computed(() => run.step)
const next = computed(() => run.steps.slice(run.at + 1).find((s) => !run.done.has(s.id)) ?? null)
const mixed = computed(() => momentAt(run.entries, 'mixed') !== null)
const timer = computed(() => (step.value ? timers.of(step.value) : null))
const baking = computed(() => momentAt(run.entries, 'in') !== null && momentAt(run.entries, 'out') === null)
const sinceMixed = computed(() => {
  const at = momentAt(run.entries, 'mixed')
  return at !== null && momentAt(run.entries, 'shaped') === null ? clock(now.value.getTime() - at) : ''
})

const MEASURES: Record<string, { unit: () => string; of: (typed: number) => number }> = {
  grams: { unit: () => weightUnit(session.units), of: (n) => gramsOf(n, session.units) },
  degrees: { unit: () => temperatureUnit(session.units), of: (n) => celsiusOf(n, session.units) },
  length: { unit: () => lengthUnit(session.units), of: (n) => millimetresOf(n, session.units) },
}
function measureOf(field: string) {
  return MEASURES[field.endsWith('_g') ? 'grams' : field.endsWith('_mm') ? 'length' : 'degrees']
}
const measure = computed(() => (step.value?.measures ? measureOf(step.value.measures) : undefined))

/** The step is over: with its number, where one was typed. */
async function done(): Promise<void> {
  const here = step.value
  if (!here || !run.mayWrite) return
  wakeAlarm()
  if (here.kind === 'weigh' && weighing.value) return weighing.value.take()
  const number = Number(typed.value.replace(',', '.'))
  const told = []
  if (here.measures && typed.value.trim() && Number.isFinite(number) && measure.value) {
    const value = measure.value.of(number)
    told.push({ kind: 'measured', what: here.measures, value })
    if (here.line) told.push({ kind: 'weighed', what: here.line, value })
    if (here.measures === 'probe_c') {
      const dial = run.opened?.document.bake?.oven_c
      if (dial) told.push({ kind: 'measured', what: 'oven_c', value: dial })
    }
  }
  typed.value = ''
  if (here.kind === 'wait' && here.moment === 'in' && !timer.value) await timers.begin(here)
  else if (timer.value && !timer.value.stopped && here.kind === 'wait' && here.moment !== 'in') await timers.stop(here.id)
  if (here.moment === 'out') for (const one of timers.running.value) if (one.id.startsWith('stage:')) await timers.stop(one.id)
  await run.finishStep(here, told)
  // A clock that runs from this moment on, whether anybody looks at it or not: a cheese dough cools.
  if (here.moment) for (const one of run.steps) if (one.starts === here.moment && !timers.of(one)) await timers.begin(one)
}

function toggle(): void {
  wakeAlarm()
  const here = step.value
  if (here?.minutes && (!timer.value || timer.value.stopped)) void timers.begin(here)
  else if (timer.value && !timer.value.stopped) void timers.stop(timer.value.id)
  else if (timers.next.value) void timers.stop(timers.next.value.id)
}

function back(): void {
  const before = run.steps
    .slice(0, run.at)
    .reverse()
    .find(() => true)
  if (before) run.go(before.id)
}

function go(to: RunStep): void {
  run.go(to.id)
  listed.value = false
}

/** What was done or left out, once more. */
async function again(over: RunStep): Promise<void> {
  const entry = run.done.get(over.id)
  if (entry) await run.undo(entry.id)
  go(over)
}

async function note(): Promise<void> {
  if (!noting.value.trim()) return
  await run.write({ kind: 'note', what: step.value?.id ?? '', word: noting.value.trim() })
  noting.value = ''
}

useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  const typing = event.target instanceof HTMLElement && event.target.matches('input, textarea, select')
  if (event.key === 'Enter' && typing && step.value?.kind !== 'feel' && (event.target as HTMLElement).closest('.pad')) void done()
  if (typing || event.ctrlKey || event.metaKey || event.altKey) return
  if (event.key === ' ') {
    event.preventDefault()
    void done()
  } else if (event.key === 't') toggle()
  else if (event.key === 'Backspace') back()
})
watch(
  () => step.value?.id,
  () => {
    typed.value = ''
  },
)
watch(
  () => props.runId,
  (id) => void run.open(id),
  { immediate: true },
)
onMounted(() => {
  if (awake.isSupported.value) void awake.request('screen').catch(() => undefined)
})
onBeforeUnmount(() => {
  run.close()
  void awake.release().catch(() => undefined)
})
</script>

<template>
  <div v-if="run.trouble && !run.opened" class="missing" role="alert">
    <p>{{ run.trouble }}</p>
    <router-link class="quiet-button" to="/run">{{ $t('run-run-view-back-to-bakes') }}</router-link>
  </div>
  <div v-else-if="run.opened" class="run" :class="{ left }" @pointerdown.once="wakeAlarm">
    <RunHead v-model:listed="listed" v-model:left="left" />
    <TimerStrip :timers="timers.running.value" :now="now.getTime()" @more="timers.more" @stop="timers.stop" />
    <StepList v-if="listed" @go="go" @again="again" />
    <section v-else-if="step" class="now" :aria-label="$t('run-run-view-now')">
      <p class="where">
        {{ step.bowl || step.group
        }}<template v-if="sinceMixed"> {{ $t('run-run-view-since-mixing', { since_mixed: sinceMixed }) }}</template>
      </p>
      <h3>{{ step.text }}</h3>
      <p v-if="step.target && step.kind !== 'weigh' && step.kind !== 'feel'" class="target">{{ step.target }}</p>
      <WeighStep v-if="step.kind === 'weigh'" ref="weighing" :step="step" :mixed="mixed" />
      <FeelStep v-else-if="step.kind === 'feel'" :step="step" />
      <template v-else>
        <p v-if="timer && !timer.stopped && !baking" class="count" role="timer">{{ clock(timer.endsAt - now.getTime()) }}</p>
        <p v-else-if="step.minutes && !baking" class="count">
          {{ step.minutes >= 1 ? $t('run-run-view-min', { step: Math.round(step.minutes) }) : `${Math.round(step.minutes * 60)} s` }}
        </p>
        <LiveBake v-if="baking" :now="now.getTime()" />
        <template v-if="measure && step.kind !== 'wait'">
          <p v-if="step.grams && step.measures.endsWith('_g') && step.low_g != null" class="target">
            {{ $t('run-run-view-to', { low_g: inWeight(step.low_g, session.units), high_g: inWeight(step.high_g ?? 0, session.units) }) }}
          </p>
          <NumberPad v-model="typed" :unit="measure.unit()" :label="`${step.text}, ${measure.unit()}`" />
        </template>
      </template>
      <p v-if="step.sign" class="sign">{{ step.sign }}</p>
      <p v-for="caution in step.cautions" :key="caution" class="caution">{{ caution }}</p>
      <form class="note-line" @submit.prevent="note">
        <v-text-field
          v-model="noting"
          class="field"
          :placeholder="$t('run-run-view-add-a-note-such-as-dark')"
          :aria-label="$t('run-run-view-a-note')"
          maxlength="500"
        />
      </form>
    </section>
    <RunOver v-else class="now" :run-id="runId" @again="again" />
    <footer v-if="step && !listed">
      <p v-if="next" class="next">
        <span class="note">{{ $t('run-run-view-next') }}</span> {{ next.text }} <span class="note">{{ next.target }}</span>
      </p>
      <div class="buttons">
        <v-btn class="touch" :disabled="run.at === 0" @click="back">{{ $t('run-run-view-back') }}</v-btn>
        <v-btn class="touch" @click="run.skipStep(step)">{{ $t('run-run-view-skip') }}</v-btn>
        <v-btn v-if="step.minutes" class="touch" @click="toggle">{{
          timer && !timer.stopped ? $t('run-run-view-stop-timer') : $t('run-run-view-start-timer')
        }}</v-btn>
        <v-btn class="act-button huge" :disabled="!run.mayWrite" @click="done">{{
          step.kind === 'weigh'
            ? $t('run-run-view-weighed')
            : step.moment === 'in' && !baking
              ? $t('run-run-view-in-the-oven')
              : step.moment === 'out'
                ? $t('run-run-view-out-of-the-oven')
                : $t('run-run-view-done')
        }}</v-btn>
      </div>
    </footer>
  </div>
</template>

<style scoped src="./bench.css"></style>

<style scoped>
.run {
  display: flex;
  flex-direction: column;
  height: 100%;
}

.missing {
  margin: 14vh auto 0;
  max-width: 520px;
}

.now {
  flex: 1;
  min-height: 0;
  margin: 0;
  padding: 12px 22px 10px;
  overflow-y: auto;
}

.where {
  margin: 0;
  color: var(--ink-2);
  font-size: 17px;
}

.count {
  margin: 0 0 8px;
  font: 800 76px/1 var(--head);
}

.sign {
  margin: 12px 0 6px;
  font-size: 20px;
}

.caution {
  margin: 0 0 6px;
  padding: 6px 12px;
  border-left: 5px solid var(--act);
  font-size: 17px;
}

.note-line {
  margin-top: 14px;
}

.note-line .field {
  width: 420px;
  max-width: 100%;
  --field-height: 44px;
}

footer {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  gap: 4px 18px;
  padding: 8px 18px 10px;
  border-top: 1px solid var(--rule-strong);
  background: var(--balance);
}

.next {
  margin: 0;
  font-size: 17px;
}

.buttons {
  display: flex;
  grid-column: 2;
  grid-row: 1;
  gap: 10px;
}

.left footer {
  grid-template-columns: auto minmax(0, 1fr);
}

.left .buttons {
  grid-column: 1;
  flex-direction: row-reverse;
}

.left .next {
  grid-column: 2;
  text-align: right;
}

@media (max-width: 700px) {
  .now {
    padding: 8px 14px;
  }

  footer,
  .left footer {
    grid-template-columns: minmax(0, 1fr);
    padding: 6px 12px;
  }

  .next,
  .left .next {
    grid-column: 1;
    grid-row: 1;
    overflow: hidden;
    font-size: 15px;
    text-align: left;
    text-overflow: ellipsis;
    white-space: nowrap;
  }

  .buttons,
  .left .buttons {
    grid-column: 1;
    grid-row: 2;
  }

  .buttons .touch {
    flex: 1;
    padding: 0 4px;
    font-size: 15px;
  }

  .huge {
    flex: 2;
    min-width: 110px;
    padding: 0 10px;
    font-size: 20px;
  }
}
</style>
