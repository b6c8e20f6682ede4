<script setup lang="ts">
/** A reference ingredient: every number with its range and its source, and the packs the kitchen has of it. */
import { computed } from 'vue'
import { api, settled } from '@/api/client'
import CompositionBar from '@/components/pantry/CompositionBar.vue'
import { useAsk } from '@/composables/useAsk'
import { figure, range } from '@/domain/format'
import { useSession } from '@/stores/session'
import PantryBar from './PantryBar.vue'
import PantryRows from './PantryRows.vue'

const props = defineProps<{ id: string }>()
const session = useSession()
const page = useAsk(
  () => ['ingredient', props.id],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/ingredients/{ingredient}', { params: { path: { ...at, ingredient: props.id } } })),
)
const nutrients = computed(() => (page.answer.value?.composition ?? []).filter((f) => f.value > 0))
const unit = (nutrient: string): string => ({ g: 'g', mg: 'mg', ug: 'µg' })[nutrient.split('_').at(-1) ?? 'g'] ?? ''
const word = (key: string): string => key.replace(/_(g|mg|ug)$/, '').replaceAll('_', ' ')
const digits = (value: number): number => (value >= 100 ? 0 : value >= 10 ? 1 : 2)
</script>

<template>
  <div class="page">
    <PantryBar :title="page.answer.value?.compared.name ?? $t('pantry-ingredient-view-ingredient')">
      <router-link v-if="session.may('packs.edit') && page.answer.value" class="quiet-button" :to="`/pantry/packs/new?ingredient=${id}`">{{
        $t('pantry-ingredient-view-add-a-pack-of-this-ingredient')
      }}</router-link>
    </PantryBar>
    <p v-if="page.missing.value" class="page-blank" role="alert">{{ page.trouble.value }}</p>
    <div v-else-if="page.answer.value" class="page-sheet">
      <CompositionBar :layers="page.answer.value.compared.layers" :width="420" :height="24" />
      <p class="note">
        {{
          $t('pantry-ingredient-view-in-100-g', {
            grams: page.answer.value.compared.layers
              .filter((l) => l.grams >= 0.5)
              .map((l) => `${l.name.toLowerCase()} ${figure(l.grams, 1)}`)
              .join(' · '),
          })
        }}
      </p>
      <p v-if="page.answer.value.note" class="said">{{ page.answer.value.note }}</p>
      <PantryRows
        v-if="page.answer.value.packs.length"
        :rows="page.answer.value.packs"
        :title="$t('pantry-ingredient-view-packs-earliest-use-by-first')"
      />
      <div class="tables">
        <table>
          <caption>
            {{
              $t('pantry-ingredient-view-composition-per-100-g')
            }}
            <span class="note">{{ page.answer.value.compared.source }}</span>
          </caption>
          <tbody>
            <tr v-for="f in nutrients" :key="f.nutrient">
              <th>{{ word(f.nutrient) }}</th>
              <td>
                <b>{{ figure(f.value, digits(f.value)) }}</b> {{ unit(f.nutrient) }}
              </td>
              <td class="note">{{ f.sd ? range(f.reference.low, f.reference.high, digits(f.value)) : '' }}</td>
            </tr>
          </tbody>
        </table>
        <div>
          <table>
            <caption>
              {{
                $t('pantry-ingredient-view-function-in-dough')
              }}
            </caption>
            <tbody>
              <tr v-for="p in page.answer.value.parameters" :key="p.name">
                <th>{{ word(p.name) }}</th>
                <td>
                  <b>{{ figure(p.value, digits(p.value)) }}</b> {{ p.unit }}
                </td>
                <td class="note">{{ range(p.low, p.high, digits(p.value)) }}</td>
                <td class="note source">{{ p.source }}{{ p.note ? `; ${p.note}` : '' }}</td>
              </tr>
            </tbody>
          </table>
          <table>
            <caption>
              {{
                $t('pantry-ingredient-view-measures')
              }}
            </caption>
            <tbody>
              <tr v-for="m in page.answer.value.measures" :key="m.name">
                <th>{{ m.name }}</th>
                <td>
                  <b>{{ figure(m.value, digits(m.value)) }}</b> g
                </td>
                <td class="note">{{ range(m.low, m.high, digits(m.value)) }}</td>
                <td class="note source">{{ m.source }}</td>
              </tr>
            </tbody>
          </table>
          <p v-if="page.answer.value.aliases.length" class="note">
            {{ $t('pantry-ingredient-view-also-called', { aliases: page.answer.value.aliases.join(', ') }) }}
          </p>
        </div>
      </div>
    </div>
  </div>
</template>

<style scoped>
.said {
  max-width: 640px;
}

.tables {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.3fr);
  gap: 40px;
  margin-top: 18px;
}

table {
  border-collapse: collapse;
  font-size: 13px;
}

.tables table + table {
  margin-top: 18px;
}

caption {
  padding-bottom: 4px;
  font: 700 15px/1.3 var(--head);
  text-align: left;
}

.tables th {
  padding: 3px 16px 3px 0;
  font-weight: 400;
  text-align: left;
}

.tables td {
  padding: 3px 14px 3px 0;
  white-space: nowrap;
}

.tables tr {
  border-top: 1px solid var(--rule);
}

.tables .source {
  white-space: normal;
}

a {
  text-decoration: none;
}

@media (max-width: 700px) {
  .tables {
    display: block;
    height: auto;
    overflow: visible;
  }
}
</style>
