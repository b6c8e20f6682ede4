<script setup lang="ts">
/**
 * A formula from nothing: what is baked, what a piece may hold, what is not eaten. The eye falls on the shapes; the next press
 * makes three or four doughs on different bases, and one more opens one of them on the bench.
 */
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, settled } from '@/api/client'
import type { Beginning } from '@/api/types'
import { useDo } from '@/composables/useDo'
import { useJob } from '@/composables/useJob'
import { weight, weightUnit } from '@/domain/format'
import { useSession } from '@/stores/session'

const session = useSession()
const route = useRoute()
const router = useRouter()
const jobs = useJob()
const form = ref(typeof route.query.form === 'string' && route.query.form ? route.query.form : 'bun')
const carbs = ref('')
const protein = ref('')
const pieces = ref('')
const without = ref<string[]>([])
const stock = ref(false)
const forms = computed(() => (session.words?.forms ?? []).map((f) => ({ value: f.id, title: f.name })))
const leave = computed(() => (session.words?.exclusions ?? []).map((e) => ({ value: e.id, title: e.name })))
const made = computed<readonly Beginning[] | null>(() => (jobs.job.value?.state === 'done' ? (jobs.job.value.beginnings ?? null) : null))
const number = (text: string): number | null => {
  const value = Number(text.trim().replace(',', '.'))
  return text.trim() && Number.isFinite(value) ? value : null
}

function start(): void {
  const targets: Record<string, { low: number | null; high: number | null }> = {}
  if (number(carbs.value) !== null) targets.net_carbs = { low: null, high: number(carbs.value) }
  if (number(protein.value) !== null) targets.protein = { low: number(protein.value), high: null }
  void jobs.start({
    kind: 'begin',
    form: form.value,
    targets,
    without: without.value,
    pieces: number(pieces.value),
    only_stock: stock.value,
  })
}
const creating = useDo(
  (beginning: Beginning, at) =>
    settled(api.POST('/api/kitchens/{kitchen_id}/formulas', { params: { path: at }, body: beginning.document })),
  { then: (out) => router.push(`/formula/${out.id}`) },
)
const grams = (g: number | null | undefined): string => (g == null ? '' : `${weight(g, session.units)} ${weightUnit(session.units)}`)
</script>

<template>
  <div class="begin">
    <h2>{{ $t('formula-begin-view-new-formula-from-a-shape') }}</h2>
    <p class="lead">{{ $t('formula-begin-view-what-do-you-want-to-bake') }}</p>
    <form class="asked" :aria-label="$t('formula-begin-view-requirements')" @submit.prevent="start">
      <label class="note"
        >{{ $t('formula-begin-view-shape')
        }}<v-select v-model="form" class="field" :aria-label="$t('formula-begin-view-shape')" :items="forms"
      /></label>
      <label class="note"
        >{{ $t('formula-begin-view-max-net-carbs-g-per-piece')
        }}<v-text-field v-model="carbs" class="field" inputmode="decimal" :placeholder="$t('formula-begin-view-as-usual')"
      /></label>
      <label class="note"
        >{{ $t('formula-begin-view-min-protein-g-per-piece')
        }}<v-text-field v-model="protein" class="field" inputmode="decimal" :placeholder="$t('formula-begin-view-as-usual')"
      /></label>
      <label class="note"
        >{{ $t('formula-begin-view-pieces')
        }}<v-text-field v-model="pieces" class="field" inputmode="numeric" :placeholder="$t('formula-begin-view-as-usual')"
      /></label>
      <label class="note"
        >{{ $t('formula-begin-view-without')
        }}<v-select
          v-model="without"
          class="field"
          multiple
          :aria-label="$t('formula-begin-view-exclude')"
          :placeholder="$t('formula-begin-view-nothing-excluded')"
          :items="leave"
      /></label>
      <v-checkbox v-model="stock" :label="$t('formula-begin-view-only-from-my-stock')" />
      <v-btn class="act-button" type="submit" :disabled="!session.may('formulas.edit') || jobs.underWay.value">{{
        $t('formula-begin-view-suggest-formulas')
      }}</v-btn>
    </form>
    <p v-if="jobs.underWay.value" role="status">{{ $t('formula-begin-view-balancing-a-few-formulas') }}</p>
    <p v-if="jobs.trouble.value" class="act" role="alert">{{ jobs.trouble.value }}</p>
    <p v-if="made && !made.length">
      {{
        $t('formula-begin-view-none-of-our-starter-formulas-works', {
          stock: stock ? $t('formula-begin-view-with-what-you-have-in-stock') : $t('formula-begin-view-with-all-of-that-excluded'),
        })
      }}
    </p>
    <ul v-if="made?.length" class="made" :aria-label="$t('formula-begin-view-suggested-formulas')">
      <li v-for="b in made" :key="b.name">
        <h3>{{ b.name }}</h3>
        <p class="note" :class="{ about: !b.met }">{{ b.text }}</p>
        <table class="figures">
          <thead>
            <tr>
              <th scope="col">{{ $t('formula-begin-view-ingredient') }}</th>
              <th scope="col">{{ $t('formula-begin-view-weight') }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="line in b.weights" :key="line.name">
              <th scope="row">{{ line.name }}</th>
              <td>{{ grams(line.grams) }}</td>
            </tr>
          </tbody>
        </table>
        <v-btn class="act-button" :disabled="creating.busy.value" @click="creating.run(b)">{{
          $t('formula-begin-view-use-this-formula')
        }}</v-btn>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.begin {
  height: 100%;
  padding: 22px 28px 40px;
  overflow-y: auto;
}

h2 {
  font-size: 22px;
}

.lead {
  margin: 4px 0 14px;
  font-size: 17px;
}

.asked {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 12px 16px;
  margin-bottom: 20px;
}

label {
  display: grid;
  gap: 3px;
}

.field {
  width: 190px;
  color: var(--ink);
}

@media (max-width: 700px) {
  .begin {
    padding-inline: 12px;
  }

  .asked {
    display: grid;
    grid-template-columns: 1fr 1fr;
  }

  .field {
    width: 100%;
  }
}

.made {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(270px, 1fr));
  gap: 14px;
  margin: 0;
  padding: 0;
  list-style: none;
}

.made li {
  padding: 14px 18px;
  border: 1px solid var(--rule);
  border-radius: 12px;
  background: var(--panel);
}

h3 {
  font-size: 17px;
}

.figures {
  width: 100%;
  margin: 8px 0 12px;
}
</style>
