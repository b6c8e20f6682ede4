<script setup lang="ts">
/** What is to be ready when, and what there is to do it with. Every change is planned at once. */
import { computed } from 'vue'
import { api, settled } from '@/api/client'
import type { Planned, PlanDocument } from '@/api/types'
import FormulaPicker from '@/components/frame/FormulaPicker.vue'
import { useAsk } from '@/composables/useAsk'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

const props = defineProps<{ document: PlanDocument; planned: Planned | null; mayEdit: boolean; busy: boolean }>()
const emit = defineEmits<{ change: [over: Partial<PlanDocument>] }>()
const shelf = useAsk(
  () => [t('plan-plan-setting-shelf-for-plans'), ''],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/formulas', { params: { path: at, query: { search: '' } } })),
  { keep: true },
)
const names = computed(() => new Map((shelf.answer.value?.items ?? []).map((f) => [f.id, f.name])))
const told = computed(() => new Map((props.planned?.bakes ?? []).map((b) => [b.id, b])))
type PlanBake = PlanDocument['bakes'][number]
const nameOf = (bake: PlanBake): string => told.value.get(bake.id ?? '')?.name ?? names.value.get(bake.formula_id) ?? 'bake'
const set = (n: number, over: Partial<PlanBake>): void =>
  emit('change', { bakes: props.document.bakes.map((b, i) => (i === n ? { ...b, ...over } : b)) })
const remove = (n: number): void => emit('change', { bakes: props.document.bakes.filter((_, i) => i !== n), pins: [], happened: [] })
function add(id: number | null): void {
  if (!id) return
  const last = props.document.bakes.at(-1)
  const free = Math.max(0, ...props.document.bakes.map((b) => Number(b.id) || 0)) + 1
  emit('change', {
    bakes: [
      ...props.document.bakes,
      { formula_id: id, id: String(free), due: last?.due ?? props.document.start, batches: 1, fresh_h: null, oven: '', priority: 1 },
    ],
  })
}
const whole = (text: string, least: number, most: number): number => Math.min(Math.max(Math.round(Number(text) || least), least), most)
const setOven = (n: number, over: Partial<PlanDocument['ovens'][number]>): void =>
  emit('change', { ovens: props.document.ovens.map((o, i) => (i === n ? { ...o, ...over } : o)), pins: [], happened: [] })
const valueOf = (event: Event): string => (event.target as HTMLInputElement).value
const session = useSession()
/** How many there are of something; an empty field is as usual. */
function setThing(id: string, typed: string): void {
  const has: Record<string, number> = Object.fromEntries(Object.entries(props.document.has ?? {}).filter(([key]) => key !== id))
  if (typed !== '') has[id] = whole(typed, 0, 40)
  emit('change', { has, pins: [], happened: [] })
}
const thingsTold = computed(() =>
  (session.words?.plan_things ?? [])
    .filter((thing) => props.document.has?.[thing.id] != null)
    .map((thing) => `${props.document.has?.[thing.id] ?? 0} ${thing.name}`)
    .join(', '),
)
/** A night without work, from the evening before the first deadline. */
function sleep(on: boolean): void {
  const day = (props.document.bakes[0]?.due ?? props.document.start).slice(0, 10)
  const { night_from: from, night_to: to } = session.limits
  const eve = new Date(`${day}T00:00Z`)
  eve.setUTCDate(eve.getUTCDate() - 1)
  const evening = `${eve.toISOString().slice(0, 10)}T${from}`
  emit('change', { closed: on ? [{ start: evening, end: `${day}T${to}` }] : [] })
}
</script>

<template>
  <aside class="plain-fields" :aria-busy="busy">
    <h3>{{ $t('plan-plan-setting-bakes-and-deadlines') }}</h3>
    <ol>
      <li v-for="(bake, n) in document.bakes" :key="bake.id">
        <p class="bake">
          <span class="number">{{ n + 1 }}</span><router-link :to="`/formula/${bake.formula_id}`">{{ nameOf(bake) }}</router-link>
          <v-btn
            v-if="mayEdit && document.bakes.length > 1"
            class="quiet-button tiny-button"
            :aria-label="$t('plan-plan-setting-remove', { bake: nameOf(bake) })"
            @click="remove(n)"
            >×</v-btn
          >
        </p>
        <input
          type="datetime-local"
          :value="bake.due.slice(0, 16)"
          :disabled="!mayEdit"
          :aria-label="$t('plan-plan-setting-is-to-be-ready-at', { bake: nameOf(bake) })"
          @change="set(n, { due: valueOf($event) })"
        />
        <span class="pair">
          <label class="small"
            ><input
              type="number"
              min="0.5"
              step="0.5"
              :value="bake.batches"
              :disabled="!mayEdit"
              :aria-label="$t('plan-plan-setting-batches-of', { bake: nameOf(bake) })"
              @change="set(n, { batches: Math.max(Number(valueOf($event)) || 1, 0.05) })"
            />{{ $t('plan-plan-setting-value', { batches: bake.batches }) }}</label
          >
          <label class="small" :title="$t('plan-plan-setting-maximum-hours-between-baking-and-serving')"
            >{{ $t('plan-plan-setting-baked-at-most')
            }}<input
              type="number"
              min="0"
              step="0.5"
              :placeholder="$t('plan-plan-setting-any')"
              :value="bake.fresh_h"
              :disabled="!mayEdit"
              :aria-label="$t('plan-plan-setting-maximum-hours-between-baking-and-serving-2', { bake: nameOf(bake) })"
              @change="set(n, { fresh_h: valueOf($event) === '' ? null : Math.max(Number(valueOf($event)), 0) })"
            />{{ $t('plan-plan-setting-h-before') }}</label
          >
        </span>
        <p v-if="told.get(bake.id ?? '')" class="note">
          {{ $t('plan-plan-setting-ready', { ready: told.get(bake.id ?? '')?.ready.slice(11, 16) })
          }}<span v-if="told.get(bake.id ?? '')?.late_min" class="act">
            {{ $t('plan-plan-setting-min-late', { late_min: told.get(bake.id ?? '')?.late_min }) }}</span
          >
          · {{ told.get(bake.id ?? '')?.trays }} {{ $t('plan-plan-setting-value-2', { trays: told.get(bake.id ?? '')?.trays }) }}
        </p>
      </li>
    </ol>
    <FormulaPicker
      v-if="mayEdit"
      :key="document.bakes.length"
      class="field"
      :label="$t('plan-plan-setting-add-a-bake')"
      :placeholder="$t('plan-plan-setting-add-a-formula')"
      @update:model-value="add"
    />
    <h3>{{ $t('plan-plan-setting-kitchen-resources') }}</h3>
    <label class="row"
      >{{ $t('plan-plan-setting-people')
      }}<input
        type="number"
        min="1"
        max="20"
        :value="document.people ?? 1"
        :disabled="!mayEdit"
        @change="emit('change', { people: whole(valueOf($event), 1, 20), pins: [], happened: [] })"
    /></label>
    <template v-for="(oven, n) in document.ovens" :key="oven.name">
      <label class="row"
        >{{ $t('plan-plan-setting-trays-in', { name: oven.name })
        }}<input
          type="number"
          min="1"
          max="40"
          :value="oven.trays"
          :disabled="!mayEdit"
          @change="setOven(n, { trays: whole(valueOf($event), 1, 40) })"
      /></label>
    </template>
    <v-btn
      v-if="mayEdit && document.ovens.length < 3"
      class="quiet-button tiny-button"
      @click="
        emit('change', {
          ovens: [
            ...document.ovens,
            { key: '', name: `oven ${document.ovens.length + 1}`, trays: session.limits.oven_trays, share_k: session.limits.oven_shared_k },
          ],
          pins: [],
          happened: [],
        })
      "
      >{{ $t('plan-plan-setting-add-oven') }}</v-btn
    >
    <details class="things">
      <summary>{{ thingsTold || $t('plan-plan-setting-other-equipment') }}</summary>
      <v-text-field
        v-for="thing in session.words?.plan_things ?? []"
        :key="thing.id"
        type="number"
        :min="0"
        :max="40"
        :label="thing.name"
        :placeholder="thing.usual == null ? $t('plan-plan-setting-enough') : String(thing.usual)"
        persistent-placeholder
        :model-value="document.has?.[thing.id] ?? ''"
        :disabled="!mayEdit"
        @change="setThing(thing.id, valueOf($event))"
      />
    </details>
    <label class="small"
      >{{ $t('plan-plan-setting-start-no-earlier-than')
      }}<input
        type="datetime-local"
        :value="document.start.slice(0, 16)"
        :disabled="!mayEdit"
        @change="emit('change', { start: valueOf($event), pins: [], happened: [] })"
    /></label>
    <v-checkbox-btn
      :label="$t('plan-plan-setting-no-work-from-22-00-to')"
      :model-value="(document.closed ?? []).length > 0"
      :disabled="!mayEdit"
      @update:model-value="(on: boolean | null) => sleep(Boolean(on))"
    />
  </aside>
</template>

<style scoped>
ol {
  margin: 4px 0 10px;
  padding: 0;
  list-style: none;
}

li {
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}

.bake {
  display: flex;
  align-items: baseline;
  gap: 6px;
  margin: 0 0 3px;
}

.bake a {
  flex: 1;
  color: inherit;
  text-decoration: none;
}

.number {
  min-width: 16px;
  color: var(--ink-2);
  font-variant-numeric: tabular-nums;
}

input[type='number'] {
  width: 62px;
}

.pair {
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
}

.pair .small {
  flex-wrap: nowrap;
  white-space: nowrap;
}

.small,
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  margin: 4px 0;
  color: var(--ink-2);
  font-size: 13px;
}

.row {
  justify-content: space-between;
}

p.note {
  margin: 2px 0 0;
}

.things {
  margin: 6px 0;
  font-size: 13px;
}

.things summary {
  color: var(--ink-2);
  cursor: pointer;
}

.things .v-text-field {
  margin: 10px 0 0;
}
</style>
