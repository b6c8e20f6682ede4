<script setup lang="ts">
/**
 * When is it done? The eye falls on the minutes to go and on the window, as forecast and as it stands now; a weight, a probe or a
 * look at its colour moves it at once.
 */
import { useMediaQuery } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { api, settled } from '@/api/client'
import type { LiveForecast } from '@/api/types'
import { linear } from '@/domain/chart'
import { useDevices } from '@/composables/useDevices'
import { useDo } from '@/composables/useDo'
import { useLatest } from '@/composables/useLatest'
import { celsiusOf, gramsOf, temperature, temperatureUnit, weightUnit } from '@/domain/format'
import { momentAt, readings } from '@/domain/runs'
import { useRun } from '@/stores/run'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

const props = defineProps<{ now: number }>()
const run = useRun()
const session = useSession()
const into = computed(() => momentAt(run.entries, 'in'))
const minute = computed(() => (into.value === null ? 0 : Math.max((props.now - into.value) / 60_000, 0)))
const before = computed(() => run.entries.filter((e) => e.kind === 'measured' && e.what === 'weight_in_g').at(-1)?.value ?? null)
const seen = computed(() => readings(run.entries, before.value))
const live = useLatest((asked: { minute: number; seen: typeof seen.value }) =>
  settled(
    api.POST('/api/kitchens/{kitchen_id}/runs/{run_id}/live', {
      params: { path: run.place() },
      body: { minute: asked.minute, readings: asked.seen },
    }),
  ),
)
const minuteMark = computed(() => Math.floor(minute.value))
watch(
  [seen, minuteMark, into],
  () => {
    if (into.value !== null && !run.offline) live.ask({ minute: Math.min(minute.value, 600), seen: seen.value })
  },
  { immediate: true },
)
const phone = useMediaQuery('(max-width: 700px)')
const told = computed<LiveForecast | null>(() => live.answer.value)
const end = computed(() => Math.max(told.value?.before_high_min ?? 0, told.value?.high_min ?? 0, minute.value) * 1.08 || 1)
const x = computed(() => linear([0, end.value], [20, 580]))
/** Words of the two bars stand beside the line of now, never under it. */
const BESIDE_NOW = 220
const wordsAt = computed(() => (x.value(minute.value) < BESIDE_NOW ? x.value(minute.value) + 10 : 20))
const typed = ref({ weight: '', core: '', oven: '' })
const chips = [-2, -1, 0, 1, 2] as const
const chipWords = [t('run-live-bake-far-too-pale'), 'pale', t('run-live-bake-as-set'), 'dark', t('run-live-bake-far-too-dark')]

async function note(kind: 'weight' | 'core' | 'oven'): Promise<void> {
  const number = Number(typed.value[kind].replace(',', '.'))
  if (!typed.value[kind].trim() || !Number.isFinite(number)) return
  const value = kind === 'weight' ? gramsOf(number, session.units) : celsiusOf(number, session.units)
  typed.value[kind] = ''
  await run.write({ kind: 'reading', what: kind, value, source: 'typed' })
}
/** A probe that stands in the oven writes by itself, now and then; the simulated one follows this run's bake. */
const PROBE_MS = 30_000
const devices = useDevices(() => into.value !== null && run.mayWrite)
const probe = computed(() => devices.shown.value)
const simulated = computed(() => run.entries.some((e) => e.kind === 'reading' && e.source === 'simulated'))
let wrote = 0
watch(probe, (now) => {
  if (!now || Date.now() - wrote < PROBE_MS || minute.value < 1) return
  const told = (['core', 'oven'] as const).filter((c) => now[c].alive && now[c].celsius != null)
  if (!told.length) return
  wrote = Date.now()
  const source = now.simulated ? 'simulated' : 'thermometer'
  void run.write(...told.map((c) => ({ kind: 'reading', what: c, value: now[c].celsius ?? null, source })))
})
const following = useDo(() => settled(api.POST('/api/kitchens/{kitchen_id}/runs/{run_id}/probe', { params: { path: run.place() } })))
watch(
  () => probe.value?.simulated === true && into.value !== null,
  (on) => {
    if (on && minute.value < 1.5) void following.run(undefined)
  },
)
const ticks = computed(() => {
  const step = end.value > 60 ? 15 : end.value > 25 ? 5 : end.value > 8 ? 2 : 1
  return Array.from({ length: Math.floor(end.value / step) + 1 }, (_, n) => n * step)
})
</script>

<template>
  <div v-if="into !== null" class="live">
    <p class="sentence" role="status">{{ told ? told.text : $t('run-live-bake-in-the-oven-for-min', { minute: minute.toFixed(0) }) }}</p>
    <p v-if="probe?.core.alive || probe?.oven.alive" class="probes">
      <span v-if="probe.core.alive && probe.core.celsius != null"
        ><b>{{ temperature(probe.core.celsius, session.units) }}</b> {{ $t('run-live-bake-core') }}</span
      >
      <span v-if="probe.oven.alive && probe.oven.celsius != null"
        ><b>{{ temperature(probe.oven.celsius, session.units) }}</b> {{ $t('run-live-bake-oven') }}</span
      >
      <span v-if="probe.simulated" class="note">{{ $t('run-live-bake-simulated-nobody-measured-this-and-nothing') }}</span>
    </p>
    <svg v-if="told && told.ready_min !== null" :viewBox="phone ? '0 -10 600 138' : '0 0 600 104'" role="img" :aria-label="told.text">
      <rect
        :x="x(told.before_low_min ?? 0)"
        y="16"
        :width="x(told.before_high_min ?? 0) - x(told.before_low_min ?? 0)"
        height="18"
        rx="5"
        class="was"
      />
      <line :x1="x(told.before_min ?? 0)" :x2="x(told.before_min ?? 0)" y1="13" y2="37" class="mid" />
      <text :x="wordsAt" y="12">{{ $t('run-live-bake-as-forecast') }}</text>
      <rect :x="x(told.low_min ?? 0)" y="54" :width="x(told.high_min ?? 0) - x(told.low_min ?? 0)" height="22" rx="5" class="is" />
      <line :x1="x(told.ready_min)" :x2="x(told.ready_min)" y1="50" y2="80" class="mid" />
      <text :x="wordsAt" y="50">{{ $t('run-live-bake-updated-with-your-readings') }}</text>
      <g v-for="tick in ticks" :key="tick">
        <line :x1="x(tick)" :x2="x(tick)" y1="84" y2="88" class="tick" />
        <text :x="x(tick)" :y="phone ? 112 : 101" text-anchor="middle">{{ tick }}</text>
      </g>
      <text x="590" :y="phone ? 112 : 101" text-anchor="end">{{ $t('run-live-bake-min') }}</text>
      <line :x1="x(minute)" :x2="x(minute)" y1="6" y2="88" class="now" />
    </svg>
    <p v-if="simulated" class="note">{{ $t('run-live-bake-the-times-above-use-simulated-readings') }}</p>
    <p v-if="told?.odd.length" class="note">{{ $t('run-live-bake-one-reading-does-not-match-the') }}</p>
    <div class="seen">
      <form @submit.prevent="note('weight')">
        <label
          >{{ $t('run-live-bake-weight') }}
          <v-text-field
            v-model="typed.weight"
            class="field"
            inputmode="decimal"
            :aria-label="$t('run-live-bake-weight-now', { unit: weightUnit(session.units) })"
            :disabled="!before"
          />
          {{ weightUnit(session.units) }}</label
        >
      </form>
      <form @submit.prevent="note('core')">
        <label
          >{{ $t('run-live-bake-core') }}
          <v-text-field
            v-model="typed.core"
            class="field"
            inputmode="decimal"
            :aria-label="$t('run-live-bake-core-temperature-now', { unit: temperatureUnit(session.units) })"
          />
          {{ temperatureUnit(session.units) }}</label
        >
      </form>
      <form @submit.prevent="note('oven')">
        <label
          >{{ $t('run-live-bake-oven-thermometer') }}
          <v-text-field
            v-model="typed.oven"
            class="field"
            inputmode="decimal"
            :aria-label="$t('run-live-bake-oven-temperature-now', { unit: temperatureUnit(session.units) })"
          />
          {{ temperatureUnit(session.units) }}</label
        >
      </form>
      <div class="chips" role="group" :aria-label="$t('run-live-bake-color-now')">
        <v-btn
          v-for="(chip, n) in chips"
          :key="chip"
          class="chip"
          :aria-label="chipWords[n]"
          :title="chipWords[n]"
          @click="run.write({ kind: 'reading', what: 'colour', value: chip, source: 'typed' })"
          ><span :class="`crust c${n}`"
        /></v-btn>
      </div>
    </div>
    <p v-if="!before" class="note">{{ $t('run-live-bake-weigh-the-batch-before-baking-and') }}</p>
    <p v-if="live.refusal.value" class="note" role="alert">{{ live.refusal.value.sentence }}</p>
  </div>
</template>

<style scoped>
.sentence {
  margin: 0 0 6px;
  font: 700 26px/1.25 var(--head);
}

svg {
  width: 100%;
  max-width: 720px;
}

text {
  fill: var(--ink-2);
  font: 11px var(--text);
}

@media (max-width: 700px) {
  text {
    font-size: 21px;
  }

  .sentence {
    font-size: 22px;
  }
}

.probes {
  display: flex;
  gap: 24px;
  margin: 0 0 6px;
  font-size: 20px;
}

.probes b {
  font: 800 44px/1 var(--head);
}

.was {
  fill: var(--smear);
  opacity: 0.6;
}

.is {
  fill: var(--in);
  opacity: 0.75;
}

.mid {
  stroke: var(--ink);
  stroke-width: 2;
}

.tick {
  stroke: var(--rule-strong);
}

.now {
  stroke: var(--act);
  stroke-width: 2.5;
}

.seen {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 18px;
  font-size: 16px;
}

.seen .field {
  width: 84px;
  --field-height: 44px;
  text-align: right;
}

.chips {
  display: flex;
  gap: 4px;
}

.chip {
  width: 48px;
  min-height: 48px;
  padding: 4px;
  border: 1px solid var(--rule-strong);
  border-radius: 10px;
}

.crust {
  display: block;
  width: 100%;
  height: 38px;
  border-radius: 7px;
}

.c0 {
  background: #efe2c4;
}

.c1 {
  background: #e3c68c;
}

.c2 {
  background: #c8913f;
}

.c3 {
  background: #8a5424;
}

.c4 {
  background: #3d2413;
}
</style>
