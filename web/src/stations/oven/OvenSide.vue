<script setup lang="ts">
/** The oven, how the dough lies in it, the weight to bake to, and what would change the bake. */
import { computed, ref } from 'vue'
import QuantityField from '@/components/frame/QuantityField.vue'
import { api, settled } from '@/api/client'
import type { BakeForecast } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { withBake } from '@/domain/edits'
import { figure, length, lengthUnit, minutes, temperature, weight, weightUnit } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import OvenLog from './OvenLog.vue'

const props = defineProps<{ forecast: BakeForecast | null; thickest: number | null; within: number | null }>()
const logging = defineModel<boolean>('logging', { default: false })
const emit = defineEmits<{ within: [minutes: number | null]; learned: [] }>()
const bench = useBench()
const session = useSession()
const list = useAsk(
  () => ['ovens'],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/ovens', { params: { path: at } })),
)
const chosen = computed(() => list.answer.value?.find((o) => o.key === bench.document?.bake?.oven) ?? null)
const bake = computed(() => bench.document?.bake)
const set = (change: Parameters<typeof withBake>[1]): void => {
  bench.edit((doc) => withBake(doc, change))
}
const fresh = ref('')

const adding = useDo(
  (name: string, at) => settled(api.POST('/api/kitchens/{kitchen_id}/ovens', { params: { path: at }, body: { name, altitude_m: 0 } })),
  {
    then: (made) => {
      fresh.value = ''
      set({ oven: made.key })
    },
  },
)
const addOven = (): void => {
  if (fresh.value.trim()) void adding.run(fresh.value)
}
const learned = (): void => {
  emit('learned')
}
const mostTrays = computed(() => session.words?.most_trays ?? 1)
const toBench = (): void => {
  if (props.forecast?.moisture_percent != null)
    set({ moisture_percent: Math.round(props.forecast.moisture_percent * 10) / 10, moisture_from: 'oven' })
}
const number = (event: Event): number | null => {
  const value = Number((event.target as HTMLInputElement).value.trim().replace(',', '.'))
  return Number.isFinite(value) && value > 0 ? value : null
}
</script>

<template>
  <aside class="side balance-side" aria-label="Oven">
    <h3 v-if="forecast?.fried">In oil</h3>
    <h3 v-else>
      <span class="visually-hidden">Oven</span>
      <v-select
        class="field"
        :model-value="bake?.oven ?? ''"
        :disabled="!bench.mayEdit"
        aria-label="Which oven"
        @update:model-value="set({ oven: $event })"
        :items="[{ value: '', title: 'an unknown oven' }, ...(list.answer.value ?? []).map((o) => ({ value: o.key, title: o.name }))]"
      />
    </h3>
    <p v-if="!forecast?.fried" class="note">{{ forecast?.oven ?? '' }}</p>
    <dl v-if="forecast">
      <dt>{{ forecast.fried ? 'Oil' : 'Dial' }}</dt>
      <dd>
        <QuantityField
          kind="temperature"
          :label="forecast.fried ? 'Oil' : 'Dial'"
          :value="forecast.oven_c"
          :disabled="!bench.mayEdit"
          @change="set({ oven_c: $event })"
        />
      </dd>
      <template v-if="!forecast.fried">
        <dt>In this oven</dt>
        <dd>{{ temperature(forecast.really_c, session.units) }}</dd>
        <dt>Heat</dt>
        <dd>
          <v-btn class="quiet-button" :disabled="!bench.mayEdit" :aria-pressed="bake?.fan ?? false" @click="set({ fan: !bake?.fan })">
            {{ bake?.fan ? 'fan' : 'no fan' }}
          </v-btn>
        </dd>
        <dt>Baked on</dt>
        <dd>
          <v-select
            class="field wide"
            :model-value="bake?.ware ?? ''"
            :disabled="!bench.mayEdit"
            aria-label="Baked on"
            @update:model-value="set({ ware: $event })"
            :items="[{ value: '', title: 'as usual' }, ...(session.words?.bakeware ?? []).map((w) => ({ value: w.id, title: w.name }))]"
          />
        </dd>
        <dt>Trays at once</dt>
        <dd>
          <QuantityField
            kind="count"
            label="Trays at once"
            :value="bake?.trays ?? 1"
            :low="1"
            :high="mostTrays"
            :disabled="!bench.mayEdit"
            @change="set({ trays: $event ?? 1 })"
          />
        </dd>
      </template>
      <dt>Wanted</dt>
      <dd>
        <v-select
          class="field wide"
          :model-value="bake?.doneness ?? ''"
          :disabled="!bench.mayEdit"
          aria-label="How done it is wanted"
          @update:model-value="set({ doneness: $event as '' | 'soft' | 'crisp' })"
          :items="[...(session.words?.wishes ?? []).map((w) => ({ value: w.id, title: w.name }))]"
        />
      </dd>
      <dt>Dough goes in at</dt>
      <dd>
        <QuantityField
          kind="temperature"
          style="--quantity-width: 100px"
          label="Dough goes in at"
          :value="bake?.dough_c"
          usual="as mixed"
          :disabled="!bench.mayEdit"
          @change="set({ dough_c: $event })"
        />
      </dd>
      <dt>Altitude</dt>
      <dd>
        <QuantityField
          kind="altitude"
          label="Altitude"
          :value="bake?.altitude_m || null"
          :usual="chosen?.altitude_m ?? 0"
          :disabled="!bench.mayEdit"
          @change="set({ altitude_m: $event ?? 0 })"
        />
      </dd>
    </dl>
    <template v-if="forecast?.bake_to_g">
      <h4>Bake to weight</h4>
      <p class="weight">
        <b>{{ weight(forecast.bake_to_g.best, session.units) }} {{ weightUnit(session.units) }}</b
        >{{ ' '
        }}<span class="note"
          >{{ weight(forecast.bake_to_g.low, session.units) }}–{{ weight(forecast.bake_to_g.high, session.units) }};
          {{ weight(forecast.bake_to_piece_g ?? 0, session.units) }} a piece</span
        >
      </p>
      <p class="note">
        {{ figure(forecast.moisture_percent ?? 0, 0) }} % water left.
        <v-btn v-if="bench.mayEdit" class="link" @click="toBench">Take it to the bench</v-btn
        ><span v-if="bake?.moisture_from === 'oven'">
          · texture and figures per 100 g baked use {{ figure(bake.moisture_percent ?? 0, 0) }} %</span
        >
      </p>
    </template>
    <template v-if="forecast">
      <h4>If instead …</h4>
      <dl class="ifs">
        <div v-for="w in forecast.what_ifs" :key="w.key">
          <dt>{{ w.name }}</dt>
          <dd>
            <b>{{ w.text }}</b>
          </dd>
        </div>
      </dl>
      <h4>Other temperatures</h4>
      <ul class="settings">
        <li v-for="s in forecast.settings" :key="s.oven_c" :class="{ best: s.best }">
          <v-btn :disabled="!bench.mayEdit" @click="set({ oven_c: s.oven_c })">{{ temperature(s.oven_c, session.units) }}</v-btn>{{ ' '
          }}<span
            >{{ s.ready_min == null ? 'not done' : `${minutes(s.ready_min)} min, ${minutes(s.window_min)} to spare`
            }}{{ s.best ? ' · suggested' : '' }}</span
          >
        </li>
      </ul>
      <p class="note">
        How thick to be done in
        <v-text-field
          class="field tiny"
          :model-value="within ?? ''"
          inputmode="decimal"
          aria-label="Minutes there are"
          @change="emit('within', number($event))"
        />
        min?<b v-if="within != null">
          {{ thickest == null ? 'not even thin' : `${length(thickest, session.units)} ${lengthUnit(session.units)}` }}</b
        >
      </p>
      <p class="note">Decided by {{ forecast.decides }}. {{ forecast.rests_on }} {{ forecast.sureness }}</p>
    </template>
    <OvenLog v-if="chosen && !forecast?.fried" id="oven-log" v-model:open="logging" :oven="chosen" @learned="learned" />
    <form v-if="bench.mayEdit && !forecast?.fried" class="fresh" @submit.prevent="addOven">
      <v-text-field
        v-model="fresh"
        class="field name"
        placeholder="name of a new oven"
        aria-label="Name of a new oven"
        maxlength="80"
      /><v-btn type="submit" class="quiet-button"> Add </v-btn>
    </form>
  </aside>
</template>

<style scoped>
.side {
  padding: 14px 18px 40px;
  border-left: 1px solid var(--rule);
  background: var(--balance);
  overflow-y: auto;
  scrollbar-width: thin;
}

h4 {
  margin: 14px 0 2px;
  font: 700 14px var(--head);
}

p {
  margin: 3px 0;
}

dl {
  display: grid;
  grid-template-columns: 1fr auto;
  margin: 4px 0;
}

dt,
dd {
  margin: 0;
  padding: 3px 0;
  border-bottom: 1px solid var(--rule);
}

dt {
  color: var(--ink-2);
}

dd {
  padding-left: 8px;
  text-align: right;
}

/* A long answer takes a line of its own rather than squeeze the question. */
.ifs {
  display: block;
  font-size: 13px;
}

.ifs div {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  border-bottom: 1px solid var(--rule);
}

.ifs dt,
.ifs dd {
  padding: 2px 0;
  border: 0;
}

.ifs dd {
  margin-left: auto;
  padding-left: 8px;
}

.field {
  width: 62px;
  --field-height: 26px;
  text-align: right;
}

h3 .field,
.field.wide {
  width: auto;
  text-align: left;
}

h3 .field {
  width: 100%;
  font: 700 15px var(--head);
}

.field.tiny {
  width: 40px;
  --field-height: 22px;
}

.field.name {
  flex: 1;
  text-align: left;
}

.weight b {
  font: 700 24px var(--head);
}

.link {
  border-bottom: 1px solid var(--rule-strong);
}

.settings {
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 13px;
}

.settings li {
  display: flex;
  gap: 10px;
  justify-content: space-between;
  padding: 2px 0;
  border-bottom: 1px solid var(--rule);
}

.settings span {
  text-align: right;
}

.settings .best {
  font-weight: 700;
}

.settings button {
  white-space: nowrap;
  border-bottom: 1px solid var(--rule-strong);
}

.fresh {
  display: flex;
  gap: 6px;
  margin-top: 14px;
}

@media (max-width: 700px) {
  .side {
    display: block !important;
    border: 0;
  }
}
</style>
