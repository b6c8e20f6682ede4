<script setup lang="ts">
/** What a label means: the findings in sentences, every nutrient per 100 g with its band, what the pack does. */
import { computed } from 'vue'
import type { LabelDocument, Reading } from '@/api/types'
import CompositionBar from '@/components/pantry/CompositionBar.vue'
import { figure, money, range } from '@/domain/format'
import { useSession } from '@/stores/session'
import FigureBand from './FigureBand.vue'
import { t } from '@/messages'

const props = defineProps<{ reading: Reading; hasLabel: boolean; mayEdit: boolean }>()
defineEmits<{ mend: [label: LabelDocument]; ingredient: [key: string] }>()
const session = useSession()
const names: Record<string, [string, string]> = {
  water_g: [t('pantry-pack-meaning-water'), 'g'],
  protein_g: [t('pantry-pack-meaning-protein'), 'g'],
  fat_g: [t('pantry-pack-meaning-fat'), 'g'],
  saturates_g: [t('pantry-pack-meaning-saturated-fat'), 'g'],
  carbohydrate_g: [t('pantry-pack-meaning-total-carbohydrate'), 'g'],
  fibre_g: [t('pantry-pack-meaning-fiber'), 'g'],
  sugars_g: [t('pantry-pack-meaning-sugars'), 'g'],
  erythritol_g: [t('pantry-pack-meaning-erythritol'), 'g'],
  polyols_g: [t('pantry-pack-meaning-other-polyols'), 'g'],
  allulose_g: [t('pantry-pack-meaning-allulose'), 'g'],
  sodium_mg: [t('pantry-pack-meaning-sodium'), 'mg'],
}
const bands = computed(() => props.reading.figures.filter((f) => f.nutrient in names && (f.value > 0.05 || f.bounds != null)))
const pack = computed(() => props.reading.pack)
const words = {
  wrong: t('pantry-pack-meaning-impossible'),
  odd: t('pantry-pack-meaning-check'),
  note: t('pantry-pack-meaning-note'),
} as const
</script>

<template>
  <section class="meaning" :aria-label="$t('pantry-pack-meaning-what-the-label-means')">
    <div class="findings" aria-live="polite">
      <p v-if="reading.mistake" class="mistake">
        <b>{{ reading.mistake.text }}</b>
        <v-btn v-if="reading.mistake.label && mayEdit" class="act-button" @click="$emit('mend', reading.mistake.label)">{{
          $t('pantry-pack-meaning-switch-label-style')
        }}</v-btn>
        <v-btn
          v-else-if="reading.mistake.ingredient && mayEdit"
          class="act-button"
          @click="$emit('ingredient', reading.mistake.ingredient)"
          >{{ $t('pantry-pack-meaning-correct-it') }}</v-btn
        >
      </p>
      <ul class="said-list">
        <li v-for="f in reading.findings" :key="f.code" :class="f.severity" :data-code="f.code">
          <span class="note">{{ words[f.severity] }}</span> {{ f.text }}
        </li>
      </ul>
      <p v-if="reading.passes && hasLabel" class="sound">
        {{ $t('pantry-pack-meaning-the-label-makes-sense-the-calories', { split: reading.reference.name.split(',')[0]?.toLowerCase() }) }}
      </p>
      <p v-if="!hasLabel" class="note">{{ $t('pantry-pack-meaning-no-label-entered-yet-all-values') }}</p>
    </div>
    <div class="does">
      <CompositionBar :layers="pack.layers" :width="320" :height="22" />
      <p>
        <b class="figure">{{ figure(pack.net_carbs.value, 1) }}</b> {{ $t('pantry-pack-meaning-g-net-carbs') }}
        <span class="note">({{ range(pack.net_carbs.low, pack.net_carbs.high, 1) }}, {{ session.kitchen?.convention }})</span>
        {{ $t('pantry-pack-meaning-against', { net_carbs: figure(reading.reference.net_carbs.value, 1) }) }}
        <span class="note">({{ range(reading.reference.net_carbs.low, reading.reference.net_carbs.high, 1) }})</span>
        {{ $t('pantry-pack-meaning-of-the-reference-in-100-g') }}
      </p>
      <p class="note">
        {{
          $t('pantry-pack-meaning-absorbs-g-water-per-g', {
            capacity: figure(pack.capacity.value, 1),
            high: range(pack.capacity.low, pack.capacity.high, 1),
          })
        }}<span v-if="pack.binding.value">
          {{ $t('pantry-pack-meaning-binds-like-eggs-per-100-g', { binding: figure(pack.binding.value, 1) }) }}</span
        ><span v-if="pack.g_per_cup"> {{ $t('pantry-pack-meaning-a-cup-weighs-g', { g_per_cup: figure(pack.g_per_cup, 0) }) }}</span
        ><span v-if="pack.price_100g != null">
          {{ $t('pantry-pack-meaning-per-100-g-used', { price_100g: money(pack.price_100g), currency: session.kitchen?.currency }) }}</span
        >
      </p>
    </div>
    <table v-if="bands.length" class="bands">
      <caption class="note">
        {{
          $t('pantry-pack-meaning-per-100-g-bracket-range-allowed')
        }}
      </caption>
      <tbody>
        <FigureBand
          v-for="f in bands"
          :key="f.nutrient"
          :figure="f"
          :name="names[f.nutrient]?.[0] ?? f.nutrient"
          :unit="names[f.nutrient]?.[1] ?? ''"
        />
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.findings {
  min-height: 44px;
}

p {
  margin: 0 0 4px;
}

.mistake {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 14px;
  padding: 8px 12px;
  border-radius: 8px;
  background: var(--act-soft);
}

.mistake .act-button {
  flex: none;
}

li.wrong {
  border-left-color: var(--act);
}

li.odd {
  border-left-style: double;
  border-left-color: var(--act);
}

.sound {
  padding-left: 12px;
  border-left: 3px solid var(--in);
}

.does {
  margin: 12px 0;
}

.does p {
  margin-top: 6px;
}

.bands {
  border-collapse: collapse;
  font-size: 13px;
}

caption {
  padding-bottom: 4px;
  text-align: left;
}
</style>
