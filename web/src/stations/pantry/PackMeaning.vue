<script setup lang="ts">
/** What a label means: the findings in sentences, every nutrient per 100 g with its band, what the pack does. */
import { computed } from 'vue'
import type { LabelDocument, Reading } from '@/api/types'
import CompositionBar from '@/components/pantry/CompositionBar.vue'
import { figure, money, range } from '@/domain/format'
import { useSession } from '@/stores/session'
import FigureBand from './FigureBand.vue'

const props = defineProps<{ reading: Reading; hasLabel: boolean; mayEdit: boolean }>()
defineEmits<{ mend: [label: LabelDocument]; ingredient: [key: string] }>()
const session = useSession()
const names: Record<string, [string, string]> = {
  water_g: ['Water', 'g'],
  protein_g: ['Protein', 'g'],
  fat_g: ['Fat', 'g'],
  saturates_g: ['Saturated fat', 'g'],
  carbohydrate_g: ['Total carbohydrate', 'g'],
  fibre_g: ['Fiber', 'g'],
  sugars_g: ['Sugars', 'g'],
  erythritol_g: ['Erythritol', 'g'],
  polyols_g: ['Other polyols', 'g'],
  allulose_g: ['Allulose', 'g'],
  sodium_mg: ['Sodium', 'mg'],
}
const bands = computed(() => props.reading.figures.filter((f) => f.nutrient in names && (f.value > 0.05 || f.bounds != null)))
const pack = computed(() => props.reading.pack)
const words = { wrong: 'Impossible:', odd: 'Check:', note: 'Note:' } as const
</script>

<template>
  <section class="meaning" aria-label="What the label means">
    <div class="findings" aria-live="polite">
      <p v-if="reading.mistake" class="mistake">
        <b>{{ reading.mistake.text }}</b>
        <v-btn v-if="reading.mistake.label && mayEdit" class="act-button" @click="$emit('mend', reading.mistake.label)"
          >Switch label style</v-btn
        >
        <v-btn
          v-else-if="reading.mistake.ingredient && mayEdit"
          class="act-button"
          @click="$emit('ingredient', reading.mistake.ingredient)"
        >
          Correct it
        </v-btn>
      </p>
      <ul class="said-list">
        <li v-for="f in reading.findings" :key="f.code" :class="f.severity" :data-code="f.code">
          <span class="note">{{ words[f.severity] }}</span> {{ f.text }}
        </li>
      </ul>
      <p v-if="reading.passes && hasLabel" class="sound">
        The label makes sense: the calories add up, its parts fit, and it is typical of
        {{ reading.reference.name.split(',')[0]?.toLowerCase() }}.
      </p>
      <p v-if="!hasLabel" class="note">No label entered yet. All values come from the reference.</p>
    </div>
    <div class="does">
      <CompositionBar :layers="pack.layers" :width="320" :height="22" />
      <p>
        <b class="figure">{{ figure(pack.net_carbs.value, 1) }}</b> g net carbs
        <span class="note">({{ range(pack.net_carbs.low, pack.net_carbs.high, 1) }}, {{ session.kitchen?.convention }})</span> against
        {{ figure(reading.reference.net_carbs.value, 1) }}
        <span class="note">({{ range(reading.reference.net_carbs.low, reading.reference.net_carbs.high, 1) }})</span> of the reference, in
        100 g
      </p>
      <p class="note">
        absorbs {{ figure(pack.capacity.value, 1) }} g water per g ({{ range(pack.capacity.low, pack.capacity.high, 1) }})<span
          v-if="pack.binding.value"
        >
          · binds like {{ figure(pack.binding.value, 1) }} eggs per 100 g</span
        ><span v-if="pack.g_per_cup"> · a cup weighs {{ figure(pack.g_per_cup, 0) }} g</span
        ><span v-if="pack.price_100g != null"> · {{ money(pack.price_100g) }} {{ session.kitchen?.currency }} per 100 g used</span>
      </p>
    </div>
    <table v-if="bands.length" class="bands">
      <caption class="note">
        Per 100 g. Bracket: range allowed by rounding on the label. Mark: most likely value. Shaded: reference range.
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
