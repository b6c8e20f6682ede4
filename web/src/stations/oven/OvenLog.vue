<script setup lang="ts">
/** What this oven has taught: its logged bakes, and one more. */
import { computed, onBeforeUnmount, reactive } from 'vue'
import QuantityField from '@/components/frame/QuantityField.vue'
import { api, settled } from '@/api/client'
import type { FormulaDocument, OvenOut } from '@/api/types'
import { useDo } from '@/composables/useDo'
import {
  aboutApart,
  ago,
  celsiusOf,
  degreesApart,
  figure,
  gramsOf,
  inWeight,
  temperature,
  temperatureUnit,
  weightUnit,
  type Units,
} from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'

const props = defineProps<{ oven: OvenOut }>()
const emit = defineEmits<{ learned: [] }>()
const bench = useBench()
const session = useSession()
const open = defineModel<boolean>('open', { default: false })
const seen = reactive({ minutes: '', before_g: '', after_g: '', probe_c: '' })
const value = (text: string): number | null => {
  const number = Number(text.trim().replace(',', '.'))
  return text.trim() && Number.isFinite(number) ? number : null
}

const measured = (text: string, of: (typed: number, units: Units) => number): number | null => {
  const number = value(text)
  return number === null ? null : of(number, session.units)
}

const logging = useDo(
  (document: FormulaDocument, at) =>
    settled(
      api.POST('/api/kitchens/{kitchen_id}/ovens/{oven_id}/bakes', {
        params: { path: { ...at, oven_id: props.oven.id } },
        body: {
          document,
          minutes: value(seen.minutes),
          before_g: measured(seen.before_g, gramsOf),
          after_g: measured(seen.after_g, gramsOf),
          probe_c: measured(seen.probe_c, celsiusOf),
        },
      }),
    ),
  {
    here: true,
    then: () => {
      Object.assign(seen, { minutes: '', before_g: '', after_g: '', probe_c: '' })
      lookAgain()
    },
  },
)
/** What a bake teaches is worked out in the background: look again until it is. */
const LOOKS_MS = [1500, 4000, 9000, 20000]
const looks: ReturnType<typeof setTimeout>[] = []
function lookAgain(): void {
  emit('learned')
  for (const ms of LOOKS_MS) looks.push(setTimeout(() => emit('learned'), ms))
}
onBeforeUnmount(() => looks.forEach(clearTimeout))
const log = (): void => {
  if (bench.document) void logging.run(bench.document)
}
const standing = useDo(
  (altitude_m: number, at) =>
    settled(
      api.PATCH('/api/kitchens/{kitchen_id}/ovens/{oven_id}', {
        params: { path: { ...at, oven_id: props.oven.id } },
        body: { altitude_m },
      }),
    ),
  {
    here: true,
    then: () => {
      lookAgain()
    },
  },
)
const stand = (metres: number | null): void => {
  void standing.run(metres ?? 0)
}
const deleting = useDo(
  (logged_id: number, at) =>
    settled(
      api.DELETE('/api/kitchens/{kitchen_id}/ovens/{oven_id}/bakes/{logged_id}', {
        params: { path: { ...at, oven_id: props.oven.id, logged_id } },
      }),
    ),
  {
    here: true,
    then: () => {
      lookAgain()
    },
  },
)
const trouble = computed(() => logging.trouble.value || standing.trouble.value || deleting.trouble.value)
</script>

<template>
  <section class="log">
    <v-btn class="note toggle" :aria-expanded="open" @click="open = !open">{{
      $t('oven-oven-log-log-a-bake-saved', { bakes: oven.bakes.length })
    }}</v-btn>
    <div v-if="open">
      <p class="note">
        {{
          $t('oven-oven-log-oven-offset-assumed-0-before-your', {
            prior_half_k: degreesApart(oven.prior_half_k, session.units),
            offset_half_k: aboutApart(oven.offset_k, oven.offset_half_k, session.units),
            learned_from: oven.learned_from,
          })
        }}
      </p>
      <p class="note">
        {{ $t('oven-oven-log-altitude-of-this-oven') }}
        <QuantityField
          kind="altitude"
          :label="$t('oven-oven-log-altitude-of-this-oven-2')"
          :value="oven.altitude_m"
          :disabled="!bench.mayEdit"
          @change="stand"
        />
        {{ $t('oven-oven-log-above-the-sea-for-every-formula') }}
      </p>
      <form v-if="bench.mayEdit" @submit.prevent="log">
        <label
          >{{ $t('oven-oven-log-done-at') }}
          <v-text-field v-model="seen.minutes" class="field" inputmode="decimal" :aria-label="$t('oven-oven-log-done-at-minutes')" />
          {{ $t('oven-oven-log-min') }}</label
        >
        <label
          >{{ $t('oven-oven-log-weight') }}
          <v-text-field
            v-model="seen.before_g"
            class="field"
            inputmode="decimal"
            :aria-label="$t('oven-oven-log-weight-before', { unit: weightUnit(session.units) })"
          />
          →
          <v-text-field
            v-model="seen.after_g"
            class="field"
            inputmode="decimal"
            :aria-label="$t('oven-oven-log-weight-after', { unit: weightUnit(session.units) })"
          />
          {{ weightUnit(session.units) }}</label
        >
        <label
          >{{ $t('oven-oven-log-thermometer-in-the-empty-oven') }}
          <v-text-field
            v-model="seen.probe_c"
            class="field"
            inputmode="decimal"
            :aria-label="$t('oven-oven-log-thermometer-in-the-empty-oven-2', { unit: temperatureUnit(session.units) })"
          />
          {{ temperatureUnit(session.units) }}</label
        >
        <v-btn type="submit" class="quiet-button">{{ $t('oven-oven-log-save-this-bake') }}</v-btn>
        <p v-if="trouble" role="alert" class="act">{{ trouble }}</p>
      </form>
      <ul>
        <li v-for="b in oven.bakes" :key="b.id" class="note">
          {{ b.formula_name }}, {{ ago(b.logged_at) }}:
          {{ b.minutes == null ? '' : $t('oven-oven-log-min-2', { minutes: figure(b.minutes, 0) }) }}
          {{ b.after_g == null ? '' : `${inWeight(b.before_g ?? 0, session.units)} → ${inWeight(b.after_g, session.units)}` }}
          {{ b.probe_c == null ? '' : $t('oven-oven-log-thermometer', { probe_c: temperature(b.probe_c, session.units) }) }}
          <v-btn v-if="bench.mayEdit" class="link" @click="deleting.run(b.id)">{{ $t('oven-oven-log-delete') }}</v-btn>
        </li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
.toggle,
.link {
  border-bottom: 1px solid var(--rule-strong);
}

.log {
  margin-top: 12px;
}

form {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 4px;
  margin: 6px 0;
  font-size: 13px;
}

.field {
  width: 58px;
  --field-height: 24px;
  text-align: right;
}

ul {
  margin: 4px 0;
  padding: 0;
  list-style: none;
}
</style>
