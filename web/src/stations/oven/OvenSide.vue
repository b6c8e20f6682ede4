<script setup lang="ts">
/** The oven, how the dough lies in it, the weight to bake to, and what would change the bake. */
import { computed, ref } from 'vue'
import { api, settled } from '@/api/client'
import type { BakeForecast } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { withBake } from '@/domain/edits'
import { figure, weight, weightUnit } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import OvenAdvice from './OvenAdvice.vue'
import OvenLog from './OvenLog.vue'
import OvenSettings from './OvenSettings.vue'

defineProps<{ forecast: BakeForecast | null; thickest: number | null; within: number | null }>()
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
</script>

<template>
  <aside class="side balance-side" :aria-label="$t('oven-oven-side-oven')">
    <h3 v-if="forecast?.fried">{{ $t('oven-oven-side-deep-frying') }}</h3>
    <h3 v-else>
      <span class="visually-hidden">{{ $t('oven-oven-side-oven') }}</span>
      <v-select
        class="field"
        :model-value="bake?.oven ?? ''"
        :disabled="!bench.mayEdit"
        :aria-label="$t('oven-oven-side-which-oven')"
        @update:model-value="set({ oven: $event })"
        :items="[
          { value: '', title: $t('oven-oven-side-an-unknown-oven') },
          ...(list.answer.value ?? []).map((o) => ({ value: o.key, title: o.name })),
        ]"
      />
    </h3>
    <p v-if="!forecast?.fried" class="note">{{ forecast?.oven ?? '' }}</p>
    <OvenSettings v-if="forecast" :forecast="forecast" :altitude-m="chosen?.altitude_m ?? 0" />
    <template v-if="forecast?.bake_to_g">
      <h4>{{ $t('oven-oven-side-target-weight-out-of-the-oven') }}</h4>
      <p class="weight">
        <b>{{ weight(forecast.bake_to_g.best, session.units) }} {{ weightUnit(session.units) }}</b
        >{{ ' '
        }}<span class="note">{{
          $t('oven-oven-side-per-piece', {
            low: weight(forecast.bake_to_g.low, session.units),
            high: weight(forecast.bake_to_g.high, session.units),
            bake_to_piece_g: weight(forecast.bake_to_piece_g ?? 0, session.units),
          })
        }}</span>
      </p>
      <p v-if="forecast.loss_percent" class="note">
        {{
          $t('oven-oven-side-cooled-loss', {
            best: figure(forecast.loss_percent.best, 0),
            low: figure(forecast.loss_percent.low, 0),
            high: figure(forecast.loss_percent.high, 0),
            moisture: figure(forecast.moisture_percent ?? 0, 0),
          })
        }}
      </p>
    </template>
    <OvenAdvice v-if="forecast" :forecast="forecast" :thickest="thickest" :within="within" @within="emit('within', $event)" />
    <OvenLog v-if="chosen && !forecast?.fried" id="oven-log" v-model:open="logging" :oven="chosen" @learned="learned" />
    <form v-if="bench.mayEdit && !forecast?.fried" class="fresh" @submit.prevent="addOven">
      <v-text-field
        v-model="fresh"
        class="field name"
        :placeholder="$t('oven-oven-side-name-of-a-new-oven')"
        :aria-label="$t('oven-oven-side-name-of-a-new-oven-2')"
        maxlength="80"
      /><v-btn type="submit" class="quiet-button">{{ $t('oven-oven-side-add') }}</v-btn>
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
