<script setup lang="ts">
/** Whose day is kept in mind: a name and a few amounts. The kitchen sets its own; this is no medical advice. */
import { computed } from 'vue'
import { api, settled } from '@/api/client'
import type { Eater } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

const session = useSession()
const bench = useBench()
const asked = useAsk(
  () => ['eaters'],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/eaters', { params: { path: at } })),
)
const eaters = computed<Eater[]>(() => [...(asked.answer.value ?? [])])
const keeping = useDo(
  (next: Eater[], at) =>
    settled(api.PUT('/api/kitchens/{kitchen_id}/eaters', { params: { path: at }, body: { eaters: next, seen: eaters.value } })),
  {
    then: async () => {
      await asked.again()
      bench.askAgain()
    },
  },
)
const keep = (next: Eater[]): Promise<unknown> => keeping.run(next)

function setBudget(at: number, key: string, text: string): void {
  const plain = text.trim().replace(',', '.')
  const amount = plain === '' || !Number.isFinite(Number(plain)) ? null : Number(plain)
  void keep(eaters.value.map((e, i) => (i === at ? { ...e, budgets: { ...e.budgets, [key]: amount } } : e)))
}

function add(): void {
  const first = session.words?.budgets[0]
  void keep([
    ...eaters.value,
    { name: t('frame-kitchen-eaters-eater', { eaters: eaters.value.length + 1 }), budgets: first ? { [first.id]: first.usual } : {} },
  ])
}
</script>

<template>
  <details class="eaters">
    <summary>
      {{ $t('frame-kitchen-eaters-daily-limits') }}
      <span class="note">{{ eaters.map((e) => e.name).join(', ') || $t('frame-kitchen-eaters-nobody') }}</span>
    </summary>
    <div v-for="(e, i) in eaters" :key="i" class="eater">
      <span class="who"
        ><v-text-field
          class="field"
          :model-value="e.name"
          maxlength="40"
          :aria-label="$t('frame-kitchen-eaters-name')"
          :readonly="!session.may('diets.edit')"
          @change="keep(eaters.map((x, j) => (j === i ? { ...x, name: ($event.target as HTMLInputElement).value } : x)))"
        />
        <v-btn v-if="session.may('diets.edit')" class="note" @click="keep(eaters.filter((_, j) => j !== i))">{{
          $t('frame-kitchen-eaters-remove')
        }}</v-btn></span
      >
      <label v-for="b in session.words?.budgets" :key="b.id" class="note"
        >{{ b.name.toLowerCase() }}, {{ b.unit }}
        <v-text-field
          class="field"
          inputmode="decimal"
          :model-value="e.budgets?.[b.id] ?? ''"
          :placeholder="String(b.usual)"
          :readonly="!session.may('diets.edit')"
          @change="setBudget(i, b.id, ($event.target as HTMLInputElement).value)"
      /></label>
    </div>
    <v-btn v-if="session.may('diets.edit') && eaters.length < 6" class="quiet-button" @click="add">{{
      $t('frame-kitchen-eaters-add-an-eater')
    }}</v-btn>
    <p class="note">{{ $t('frame-kitchen-eaters-daily-amounts-that-you-set-yourself') }}</p>
  </details>
</template>

<style scoped>
.eaters {
  margin: 10px 0;
}

summary {
  cursor: pointer;
}

.eater {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 4px 8px;
  margin: 8px 0;
}

.who {
  display: flex;
  grid-column: 1 / -1;
  gap: 8px;
}

.field {
  --field-height: 28px;
  color: var(--ink);
}
</style>
