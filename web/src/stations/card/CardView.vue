<script setup lang="ts">
/**
 * The Card decides whether and how the food is handed on. The eye falls on the panel, then on what may be claimed
 * and what must be warned of; an edit at the bench, a region switched or Ctrl P changes or prints the sheet.
 */
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { api, settled } from '@/api/client'
import type { FormulaDocument } from '@/api/types'
import FormulaFrame from '@/components/frame/FormulaFrame.vue'
import { useAsk } from '@/composables/useAsk'
import { useOpenFormula } from '@/composables/useOpenFormula'
import { figure, inWeight, range } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import CardOut from './CardOut.vue'
import BagSheet from './BagSheet.vue'
import LabelSheet from './LabelSheet.vue'
import PanelSheet from './PanelSheet.vue'
import RecipeSheet from './RecipeSheet.vue'
import { t } from '@/messages'

const props = defineProps<{ id: number }>()
const bench = useBench()
const region = ref<'us' | 'eu'>(localStorage.getItem('card region') === 'eu' ? 'eu' : 'us')
const ranges = ref(false)
const SIDES = [
  { id: 'recipe', name: t('card-card-view-recipe') },
  { id: 'panel', name: t('card-card-view-panel-and-allergens') },
  { id: 'label', name: t('card-card-view-pack-label') },
  { id: 'bags', name: t('card-card-view-premix-bags') },
] as const
type Side = (typeof SIDES)[number]['id']
const side = ref<Side>(SIDES.find((s) => s.id === localStorage.getItem('card side'))?.id ?? 'recipe')
watch(side, (now) => {
  localStorage.setItem('card side', now)
})
const batches = ref(1)
/** One of its sorts, as a recipe of its own; "" for all of them together. */
const wanted = ref('')
const sort = computed(() => (bench.document?.sorts?.some((own) => own.name === wanted.value) ? wanted.value : ''))
const { missing } = useOpenFormula(() => props.id)
watch(region, (now) => {
  localStorage.setItem('card region', now)
})

const settledDocument = refDebounced(
  computed(() => bench.document),
  200,
)
const asked = useAsk(
  () => ['card', settledDocument.value],
  (at) => settled(api.POST('/api/kitchens/{kitchen_id}/card', { params: { path: at }, body: settledDocument.value as FormulaDocument })),
  {
    keep: true,
    when: () => side.value === 'panel' && settledDocument.value !== null && bench.formulaId === props.id,
  },
)
const session = useSession()
const card = computed(() => (bench.formulaId === props.id ? asked.answer.value : null))

const panel = computed(() => (region.value === 'us' ? card.value?.us_panel : card.value?.eu_panel))
const net = computed(() => (region.value === 'us' ? card.value?.us_net_carbs : card.value?.eu_net_carbs))
const statement = computed(() => (region.value === 'us' ? card.value?.us_statement : card.value?.eu_statement))
const listed = computed(() => card.value?.allergens.filter((a) => a.regions.includes(region.value)) ?? [])
const toRead = computed(
  () =>
    bench.analysis?.lines
      .filter((l) => statement.value?.to_read.includes(l.id))
      .map((l) => l.name.split(',')[0]?.toLowerCase())
      .join(', ') ?? '',
)
const print = (): void => {
  window.print()
}
</script>

<template>
  <FormulaFrame :missing="missing" :balance="false">
    <div class="card">
      <div class="tools">
        <div role="radiogroup" :aria-label="$t('card-card-view-card-section')" class="regions">
          <v-btn
            v-for="s in SIDES"
            :key="s.id"
            role="radio"
            :aria-checked="side === s.id"
            class="quiet-button"
            :class="{ on: side === s.id }"
            @click="side = s.id"
            >{{ s.name }}</v-btn
          >
        </div>
        <label v-if="side === 'recipe'" class="note"
          ><input
            v-model.number="batches"
            type="number"
            min="0.5"
            max="200"
            step="0.5"
            class="batches"
            :aria-label="$t('card-card-view-batches')"
          />{{ $t('card-card-view-batches-2') }}</label
        >
        <label v-if="side === 'recipe' && bench.document?.sorts?.length" class="note"
          >{{ $t('card-card-view-sort') }}
          <select v-model="wanted" :aria-label="$t('card-card-view-variety')">
            <option value="">{{ $t('card-card-view-all-varieties') }}</option>
            <option v-for="own in bench.document.sorts" :key="own.name" :value="own.name">{{ own.name }}</option>
          </select></label
        >
        <div v-if="side === 'panel' || side === 'label'" role="radiogroup" :aria-label="$t('card-card-view-region')" class="regions">
          <v-btn
            v-for="r in ['us', 'eu'] as const"
            :key="r"
            role="radio"
            :aria-checked="region === r"
            class="quiet-button"
            :class="{ on: region === r }"
            @click="region = r"
          >
            {{ r === 'us' ? $t('card-card-view-united-states') : $t('card-card-view-european-union') }}
          </v-btn>
        </div>
        <v-checkbox v-if="side === 'panel'" v-model="ranges" :label="$t('card-card-view-show-how-rounding-could-differ')" />
        <span class="spring" />
        <v-btn class="act-button" @click="print">{{ $t('card-card-view-print') }}</v-btn>
      </div>
      <template v-if="settledDocument && bench.formulaId === id">
        <template v-if="side === 'recipe'">
          <CardOut :id="id" :document="settledDocument" :batches="batches || 1" :sort="sort" />
          <RecipeSheet :document="settledDocument" :batches="batches || 1" :sort="sort" />
        </template>
        <LabelSheet v-else-if="side === 'label'" :document="settledDocument" :region="region" />
        <BagSheet v-else-if="side === 'bags'" :document="settledDocument" />
      </template>
      <template v-if="side === 'panel'">
        <p v-if="asked.trouble.value" role="alert" class="act">{{ asked.trouble.value }}</p>
        <div v-if="!card && !asked.trouble.value" class="skeleton wait" />
        <article v-else-if="card" class="sheet">
          <header>
            <h2>{{ card.name }}</h2>
            <p>
              {{
                $t('card-card-view-of-about-baked', {
                  form: card.form,
                  pieces: card.pieces,
                  piece_g: inWeight(card.piece_g.value, session.units),
                })
              }}
              <span v-if="net"
                >· <b>{{ $t('card-card-view-g-net-carbs', { estimate: figure(net.estimate.value, 1) }) }}</b>
                {{ $t('card-card-view-per-piece') }}
                <span class="note">({{ range(net.estimate.low, net.estimate.high, 1) }}; {{ net.rule }})</span></span
              >
            </p>
            <p v-if="card.problems.length" class="act">
              {{ $t('card-card-view-missing-from-these-figures-fix-in', { problems: card.problems.length }) }}
            </p>
          </header>
          <div class="columns">
            <PanelSheet v-if="panel" :panel="panel" :ranges="ranges" />
            <div class="words">
              <h3>{{ $t('card-card-view-ingredients') }}</h3>
              <p class="statement">
                <span v-for="(part, i) in statement?.parts" :key="i"
                  ><strong v-if="part.strong">{{ part.text }}</strong
                  ><span v-else>{{ part.text }}</span></span
                >
              </p>
              <p v-if="statement?.contains" class="contains">{{ statement.contains }}</p>
              <p v-if="toRead" class="note no-print">
                {{ $t('card-card-view-shown-with-typical-sub-ingredients-enter', { to_read: toRead }) }}
              </p>
              <h3>{{ $t('card-card-view-allergens') }}</h3>
              <p class="chips">
                <span v-for="a in listed" :key="a.name" class="chip"
                  >{{ a.traces ? $t('card-card-view-may-contain') + ' ' : '' }}{{ a.name }}</span
                ><span v-if="!listed.length" class="note">{{ $t('card-card-view-none-of-the-listed-allergens') }}</span>
              </p>
              <h3>{{ $t('card-card-view-claims-you-can-make') }}</h3>
              <p class="chips">
                <span v-for="c in card.claims" :key="c.key" class="chip holds" :title="c.basis">{{ c.name }}</span><span
                  v-if="!card.claims.length"
                  class="note"
                  >{{ $t('card-card-view-no-claims-possible-without-more-certified') }}</span
                >
              </p>
              <ul class="unsure no-print">
                <li v-for="c in card.unsure" :key="c.key">{{ c.text }}</li>
              </ul>
              <h3>{{ $t('card-card-view-cautions') }}</h3>
              <ul>
                <li v-for="c in card.cautions" :key="c.text" :title="c.source">{{ c.text }}</li>
              </ul>
            </div>
          </div>
        </article>
      </template>
    </div>
  </FormulaFrame>
</template>

<style scoped>
.card {
  padding-right: 16px;
}

.tools {
  display: flex;
  align-items: center;
  gap: 16px;
  margin-bottom: 12px;
}

.tools label {
  display: flex;
  align-items: center;
  gap: 5px;
}

.tools input {
  accent-color: var(--act);
}

.regions {
  display: flex;
  gap: 6px;
}

.on {
  border-color: var(--act);
  box-shadow: inset 0 0 0 1px var(--act);
  font-weight: 650;
}

.batches {
  width: 64px;
  padding: 4px 6px;
  border: 1px solid var(--rule-strong);
  border-radius: 7px;
  background: var(--panel);
  color: var(--ink);
  font: inherit;
}

.spring {
  flex: 1;
}

.sheet {
  padding: 20px 24px 26px;
  border: 1px solid var(--rule);
  border-radius: 10px;
  background: var(--panel);
}

h2 {
  font-size: 26px;
}

header p {
  margin: 2px 0 0;
}

.columns {
  display: grid;
  grid-template-columns: minmax(300px, 380px) minmax(0, 1fr);
  gap: 30px;
  align-items: start;
  margin-top: 16px;
}

.words h3 {
  margin-bottom: 3px;
  font-size: 15px;
}

.words p {
  margin: 0 0 10px;
}

.contains {
  font-weight: 700;
}

.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}

.chip {
  padding: 1px 9px;
  border: 1px solid var(--rule-strong);
  border-radius: 6px;
  font-size: 13px;
}

.chip.holds {
  border-color: var(--in);
  background: var(--in-soft);
}

ul {
  margin: 0 0 10px;
  padding: 0 0 0 14px;
  font-size: 13px;
}

.unsure {
  color: var(--ink-2);
}

.wait {
  height: 60vh;
}

@media (max-width: 700px) {
  .card {
    padding: 0;
  }

  .tools {
    flex-wrap: wrap;
  }

  .columns {
    grid-template-columns: 1fr;
  }
}

@media print {
  .tools,
  .no-print {
    display: none;
  }

  /* A printer cuts what lies on the very edge: borders, and the marks of a list. */
  .sheet {
    border: 0;
    padding: 4mm;
  }
}
</style>
