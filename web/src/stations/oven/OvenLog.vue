<script setup lang="ts">
/** What this oven has taught: its logged bakes, and one more. */
import { computed, reactive, ref } from 'vue'
import { api, settled } from '@/api/client'
import type { FormulaDocument, OvenOut } from '@/api/types'
import { useDo } from '@/composables/useDo'
import { ago, figure } from '@/domain/format'
import { useBench } from '@/stores/bench'

const props = defineProps<{ oven: OvenOut }>()
const emit = defineEmits<{ learned: [] }>()
const bench = useBench()
const open = ref(false)
const seen = reactive({ minutes: '', before_g: '', after_g: '', probe_c: '' })
const value = (text: string): number | null => {
  const number = Number(text.trim().replace(',', '.'))
  return text.trim() && Number.isFinite(number) ? number : null
}

const logging = useDo(
  (document: FormulaDocument, at) =>
    settled(
      api.POST('/api/kitchens/{kitchen_id}/ovens/{oven_id}/bakes', {
        params: { path: { ...at, oven_id: props.oven.id } },
        body: {
          document,
          minutes: value(seen.minutes),
          before_g: value(seen.before_g),
          after_g: value(seen.after_g),
          probe_c: value(seen.probe_c),
        },
      }),
    ),
  {
    here: true,
    then: () => {
      Object.assign(seen, { minutes: '', before_g: '', after_g: '', probe_c: '' })
      emit('learned')
    },
  },
)
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
      emit('learned')
    },
  },
)
const stand = (event: Event): void => {
  void standing.run(value((event.target as HTMLInputElement).value) ?? 0)
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
      emit('learned')
    },
  },
)
const trouble = computed(() => logging.trouble.value || standing.trouble.value || deleting.trouble.value)
</script>

<template>
  <section class="log">
    <v-btn class="note toggle" :aria-expanded="open" @click="open = !open">
      {{ oven.bakes.length }} logged {{ oven.bakes.length === 1 ? 'bake' : 'bakes' }} · log this one
    </v-btn>
    <div v-if="open">
      <p class="note">
        Started at 0 ± {{ figure(oven.prior_half_k, 0) }} °C as any unknown oven; now {{ figure(oven.offset_k, 0) }} ±
        {{ figure(oven.offset_half_k, 0) }}.
      </p>
      <p class="note">
        It stands
        <v-text-field
          class="field"
          :model-value="oven.altitude_m"
          :disabled="!bench.mayEdit"
          inputmode="numeric"
          aria-label="Height of this oven above the sea, m"
          @change="stand"
        />
        m above the sea, for every formula baked in it.
      </p>
      <form v-if="bench.mayEdit" @submit.prevent="log">
        <label>done at <v-text-field v-model="seen.minutes" class="field" inputmode="decimal" aria-label="Done at, minutes" /> min</label>
        <label
          >weight <v-text-field v-model="seen.before_g" class="field" inputmode="decimal" aria-label="Weight before, g" /> →
          <v-text-field v-model="seen.after_g" class="field" inputmode="decimal" aria-label="Weight after, g" /> g</label
        >
        <label
          >probe, empty oven
          <v-text-field v-model="seen.probe_c" class="field" inputmode="decimal" aria-label="Probe in the empty oven, °C" /> °C</label
        >
        <v-btn type="submit" class="quiet-button">Learn from it</v-btn>
        <p v-if="trouble" role="alert" class="act">{{ trouble }}</p>
      </form>
      <ul>
        <li v-for="b in oven.bakes" :key="b.id" class="note">
          {{ b.formula_name }}, {{ ago(b.logged_at) }}: {{ b.minutes == null ? '' : `${figure(b.minutes, 0)} min` }}
          {{ b.after_g == null ? '' : `${figure(b.before_g ?? 0, 0)} → ${figure(b.after_g, 0)} g` }} says
          {{ b.readings.map((r) => `${figure(r.offset_k, 0)} ± ${figure(r.half_90_k, 0)}`).join(', ') }} °C
          <v-btn v-if="bench.mayEdit" class="link" @click="deleting.run(b.id)">delete</v-btn>
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
