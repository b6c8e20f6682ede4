<script setup lang="ts">
/**
 * Is there enough in the bowl? The eye falls on what the scale shows beside what is wanted; the bar fills the stratum. The next key
 * is the weight, or one touch that takes the weight of the formula. What is off is answered by the rest of the formula.
 */
import { useLocalStorage } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { api, settled } from '@/api/client'
import type { PourAdvice, RunStep } from '@/api/types'
import { useDevices } from '@/composables/useDevices'
import { useDo } from '@/composables/useDo'
import { useOwnScale } from '@/composables/useOwnScale'
import { gramsOf, weight, weightUnit } from '@/domain/format'
import { useRun } from '@/stores/run'
import { useSession } from '@/stores/session'
import NumberPad from './NumberPad.vue'

const props = defineProps<{ step: RunStep; mixed: boolean }>()
const run = useRun()
const session = useSession()
const typed = ref('')
const tared = ref('')
const advice = ref<PourAdvice | null>(null)
watch(
  () => props.step.id,
  () => {
    typed.value = ''
    advice.value = null
  },
)
const target = computed(() => run.targets.get(props.step.line) ?? props.step.grams ?? 0)
const shift = computed(() => target.value - (props.step.grams ?? 0))
const low = computed(() => (props.step.low_g ?? 0) + shift.value)
const high = computed(() => (props.step.high_g ?? 0) + shift.value)
const known = computed(() => run.weights.get(props.step.line) ?? null)
/** The scale stands on the bench: its number is what is shown, until another one is typed. */
const scaled = useLocalStorage('scale-used', true)
const devices = useDevices(() => scaled.value && run.mayWrite)
/** The one plugged into this computer goes before the bench's. */
const own = useOwnScale()
const scale = computed(() =>
  own.reading.value ? { present: true, alive: true, ...own.reading.value } : (devices.shown.value?.scale ?? null),
)
const onPan = computed(() => (scaled.value && scale.value?.alive && !scale.value.overload ? (scale.value.grams ?? null) : null))
const tare = (): void => {
  if (own.reading.value) own.tare()
  else void devices.tell('tare')
}
/** All into one bowl, each line on top of the last; or separate bowls: each is put on the scale empty, and tared when it stands. */
const bowls = useLocalStorage<'one' | 'each'>('bowls', 'one')
const bowlFor = ref('')
const wantsBowl = computed(() => bowls.value === 'each' && scaled.value && !!scale.value?.alive && bowlFor.value !== props.step.id)
const live = computed(() => (wantsBowl.value ? null : onPan.value))
const shown = computed(() => {
  const number = Number(typed.value.replace(',', '.'))
  if (typed.value.trim()) return Number.isFinite(number) ? gramsOf(number, session.units) : null
  return live.value !== null && Math.abs(live.value) >= session.limits.scale_empty_g ? Math.max(live.value, 0) : null
})
/** Each step begins at nothing: the bowl and what is in it are tared away. */
watch(
  () => [props.step.id, scale.value?.alive] as const,
  ([id, alive]) => {
    if (alive && tared.value !== id) {
      tared.value = id
      tare()
    }
  },
  { immediate: true },
)
/** An empty bowl that stands still is tared away, and pouring begins. */
const standing = computed(() => wantsBowl.value && !!scale.value?.stable && (onPan.value ?? 0) >= session.limits.bowl_from_g)
let stands: ReturnType<typeof setTimeout> | undefined
watch(standing, (now) => {
  clearTimeout(stands)
  if (now)
    stands = setTimeout(() => {
      bowlFor.value = props.step.id
      tare()
    }, 1000 * session.limits.scale_steady_s)
})
/** A pack opened since the last run, or another thing taken: what a diagnosis wants to know. */
const fresh = computed(() => run.entries.some((e) => e.kind === 'new_pack' && e.what === props.step.line))
const instead = ref('')
async function swap(): Promise<void> {
  if (!instead.value.trim()) return
  await run.write({ kind: 'swapped', what: props.step.line, word: instead.value.trim() })
  instead.value = ''
}
/** Stable within what is allowed for a moment: it is weighed, and the next step comes by itself. */
const right = computed(
  () =>
    !typed.value && live.value !== null && !!scale.value?.stable && live.value >= low.value && live.value <= high.value && target.value > 0,
)
let waits: ReturnType<typeof setTimeout> | undefined
watch(right, (now) => {
  clearTimeout(waits)
  if (now && run.mayWrite && known.value === null)
    waits = setTimeout(() => {
      if (right.value && live.value !== null) void log(Math.round(live.value * 10) / 10)
    }, 1000 * session.limits.scale_steady_s)
})
onBeforeUnmount(() => {
  clearTimeout(waits)
  clearTimeout(stands)
})
const bar = computed(() => shown.value ?? known.value ?? 0)
const top = computed(() => Math.max(high.value * 1.25, bar.value * 1.05, 1))
const of = (grams: number): number => 100 - (100 * Math.min(Math.max(grams, 0), top.value)) / top.value
const off = computed(() => (shown.value === null ? 0 : shown.value - target.value))
const within = computed(() => bar.value >= low.value && bar.value <= high.value)
const unit = computed(() => weightUnit(session.units))

/** Filled by the cup before it was weighed: what such a cup holds in this hand. */
const filledBy = ref('')
watch(
  () => props.step.id,
  () => (filledBy.value = ''),
)

const pouring = useDo(
  (grams: number) =>
    settled(
      api.POST('/api/kitchens/{kitchen_id}/runs/{run_id}/pour', {
        params: { path: run.place() },
        body: { line: props.step.line, grams, mixed: props.mixed },
      }),
    ),
  { here: true },
)

/** Where the number came from: a simulated weight is marked, and never teaches. */
const sourceOf = (): string =>
  typed.value || live.value === null ? 'typed' : devices.shown.value?.simulated && !own.name.value ? 'simulated' : 'scale'

/** A weight that was taken as written was not weighed: it tells nothing of a cup. */
async function log(grams: number, weighed = true): Promise<void> {
  if (props.step.line)
    await run.finishStep(props.step, [
      { kind: 'weighed', what: props.step.line, value: grams, word: weighed ? filledBy.value.trim() : '', source: sourceOf() },
    ])
  else await run.finishStep(props.step)
}

async function take(): Promise<void> {
  if (shown.value === null) return log(target.value, false)
  const grams = shown.value
  if (!props.step.line || (grams >= low.value && grams <= high.value) || advice.value) return log(grams)
  // Without a network there is no answer to it: the weight is kept all the same.
  advice.value = run.offline ? null : await pouring.run(grams)
  if (!advice.value) return log(grams)
}

async function follow(way: PourAdvice['ways'][number]): Promise<void> {
  const grams = shown.value
  if (way.kind === 'out' || way.kind === 'more') {
    typed.value = ''
    advice.value = null
    return
  }
  const told = Object.entries(way.grams).map(([line, value]) => ({ kind: 'note', what: `target:${line}`, value, word: way.text }))
  if (told.length) await run.write(...told)
  if (grams !== null) await log(grams)
}

defineExpose({ take })
</script>

<template>
  <div class="weigh">
    <div class="bowl">
      <svg
        viewBox="0 0 60 100"
        preserveAspectRatio="none"
        role="img"
        :aria-label="$t('run-weigh-step-of', { bar: weight(bar, session.units), target: weight(target, session.units), unit })"
      >
        <rect x="0" y="0" width="60" height="100" class="well" />
        <rect x="0" :y="of(bar)" width="60" :height="100 - of(bar)" :style="{ fill: `url(#hatch-${step.role || 'base'})` }" />
        <rect x="0" :y="of(high)" width="60" :height="Math.max(of(low) - of(high), 1)" class="window" :class="{ in: within }" />
        <line x1="0" x2="60" :y1="of(target)" :y2="of(target)" class="aim" />
      </svg>
      <div class="figures">
        <p class="big">
          {{ weight(target, session.units) }}{{ ' ' }}<small>{{ unit }}</small>
        </p>
        <p v-if="live !== null" class="live" :class="{ in: within && bar > 0 }" role="status" aria-live="off">
          {{ weight(Math.max(live, 0), session.units) }}
          <small>{{
            $t('run-weigh-step-on-the', {
              unit,
              simulated: devices.shown.value?.simulated ? $t('run-weigh-step-simulated-scale') : $t('run-weigh-step-scale'),
              stable: scale?.stable ? '' : ' …',
            })
          }}</small>
        </p>
        <p v-else-if="wantsBowl" class="allowed" role="status">
          {{ $t('run-weigh-step-put-an-empty-bowl-on-the') }}
          <v-btn class="way" @click="bowlFor = step.id">{{ $t('run-weigh-step-skip-the-bowl') }}</v-btn>
        </p>
        <p v-else-if="scaled && scale?.present && scale.overload" class="act">
          {{ $t('run-weigh-step-scale-overloaded-remove-some-weight') }}
        </p>
        <p v-else-if="scaled && scale?.present && !scale.alive" class="act" role="status">
          {{ $t('run-weigh-step-the-scale-is-silent-type-the') }}
        </p>
        <p v-if="devices.shown.value?.simulated && scale?.alive && run.mayWrite" class="pour">
          <v-btn class="way" @click="devices.tell('pour', Math.max(target - Math.max(live ?? 0, 0), 0))">{{
            $t('run-weigh-step-pour-simulated-scale')
          }}</v-btn>
        </p>
        <p v-if="scale?.present" class="note">
          <v-btn class="link" @click="scaled = !scaled">{{
            scaled ? $t('run-weigh-step-type-weights') : $t('run-weigh-step-use-the-scale')
          }}</v-btn>
          <template v-if="scaled">
            · <v-btn class="link" @click="tare">{{ $t('run-weigh-step-tare') }}</v-btn> ·
            <v-btn class="link" @click="bowls = bowls === 'one' ? 'each' : 'one'">{{
              bowls === 'one' ? $t('run-weigh-step-one-bowl-for-all') : $t('run-weigh-step-separate-bowls')
            }}</v-btn>
          </template>
        </p>
        <p v-if="own.name.value" class="note">
          {{ own.name.value }} · <v-btn class="link" @click="own.leave()">{{ $t('run-weigh-step-disconnect') }}</v-btn>
        </p>
        <p v-else-if="scaled && own.ways.length && run.mayWrite" class="note">
          <v-btn v-for="way in own.ways" :key="way" class="link" @click="own.choose(way)">{{
            way === 'serial' ? $t('run-weigh-step-connect-a-usb-scale') : $t('run-weigh-step-connect-a-bluetooth-scale')
          }}</v-btn>
        </p>
        <p v-if="own.trouble.value" class="act" role="status">{{ own.trouble.value }}</p>
        <p class="allowed">
          {{
            $t('run-weigh-step-ok-to-no-noticeable-difference', {
              low: weight(low, session.units),
              high: weight(high, session.units),
              unit,
            })
          }}
        </p>
        <p v-if="step.measure" class="allowed">
          {{ step.measure }}
          <v-btn v-if="step.filled && run.mayWrite && !filledBy" class="link note" @click="filledBy = step.filled">{{
            $t('run-weigh-step-i-used-this-measure')
          }}</v-btn>
        </p>
        <div v-if="filledBy" class="note by">
          {{ $t('run-weigh-step-filled-by') }}
          <v-text-field
            v-model="filledBy"
            class="field"
            :aria-label="$t('run-weigh-step-filled-by-2')"
            maxlength="60"
            @keydown.enter.stop="take"
          />
          {{ $t('run-weigh-step-then-weighed-so-the-app-learns') }}
        </div>
        <p v-if="shift" class="note">
          {{ $t('run-weigh-step-adjusted-from-in-the-formula', { grams: weight(step.grams ?? 0, session.units), unit }) }}
        </p>
        <p v-if="known !== null" class="allowed">{{ $t('run-weigh-step-weighed', { known: weight(known, session.units), unit }) }}</p>
        <p v-if="shown !== null" class="off" :class="{ act: !within }">
          {{
            Math.abs(off) < 0.05
              ? $t('run-weigh-step-exact')
              : `${weight(Math.abs(off), session.units)} ${unit} ${off > 0 ? $t('run-weigh-step-over') : $t('run-weigh-step-short')}`
          }}
        </p>
      </div>
    </div>
    <NumberPad v-model="typed" :unit="unit" :label="$t('run-weigh-step-weight-of', { step: step.text, unit })" />
    <p v-if="step.line && run.mayWrite" class="odd">
      <v-btn class="way" :disabled="fresh" @click="run.write({ kind: 'new_pack', what: step.line })">{{
        fresh ? $t('run-weigh-step-a-new-pack-kept') : $t('run-weigh-step-opened-a-new-pack')
      }}</v-btn>
      <v-text-field
        v-model="instead"
        class="field"
        :placeholder="$t('run-weigh-step-substitute-used-such-as-small-eggs')"
        :aria-label="$t('run-weigh-step-substitute-for', { step: step.text })"
        maxlength="200"
        @keydown.enter.stop="swap"
      />
      <v-btn v-if="instead.trim()" class="way" @click="swap">{{ $t('run-weigh-step-keep') }}</v-btn>
    </p>
    <section v-if="advice && !advice.within" class="answer" role="alert">
      <p>{{ advice.text }}</p>
      <v-btn v-for="way in advice.ways" :key="way.kind" class="way" @click="follow(way)">{{ way.text }}</v-btn>
      <v-btn v-if="shown !== null" class="way" @click="log(shown)">{{ $t('run-weigh-step-keep-this-weight') }}</v-btn>
    </section>
    <p v-if="pouring.trouble.value" class="act" role="alert">{{ pouring.trouble.value }}</p>
  </div>
</template>

<style scoped>
.weigh {
  display: flex;
  flex-wrap: wrap;
  gap: 18px 34px;
}

.bowl {
  display: flex;
  gap: 18px;
}

.bowl svg {
  width: 92px;
  height: 250px;
  border: 2px solid var(--rule-strong);
  border-radius: 10px;
}

.well {
  fill: var(--panel);
}

.window {
  fill: var(--act);
  opacity: 0.28;
}

.window.in {
  fill: var(--in);
  opacity: 0.55;
}

.aim {
  stroke: var(--ink);
  stroke-width: 1;
}

.figures p {
  margin: 0 0 6px;
}

.big {
  font: 800 74px/1 var(--head);
}

.big small {
  font-size: 30px;
}

.allowed,
.off {
  font-size: 19px;
}

.off {
  font-weight: 700;
}

.live {
  font: 800 52px/1 var(--head);
  color: var(--act);
}

.live.in {
  color: var(--in);
}

.live small {
  font-size: 17px;
}

.link {
  border-bottom: 1px solid var(--rule-strong);
}

.odd {
  display: flex;
  flex-basis: 100%;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  margin: 0;
}

.odd .field {
  width: 300px;
  max-width: 100%;
  --field-height: 44px;
}

.by {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}

.by .field {
  flex: none;
  width: 96px;
}

.answer {
  flex-basis: 100%;
  padding: 10px 14px;
  border: 1px solid var(--act);
  border-radius: 12px;
  background: var(--act-soft);
  font-size: 18px;
}

.answer p {
  margin: 0 0 8px;
}

.way {
  display: inline-block;
  min-height: 48px;
  margin: 0 8px 8px 0;
  padding: 8px 16px;
  border: 1px solid var(--rule-strong);
  border-radius: 10px;
  background: var(--panel);
}

@media (max-width: 700px) {
  .weigh {
    gap: 10px;
  }

  .bowl svg {
    width: 60px;
    height: 138px;
  }

  .big {
    font-size: 54px;
  }

  .allowed,
  .off {
    font-size: 16px;
  }
}
</style>
