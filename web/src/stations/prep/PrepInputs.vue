<script setup lang="ts">
/** Inputs of a card: numbers that are edited where they stand, and choices between words. */
import type { PrepInput } from '@/api/types'
import { withPrep } from '@/domain/edits'
import { celsiusOf, temperature, temperatureUnit } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

defineProps<{ inputs: readonly PrepInput[] }>()
const bench = useBench()
const session = useSession()

function set(key: string, value: number | string | null): void {
  bench.edit((doc) => withPrep(doc, { [key]: value }))
}
function typed(event: Event, input: PrepInput): void {
  const field = event.target as HTMLInputElement
  const text = field.value.trim().replace(',', '.')
  const told = text === '' ? null : Number(text)
  const value = told !== null && isDegrees(input) ? celsiusOf(told, session.units) : told
  if (value !== null && !(value >= input.low && value <= input.high)) {
    field.setCustomValidity(bounds(input))
    field.reportValidity()
    return
  }
  field.setCustomValidity('')
  set(input.key, value)
}
const isDegrees = (input: PrepInput): boolean => input.unit === 'degC'
const number = (input: PrepInput, value: number): string =>
  isDegrees(input) && session.units === 'us' ? temperature(value, 'us').replace(' °F', '') : String(Math.round(value * 10) / 10)
const shown = (input: PrepInput): string => (input.value == null ? '' : number(input, input.value))
const unit = (input: PrepInput): string => (isDegrees(input) ? temperatureUnit(session.units) : input.unit)
const bounds = (input: PrepInput): string =>
  t('prep-prep-inputs-to', { low: number(input, input.low), high: number(input, input.high), input: unit(input) })
</script>

<template>
  <div class="inputs">
    <label v-for="input in inputs" :key="input.key" class="note" :class="{ usual: input.usual }">
      {{ input.label }}
      <v-select
        v-if="input.words.length"
        class="field"
        :model-value="input.word"
        :disabled="!bench.mayEdit"
        @update:model-value="set(input.key, $event)"
        :items="[...input.words.map((w) => ({ value: w, title: w }))]"
      />
      <template v-else>
        <v-text-field
          class="field"
          :model-value="shown(input)"
          :disabled="!bench.mayEdit"
          inputmode="decimal"
          :aria-label="`${input.label}, ${unit(input) || $t('prep-prep-inputs-number')}`"
          :title="bounds(input)"
          @change="typed($event, input)"
        />
        {{ unit(input) }}
      </template>
      <v-btn
        v-if="!input.usual && bench.mayEdit"
        class="back"
        :aria-label="$t('prep-prep-inputs-as-usual', { label: input.label })"
        :title="$t('prep-prep-inputs-as-usual-2')"
        @click.prevent="set(input.key, null)"
      >
        ×
      </v-btn>
    </label>
  </div>
</template>

<style scoped>
.inputs {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
}

label {
  display: flex;
  align-items: center;
  gap: 5px;
}

.field {
  width: 56px;
  --field-height: 26px;
  text-align: right;
  color: var(--ink);
}

.v-select.field {
  width: auto;
  text-align: left;
}

.usual .field {
  --field-line: dashed;
}

.back {
  min-width: 20px;
}
</style>
