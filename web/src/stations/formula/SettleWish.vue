<script setup lang="ts">
/** What is wanted besides the targets on the rulers: what to leave out, how it handles, what it eats like, and what may change. */
import { computed, ref, watch } from 'vue'
import { length, lengthUnit, millimetresOf } from '@/domain/format'
import { useSession } from '@/stores/session'
import { useSettle } from '@/stores/settle'
import { t } from '@/messages'

const session = useSession()
const settle = useSettle()
const leave = computed(() => (session.words?.exclusions ?? []).map((e) => ({ value: e.id, title: e.name })))
const classes = computed(() => [
  { value: '', title: t('formula-settle-wish-handles-as-usual') },
  ...(session.words?.handling_classes ?? []).map((name) => ({ value: name, title: t('formula-settle-wish-at-shaping', { name }) })),
])
const scores = computed(() => [
  { value: '', title: t('formula-settle-wish-same-texture') },
  ...(session.words?.textures ?? []).flatMap((texture) => [
    { value: `${texture.id}+`, title: t('formula-settle-wish-at-least', { name: texture.name.toLowerCase() }) },
    { value: `${texture.id}-`, title: t('formula-settle-wish-at-most', { name: texture.name.toLowerCase() }) },
  ]),
])
/** How surely the targets are to be met: a dial of the core's steps, each with its probability. */
const steps = computed(() => session.words?.sure_steps ?? [])
const step = computed({
  get: () =>
    Math.max(
      steps.value.findIndex((s) => s.margin === settle.wish.margin),
      0,
    ),
  set: (at) => {
    settle.wish.margin = steps.value[at]?.margin ?? 0
  },
})
/** Spoons and whole eggs, or what a scale can weigh. */
const toTheGram = computed({
  get: () => settle.wish.steps === 'grams',
  set: (on) => {
    settle.wish.steps = on ? 'grams' : 'kitchen'
  },
})
/** What is wished of the texture already, from its bars. */
const [wished] = Object.entries(settle.wish.texture ?? {})
const score = ref(wished ? `${wished[0]}${wished[1].low == null ? '-' : '+'}` : '')
const within = ref(settle.wish.minutes_most ? t('formula-settle-wish-within-min', { minutes_most: settle.wish.minutes_most }) : '')
function setWithin(): void {
  const value = Number(within.value.replace(',', '.').replace(/[^\d.]/g, ''))
  settle.wish.minutes_most = value > 0 ? value : null
  within.value = value > 0 ? t('formula-settle-wish-within-min-2', { value }) : ''
}
const unit = computed(() => lengthUnit(session.units))
const thinnest = computed(() =>
  settle.wish.thickness_most
    ? t('formula-settle-wish-at-most-2', { thickness_most: length(settle.wish.thickness_most, session.units), unit: unit.value })
    : '',
)
const thick = ref(thinnest.value)
function setThick(): void {
  const value = Number(thick.value.replace(',', '.').replace(/[^\d.]/g, ''))
  settle.wish.thickness_most = value > 0 ? millimetresOf(value, session.units) : null
  thick.value = thinnest.value
}
const points = ref(wished ? (wished[1].low ?? wished[1].high ?? 7).toFixed(1) : '7')
watch([score, points], () => {
  const value = Number(points.value.replace(',', '.'))
  const key = score.value.slice(0, -1)
  settle.wish.texture =
    score.value && Number.isFinite(value)
      ? { [key]: score.value.endsWith('+') ? { low: value, high: null } : { low: null, high: value } }
      : {}
})
</script>

<template>
  <form class="wish" :aria-label="$t('formula-settle-wish-your-targets')" @submit.prevent="settle.start()">
    <v-select
      v-model="settle.wish.without"
      class="field wide"
      multiple
      :aria-label="$t('formula-settle-wish-exclude')"
      :placeholder="$t('formula-settle-wish-exclude-nothing')"
      :items="leave"
    >
      <template #selection="{ item, index }">
        <span>{{ index ? ', ' : $t('formula-settle-wish-without') + ' ' }}{{ item.title }}</span>
      </template>
    </v-select>
    <v-select v-model="settle.wish.handling" class="field" :aria-label="$t('formula-settle-wish-handling')" :items="classes" />
    <v-select v-model="score" class="field" :aria-label="$t('formula-settle-wish-texture')" :items="scores" />
    <v-text-field
      v-if="score"
      v-model="points"
      class="field points"
      inputmode="decimal"
      :aria-label="$t('formula-settle-wish-points-out-of-10')"
    />
    <v-text-field
      v-model="within"
      class="field short"
      inputmode="decimal"
      :placeholder="$t('formula-settle-wish-any-time-in-the-oven')"
      :aria-label="$t('formula-settle-wish-longest-baking-time-min')"
      @change="setWithin"
    />
    <v-text-field
      v-model="thick"
      class="field short"
      inputmode="decimal"
      :placeholder="$t('formula-settle-wish-any-thickness', { unit })"
      :aria-label="$t('formula-settle-wish-max-thickness', { unit })"
      @change="setThick"
    />
    <label class="sure">
      <span>{{ $t('formula-settle-wish-targets', { step: steps[step]?.text }) }}</span>
      <v-slider
        v-model="step"
        :min="0"
        :max="steps.length - 1"
        :step="1"
        show-ticks="always"
        :aria-label="$t('formula-settle-wish-certainty')"
      />
    </label>
    <v-checkbox v-model="toTheGram" :label="$t('formula-settle-wish-exact-grams')" />
    <fieldset class="may">
      <legend>{{ $t('formula-settle-wish-allowed-to-change') }}</legend>
      <v-checkbox v-model="settle.wish.may_bring" :label="$t('formula-settle-wish-ingredients')" />
      <v-checkbox v-if="settle.wish.may_bring" v-model="settle.wish.only_stock" :label="$t('formula-settle-wish-only-from-my-stock')" />
      <v-checkbox v-model="settle.wish.may_change_mass" :label="$t('formula-settle-wish-dough-weight')" />
      <v-checkbox v-model="settle.wish.may_change_pieces" :label="$t('formula-settle-wish-how-many-pieces')" />
      <v-checkbox v-model="settle.wish.may_change_thickness" :label="$t('formula-settle-wish-how-thick')" />
    </fieldset>
  </form>
</template>

<style scoped>
.wish {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
}

.field {
  flex: none;
  width: 178px;
}

.wide {
  width: 230px;
}

.points {
  width: 60px;
}

.short {
  width: 178px;
}

.sure {
  display: grid;
  width: 178px;
  font-size: 13px;
}

.may {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 12px;
  margin: 0;
  padding: 0;
  border: 0;
}

.may legend {
  float: left;
  padding: 0;
  color: var(--ink-2);
}

@media (max-width: 700px) {
  .field,
  .sure {
    flex: 1 1 calc(50% - 12px);
    width: auto;
    min-width: 0;
  }
}
</style>
