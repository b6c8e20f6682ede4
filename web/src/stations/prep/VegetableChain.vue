<script setup lang="ts">
/** The vegetable as a stratum that loses its water, step by step, and the ways of drying it side by side. */
import { computed } from 'vue'
import QuantityField from '@/components/frame/QuantityField.vue'
import type { DryingStep, VegetableDrying } from '@/api/types'
import { linear } from '@/domain/chart'
import { withLine } from '@/domain/edits'
import { figure, inWeight, weight, weightUnit } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

const props = defineProps<{ drying: VegetableDrying }>()
const emit = defineEmits<{ weighing: [] }>()
const bench = useBench()
const session = useSession()

const TALL = 120
const words: Record<string, string> = {
  start: 'raw',
  salt: 'salted',
  microwave: 'microwaved',
  pan: 'panned',
  cook: 'cooked',
  squeeze: 'squeezed',
}
const stages = computed(() => props.drying.dried?.stages ?? [])
const most = computed(() => Math.max(...stages.value.map((s) => s.grams), 1))
const px = computed(() => linear([0, most.value], [0, TALL]))
const left = (steam: number, juice: number): string =>
  [
    steam > 1 ? t('prep-vegetable-chain-steam', { steam: inWeight(steam, session.units) }) : '',
    juice > 1 ? t('prep-vegetable-chain-juice', { juice: inWeight(juice, session.units) }) : '',
  ]
    .filter(Boolean)
    .join(', ')
interface Prep {
  steps: DryingStep[]
  start_g: number | null
  weighed: boolean
}
const prep = computed<Prep>(() => {
  const held = bench.lines.find((l) => l.id === props.drying.line)?.prep
  return { steps: (held?.steps ?? []) as DryingStep[], start_g: held?.start_g ?? null, weighed: held?.weighed ?? false }
})

function set(change: Partial<Prep> | null, grams?: number): void {
  bench.edit((doc) =>
    withLine(doc, props.drying.line, {
      prep: change ? { ...bench.lines.find((l) => l.id === props.drying.line)?.prep, ...prep.value, ...change } : null,
      ...(grams === undefined ? {} : { grams, entered: `${grams} g` }),
    }),
  )
}
function setStep(index: number, change: Partial<DryingStep>): void {
  set({ steps: prep.value.steps.map((s, i) => (i === index ? { ...s, ...change } : s)), weighed: false })
}
function weighed(grams: number | null): void {
  if (grams === null) return
  emit('weighing')
  set({ start_g: props.drying.start_g, weighed: true }, grams)
}
</script>

<template>
  <div class="chain">
    <svg
      v-if="stages.length"
      class="columns"
      :viewBox="`0 0 ${stages.length * 108} ${TALL + 44}`"
      role="img"
      :aria-label="
        stages
          .map((s) =>
            $t('prep-vegetable-chain-including-water', {
              act: words[s.act],
              grams: inWeight(s.grams, session.units),
              water_g: inWeight(s.water_g, session.units),
            }),
          )
          .join('; ')
      "
    >
      <g v-for="(s, i) in stages" :key="i" :transform="`translate(${i * 108} 0)`">
        <rect x="6" :y="16 + TALL - px(s.grams)" width="58" :height="px(s.water_g)" class="water" />
        <rect x="6" :y="16 + TALL - px(s.solids_g)" width="58" :height="px(s.solids_g)" fill="url(#hatch-vegetable)" class="solids" />
        <line v-if="s.high > s.low + 1" x1="70" x2="70" :y1="16 + TALL - px(s.high)" :y2="16 + TALL - px(s.low)" class="range" />
        <text x="35" :y="11 + TALL - px(s.grams)" text-anchor="middle" class="grams">
          {{ inWeight(s.grams, session.units) }}
        </text>
        <text x="35" :y="TALL + 30" text-anchor="middle">{{ words[s.act] }}</text>
        <text x="35" :y="TALL + 42" text-anchor="middle" class="lost">{{ left(s.steam_g, s.juice_g) }}</text>
      </g>
    </svg>
    <div class="settings">
      <div v-if="drying.steps.length" class="steps">
        <span v-for="(s, i) in prep.steps" :key="i" class="step note">
          {{ i + 1 }}. {{ s.act }}
          <label v-if="s.act !== 'squeeze'"
            ><QuantityField
              kind="minutes"
              :label="$t('prep-vegetable-chain-minutes', { act: s.act })"
              :value="s.minutes"
              :low="0"
              :disabled="!bench.mayEdit"
              @change="setStep(i, { minutes: $event ?? 0 })"
          /></label>
          <label v-if="s.act === 'microwave' || s.act === 'pan'"
            ><QuantityField
              kind="watts"
              :label="$t('prep-vegetable-chain-watts', { act: s.act })"
              :value="s.watts"
              :low="0"
              :disabled="!bench.mayEdit"
              @change="setStep(i, { watts: $event ?? 0 })"
          /></label>
          <label v-if="s.act === 'salt'"
            ><QuantityField
              kind="weight"
              :label="$t('prep-vegetable-chain-salt')"
              :value="s.salt_g ?? 0"
              :low="0"
              :disabled="!bench.mayEdit"
              @change="setStep(i, { salt_g: $event ?? 0 })"
            />
            {{ $t('prep-vegetable-chain-salt') }}</label
          >
          <label v-if="s.act === 'squeeze'"
            ><QuantityField
              kind="count"
              :label="$t('prep-vegetable-chain-squeeze-number-of-times')"
              :value="s.times"
              :low="1"
              :high="10"
              :disabled="!bench.mayEdit"
              @change="setStep(i, { times: $event ?? 1 })"
            />
            {{ $t('prep-vegetable-chain-times') }}</label
          >
        </span>
      </div>
      <div v-if="drying.steps.length" class="scale">
        <label class="note"
          >{{ $t('prep-vegetable-chain-raw') }}
          <QuantityField
            kind="weight"
            :label="$t('prep-vegetable-chain-raw-weight')"
            :value="drying.start_g"
            :low="0.1"
            :disabled="!bench.mayEdit"
            @change="set({ start_g: $event, weighed: drying.weighed })"
        /></label>
        <label class="note"
          ><b>{{ $t('prep-vegetable-chain-on-the-scale') }}</b
          >{{ ' '
          }}<QuantityField
            kind="weight"
            :label="$t('prep-vegetable-chain-weighed-after-drying')"
            :value="drying.weighed ? drying.target_g : null"
            :usual="drying.target_g"
            :low="0.1"
            :disabled="!bench.mayEdit"
            @change="weighed"
        /></label>
        <v-btn
          v-if="(drying.weighed || drying.start_set) && bench.mayEdit"
          class="quiet-button tiny-button"
          @click="set({ weighed: false, start_g: null })"
          >{{ $t('prep-vegetable-chain-as-forecast') }}</v-btn
        >
        <span v-if="drying.dried" class="note">{{
          $t('prep-vegetable-chain-the-juice-carries-away-g-sugars', {
            sugars_lost_g: figure(drying.dried.sugars_lost_g, 1),
            potassium_lost_mg: figure(drying.dried.potassium_lost_mg, 0),
            water_percent: figure(drying.dried.water_percent, 0),
          })
        }}</span>
      </div>
    </div>
    <table class="figures">
      <thead>
        <tr>
          <th>{{ $t('prep-vegetable-chain-drying-method') }}</th>
          <th>{{ $t('prep-vegetable-chain-raw-needed') }}</th>
          <th>{{ $t('prep-vegetable-chain-water-left') }}</th>
          <th>{{ $t('prep-vegetable-chain-sugars-lost') }}</th>
          <th scope="col">
            <span class="visually-hidden">{{ $t('prep-vegetable-chain-choose') }}</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="s in drying.schools" :key="s.key" :class="{ on: s.chosen }" :title="`${s.note} (${s.source})`">
          <th scope="row">{{ s.name }}</th>
          <td>{{ weight(s.start_g, session.units) }} {{ weightUnit(session.units) }}</td>
          <td>{{ figure(s.water_percent, 0) }} %</td>
          <td>{{ figure(s.sugars_lost_g, 1) }} g</td>
          <td>
            <v-btn
              v-if="!s.chosen && bench.mayEdit"
              class="quiet-button tiny-button"
              @click="set({ steps: [...s.steps], start_g: null, weighed: false })"
              >{{ $t('prep-vegetable-chain-use-this') }}</v-btn><v-btn
              v-else-if="bench.mayEdit"
              class="quiet-button tiny-button"
              @click="set(null)"
              >{{ $t('prep-vegetable-chain-skip-drying') }}</v-btn
            >
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.chain {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.1fr);
  gap: 6px 18px;
  align-items: start;
}

.columns {
  width: 100%;
  max-height: 190px;
  grid-row: span 2;
}

.columns text {
  fill: var(--ink);
  font-size: 12px;
}

.columns .grams {
  font-weight: 650;
}

.columns .lost {
  fill: var(--ink-2);
  font-size: 12px;
}

.water {
  fill: var(--role-liquid);
}

.solids {
  stroke: var(--ink-2);
  stroke-width: 0.5;
}

.range {
  stroke: var(--ink);
  stroke-width: 4;
  opacity: 0.35;
}

.steps,
.scale {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  margin-bottom: 6px;
}

.step {
  display: inline-flex;
  align-items: center;
  gap: 5px;
}

.field {
  width: 54px;
  --field-height: 26px;
  text-align: right;
  color: var(--ink);
}

.scale-field {
  width: 76px;
  --field-rule: 2px;
  font-weight: 700;
}

tr.on th,
tr.on td {
  font-weight: 650;
}

@media (max-width: 900px) {
  .chain {
    grid-template-columns: minmax(0, 1fr);
  }
}

@media (max-width: 1140px) {
  .chain {
    display: block;
  }

  .columns {
    max-width: 340px;
  }
}
</style>
