<script setup lang="ts">
/**
 * Oven decides temperature, stages and when to take it out. The eye falls on the sentence with its minutes, then on the
 * inside of the dough over time; the next keystroke changes the dial, a stage or the tray, and the bake is simulated anew.
 */
import { refDebounced, useMediaQuery } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import QuantityField from '@/components/frame/QuantityField.vue'
import { api, settled } from '@/api/client'
import type { BakeForecast, FormulaDocument } from '@/api/types'
import FormulaFrame from '@/components/frame/FormulaFrame.vue'
import { useBalance } from '@/composables/useBalance'
import { useLatest } from '@/composables/useLatest'
import { useOpenFormula } from '@/composables/useOpenFormula'
import { dial, inWeight, minutes } from '@/domain/format'
import { withBake } from '@/domain/edits'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import BakeCurves from './BakeCurves.vue'
import ColourStrip from './ColourStrip.vue'
import DepthPicture from './DepthPicture.vue'
import OvenMapView from './OvenMapView.vue'
import OvenSide from './OvenSide.vue'
import StageStrip from './StageStrip.vue'
import { t } from '@/messages'

const props = defineProps<{ id: number }>()
const bench = useBench()
const session = useSession()
const { missing } = useOpenFormula(() => props.id)
/** A bake that was kept beside, to compare with. */
const beside = shallowRef<{ forecast: BakeForecast; name: string } | null>(null)
const within = shallowRef<number | null>(null)

const latest = useLatest((q: { kitchenId: number; document: FormulaDocument; within: number | null }) =>
  settled(
    api.POST('/api/kitchens/{kitchen_id}/bake', {
      params: { path: { kitchen_id: q.kitchenId } },
      body: { document: q.document, within_min: q.within },
    }),
  ),
)
const forecast = computed(() => latest.answer.value?.forecast ?? null)
const document = refDebounced(
  computed(() => bench.document),
  150,
)
const ask = (): void => {
  if (document.value && session.kitchen && bench.formulaId === props.id)
    latest.ask({ kitchenId: session.kitchen.id, document: document.value, within: within.value })
}
watch([document, () => session.kitchen, within], ask, { immediate: true })
watch(
  () => props.id,
  () => {
    beside.value = null
  },
)

const phone = useMediaQuery('(max-width: 700px)')
function setDial(celsius: number | null): void {
  if (celsius !== null) bench.edit((doc) => withBake(doc, { oven_c: celsius }))
}
const balance = useBalance()
const logging = ref(false)
function logBake(): void {
  logging.value = true
  balance.sheet.value = true
  // A sheet is drawn when it has come up.
  setTimeout(() => window.document.getElementById('oven-log')?.scrollIntoView({ block: 'nearest' }), 350)
}
const span = computed(() => Math.max(forecast.value?.series.minutes.at(-1) ?? 1, beside.value?.forecast.series.minutes.at(-1) ?? 0))
const difference = computed(() => {
  const [now, then] = [forecast.value, beside.value?.forecast]
  if (!now?.ready_min || !then?.ready_min) return ''
  const later = now.ready_min.best - then.ready_min.best
  const heavier = (now.bake_to_g?.best ?? 0) - (then.bake_to_g?.best ?? 0)
  const when =
    Math.abs(later) < 0.25
      ? t('oven-oven-view-at-the-same-time')
      : t('oven-oven-view-min', {
          minutes: minutes(Math.abs(later)),
          direction: later > 0 ? t('oven-oven-view-later') : t('oven-oven-view-sooner'),
        })
  const much =
    Math.abs(heavier) < 1
      ? t('oven-oven-view-as-heavy')
      : `${inWeight(Math.abs(heavier), session.units)} ${heavier > 0 ? 'heavier' : 'lighter'}`
  return `${when}, ${much}`
})
const keepBeside = (): void => {
  if (forecast.value) beside.value = { forecast: forecast.value, name: dial(forecast.value.oven_c, session.units) }
}
</script>

<template>
  <FormulaFrame :missing="missing" :side-word="$t('oven-oven-view-oven-settings')">
    <p v-if="latest.refusal.value" role="alert" class="act">{{ latest.refusal.value.sentence }}</p>
    <template v-if="forecast">
      <p class="sentence" aria-live="polite">{{ forecast.text }}</p>
      <ul v-if="forecast.sorts.length" class="sorts" :aria-label="$t('oven-oven-view-varieties')">
        <li v-for="s in forecast.sorts" :key="s.name">{{ s.text }}</li>
      </ul>
      <div class="first">
        <label v-if="phone"
          >{{ forecast.fried ? $t('oven-oven-view-oil') : $t('oven-oven-view-oven-setting') }}
          <QuantityField
            kind="temperature"
            :label="forecast.fried ? $t('oven-oven-view-oil-degrees') : $t('oven-oven-view-oven-setting')"
            :value="forecast.oven_c"
            :disabled="!bench.mayEdit"
            @change="setDial"
        /></label>
        <v-btn v-if="bench.mayEdit && bench.document?.bake?.oven" class="quiet-button" @click="logBake">{{
          $t('oven-oven-view-log-this-bake')
        }}</v-btn>
      </div>
      <p v-for="f in forecast.flags" :key="f" class="act flag">{{ f }}</p>
      <StageStrip :forecast="forecast" :span="span" />
      <DepthPicture :forecast="forecast" :span="span" />
      <BakeCurves :forecast="forecast" :beside="beside?.forecast ?? null" :span="span" />
      <ColourStrip :forecast="forecast" :beside="beside?.forecast ?? null" :span="span" />
      <div class="compare">
        <v-btn class="quiet-button" @click="keepBeside">{{ $t('oven-oven-view-compare-with-this-forecast') }}</v-btn>
        <template v-if="beside"
          ><span class="note">{{ $t('oven-oven-view-dashed-the-forecast-at-with-the', { name: beside.name, difference }) }}</span
          ><v-btn class="quiet-button" @click="beside = null">{{ $t('oven-oven-view-stop-comparing') }}</v-btn></template
        >
      </div>
      <OvenMapView :formula-id="id" :minutes="forecast.ready_min?.best ?? null" :forecast="forecast" />
      <p v-for="w in forecast.weak_spots" :key="w" class="note caution">{{ w }}</p>
      <p v-for="c in forecast.cautions" :key="c" class="note caution">{{ c }}</p>
    </template>
    <p v-else-if="latest.answer.value && !forecast" class="note">
      {{ $t('oven-oven-view-nothing-to-bake-yet-add-a') }}
      <router-link :to="`/formula/${id}`">{{ $t('oven-oven-view-go-to-formula') }}</router-link>
    </p>
    <div v-else-if="!latest.refusal.value" class="skeleton wait" />
    <template #side
      ><OvenSide
        :forecast="forecast"
        :thickest="latest.answer.value?.thickest_mm ?? null"
        :within="within"
        v-model:logging="logging"
        @within="(v) => (within = v)"
        @learned="ask"
    /></template>
  </FormulaFrame>
</template>

<style scoped>
.sorts {
  margin: 0 0 8px;
  padding: 0;
  list-style: none;
}

.sentence {
  margin: 0;
  font-size: 18px;
  line-height: 1.35;
  text-wrap: pretty;
}

.flag {
  margin: 0;
}

.first {
  display: flex;
  align-items: center;
  gap: 14px;
}

.dial {
  width: 80px;
}

.compare {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}

.caution {
  margin: 0;
  padding-left: 9px;
  border-left: 3px double var(--rule-strong);
}

.wait {
  height: 60vh;
}
</style>
