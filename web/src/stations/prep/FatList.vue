<script setup lang="ts">
/** Smoke points against the oil's temperature; a press takes the fat for the formula. */
import type { FryingFat } from '@/api/types'
import { temperature } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

defineProps<{ fats: readonly FryingFat[] }>()
const bench = useBench()
const session = useSession()
const words: Record<string, string> = {
  good: t('prep-fat-list-well-below-its-smoke-point'),
  near: t('prep-fat-list-near-its-smoke-point'),
  smokes: 'smokes',
}
const take = (ingredient: string): void => {
  bench.edit((doc) => ({ ...doc, bake: { fried: '', ...doc.bake, frying_fat: ingredient } as NonNullable<typeof doc.bake> }))
}
</script>

<template>
  <ul>
    <li v-for="f in fats" :key="f.ingredient" :class="f.verdict">
      <v-btn
        :disabled="!bench.mayEdit"
        :aria-pressed="bench.document?.bake?.frying_fat === f.ingredient"
        :title="`${f.taste}; ${f.source}`"
        @click="take(f.ingredient)"
      >
        <b>{{ f.name.split(',')[0] }}</b>{{ ' '
        }}<span class="note">{{ temperature(f.smoke_c, session.units) }}, {{ words[f.verdict] }}</span>
      </v-btn>
    </li>
  </ul>
</template>

<style scoped>
ul {
  display: grid;
  grid-template-columns: 1fr;
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 13px;
}

li {
  padding-left: 8px;
  border-left: 3px solid var(--in);
}

li.near {
  border-left-style: dashed;
}

li.smokes {
  border-left-color: var(--act);
  opacity: 0.75;
}

button[aria-pressed='true'] b {
  text-decoration: underline;
  text-underline-offset: 3px;
}
</style>
