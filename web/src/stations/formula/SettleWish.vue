<script setup lang="ts">
/** What is wanted besides the targets on the rulers: what to leave out, how it handles, what it eats like, and what may change. */
import { computed, ref, watch } from 'vue'
import { useSession } from '@/stores/session'
import { useSettle } from '@/stores/settle'

const session = useSession()
const settle = useSettle()
const leave = computed(() => (session.words?.exclusions ?? []).map((e) => ({ value: e.id, title: e.name })))
const classes = computed(() => [
  { value: '', title: 'handles as usual' },
  ...(session.words?.handling_classes ?? []).map((name) => ({ value: name, title: `${name} at shaping` })),
])
const scores = computed(() => [
  { value: '', title: 'eats as it does' },
  ...(session.words?.textures ?? []).flatMap((t) => [
    { value: `${t.id}+`, title: `${t.name.toLowerCase()} at least` },
    { value: `${t.id}-`, title: `${t.name.toLowerCase()} at most` },
  ]),
])
const margins = [
  { value: 0, title: 'targets just met' },
  { value: 0.5, title: 'met more surely' },
  { value: 1, title: 'met much more surely' },
]
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
const within = ref(settle.wish.minutes_most ? `within ${settle.wish.minutes_most} min` : '')
function setWithin(): void {
  const value = Number(within.value.replace(',', '.').replace(/[^\d.]/g, ''))
  settle.wish.minutes_most = value > 0 ? value : null
  within.value = value > 0 ? `within ${value} min` : ''
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
  <form class="wish" aria-label="Wishes" @submit.prevent="settle.start()">
    <v-select
      v-model="settle.wish.without"
      class="field wide"
      multiple
      aria-label="Leave out"
      placeholder="leave nothing out"
      :items="leave"
    >
      <template #selection="{ item, index }">
        <span>{{ index ? ', ' : 'without ' }}{{ item.title }}</span>
      </template>
    </v-select>
    <v-select v-model="settle.wish.handling" class="field" aria-label="Handling" :items="classes" />
    <v-select v-model="score" class="field" aria-label="Texture" :items="scores" />
    <v-text-field v-if="score" v-model="points" class="field points" inputmode="decimal" aria-label="Points of ten" />
    <v-text-field
      v-model="within"
      class="field short"
      inputmode="decimal"
      placeholder="any time in the oven"
      aria-label="Baked within so many minutes"
      @change="setWithin"
    />
    <v-select v-model="settle.wish.margin" class="field short" aria-label="How sure" :items="margins" />
    <v-checkbox v-model="settle.wish.may_bring" label="may bring something new" />
    <v-checkbox v-if="settle.wish.may_bring" v-model="settle.wish.only_stock" label="only from my stock" />
    <v-checkbox v-model="settle.wish.may_change_mass" label="may weigh more or less" />
    <v-checkbox v-model="toTheGram" label="to the gram" />
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
</style>
