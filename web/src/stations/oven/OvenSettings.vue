<script setup lang="ts">
/** How the oven, or the oil, is set for this dough, and what is wanted of it. */
import { computed } from 'vue'
import QuantityField from '@/components/frame/QuantityField.vue'
import type { BakeForecast } from '@/api/types'
import { withBake } from '@/domain/edits'
import { temperature } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'

defineProps<{ forecast: BakeForecast; altitudeM: number }>()
const bench = useBench()
const session = useSession()
const set = (change: Parameters<typeof withBake>[1]): void => {
  bench.edit((doc) => withBake(doc, change))
}
const bake = computed(() => bench.document?.bake)
const mostTrays = computed(() => session.words?.most_trays ?? 1)
</script>

<template>
  <dl>
    <dt>{{ forecast.fried ? $t('oven-oven-settings-oil') : $t('oven-oven-settings-oven-setting') }}</dt>
    <dd>
      <QuantityField
        kind="dial"
        :label="forecast.fried ? $t('oven-oven-settings-oil') : $t('oven-oven-settings-oven-setting')"
        :value="forecast.oven_c"
        :disabled="!bench.mayEdit"
        @change="set({ oven_c: $event })"
      />
    </dd>
    <template v-if="!forecast.fried">
      <dt>{{ $t('oven-oven-settings-actual-temperature') }}</dt>
      <dd>{{ temperature(forecast.really_c, session.units) }}</dd>
      <dt>{{ $t('oven-oven-settings-fan') }}</dt>
      <dd>
        <v-btn class="quiet-button" :disabled="!bench.mayEdit" :aria-pressed="bake?.fan ?? false" @click="set({ fan: !bake?.fan })">
          {{ bake?.fan ? $t('oven-oven-settings-on') : $t('oven-oven-settings-off') }}
        </v-btn>
      </dd>
      <dt>{{ $t('oven-oven-settings-baked-on') }}</dt>
      <dd>
        <v-select
          class="field wide"
          :model-value="bake?.ware ?? ''"
          :disabled="!bench.mayEdit"
          :aria-label="$t('oven-oven-settings-baked-on')"
          @update:model-value="set({ ware: $event })"
          :items="[
            { value: '', title: $t('oven-oven-settings-as-usual') },
            ...(session.words?.bakeware ?? []).map((w) => ({ value: w.id, title: w.name })),
          ]"
        />
      </dd>
      <dt>{{ $t('oven-oven-settings-trays-in-the-oven') }}</dt>
      <dd>
        <QuantityField
          kind="count"
          :label="$t('oven-oven-settings-trays-in-the-oven')"
          :value="bake?.trays ?? 1"
          :low="1"
          :high="mostTrays"
          :disabled="!bench.mayEdit"
          @change="set({ trays: $event ?? 1 })"
        />
      </dd>
    </template>
    <dt>{{ $t('oven-oven-settings-doneness') }}</dt>
    <dd>
      <v-select
        class="field wide"
        :model-value="bake?.doneness ?? ''"
        :disabled="!bench.mayEdit"
        :aria-label="$t('oven-oven-settings-doneness')"
        @update:model-value="set({ doneness: $event as '' | 'soft' | 'crisp' })"
        :items="[...(session.words?.wishes ?? []).map((w) => ({ value: w.id, title: w.name }))]"
      />
    </dd>
    <dt>{{ $t('oven-oven-settings-dough-temperature-going-in') }}</dt>
    <dd>
      <QuantityField
        kind="temperature"
        style="--quantity-width: 100px"
        :label="$t('oven-oven-settings-dough-temperature-going-in')"
        :value="bake?.dough_c"
        :usual="$t('oven-oven-settings-as-mixed')"
        :disabled="!bench.mayEdit"
        @change="set({ dough_c: $event })"
      />
    </dd>
    <dt>{{ $t('oven-oven-settings-altitude') }}</dt>
    <dd>
      <QuantityField
        kind="altitude"
        :label="$t('oven-oven-settings-altitude')"
        :value="bake?.altitude_m || null"
        :usual="altitudeM"
        :disabled="!bench.mayEdit"
        @change="set({ altitude_m: $event ?? 0 })"
      />
    </dd>
  </dl>
</template>

<style scoped>
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
</style>
