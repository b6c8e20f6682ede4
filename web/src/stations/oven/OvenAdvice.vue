<script setup lang="ts">
/** What would change the bake: one thing changed each, other temperatures, and how thick it may be to be done in time. */
import QuantityField from '@/components/frame/QuantityField.vue'
import type { BakeForecast } from '@/api/types'
import { withBake } from '@/domain/edits'
import { dial, length, lengthUnit, minutes } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'

defineProps<{ forecast: BakeForecast; thickest: number | null; within: number | null }>()
const emit = defineEmits<{ within: [minutes: number | null] }>()
const bench = useBench()
const session = useSession()
const set = (change: Parameters<typeof withBake>[1]): void => {
  bench.edit((doc) => withBake(doc, change))
}
</script>

<template>
  <div>
    <h4>{{ $t('oven-oven-advice-what-if') }}</h4>
    <dl class="ifs">
      <div v-for="w in forecast.what_ifs" :key="w.key">
        <dt>{{ w.name }}</dt>
        <dd>
          <b>{{ w.text }}</b>
        </dd>
      </div>
    </dl>
    <h4>{{ $t('oven-oven-advice-other-temperatures') }}</h4>
    <ul class="settings">
      <li v-for="s in forecast.settings" :key="s.oven_c" :class="{ best: s.best }">
        <v-btn :disabled="!bench.mayEdit" @click="set({ oven_c: s.oven_c })">{{ dial(s.oven_c, session.units) }}</v-btn>{{ ' '
        }}<span
          >{{
            s.ready_min == null
              ? $t('oven-oven-advice-not-done')
              : $t('oven-oven-advice-min-then-min-until-too-dark', { ready_min: minutes(s.ready_min), window_min: minutes(s.window_min) })
          }}{{ s.best ? ' ' + $t('oven-oven-advice-suggested') : '' }}</span
        >
      </li>
    </ul>
    <p class="note">
      {{ $t('oven-oven-advice-greatest-thickness-that-bakes-in') }}
      <QuantityField
        kind="minutes"
        style="--quantity-width: 48px; --field-height: 22px"
        :label="$t('oven-oven-advice-baking-time-available-min')"
        :value="within"
        :low="0.1"
        @change="emit('within', $event)"
      />?<b v-if="within != null">
        {{
          thickest == null
            ? $t('oven-oven-advice-not-possible-at-any-thickness')
            : `${length(thickest, session.units)} ${lengthUnit(session.units)}`
        }}</b
      >
    </p>
    <p class="note">
      {{
        $t('oven-oven-advice-doneness-depends-on', { decides: forecast.decides, rests_on: forecast.rests_on, sureness: forecast.sureness })
      }}
    </p>
  </div>
</template>

<style scoped>
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
</style>
