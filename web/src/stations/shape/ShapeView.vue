<script setup lang="ts">
/**
 * Shape decides how thick, how large and how many. The eye falls on the tray drawn to scale and on the piece from the
 * side; the next pull on its thickness or its size moves the other, the trays and the count.
 */
import { computed, watch } from 'vue'
import QuantityField from '@/components/frame/QuantityField.vue'
import { api, settled } from '@/api/client'
import type { FormulaDocument } from '@/api/types'
import FormulaFrame from '@/components/frame/FormulaFrame.vue'
import { useLatest } from '@/composables/useLatest'
import { useOpenFormula } from '@/composables/useOpenFormula'
import { withSize } from '@/domain/edits'
import { figure, inArea, inLength, inWeight, length, percent, weight, weightUnit } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import OwnPans from './OwnPans.vue'
import PieceSide from './PieceSide.vue'
import TrayTop from './TrayTop.vue'

const props = defineProps<{ id: number }>()
const bench = useBench()
const session = useSession()
const { missing } = useOpenFormula(() => props.id)
const latest = useLatest(({ kitchenId, document }: { kitchenId: number; document: FormulaDocument }) =>
  settled(api.POST('/api/kitchens/{kitchen_id}/shape', { params: { path: { kitchen_id: kitchenId } }, body: document })),
)
const plan = computed(() => latest.answer.value)
const ask = (): void => {
  if (bench.document && session.kitchen && bench.formulaId === props.id)
    latest.ask({ kitchenId: session.kitchen.id, document: bench.document })
}
watch([() => bench.document, () => session.kitchen], ask, { immediate: true })

const piece = computed(() => plan.value?.piece ?? null)
const round = computed(() => piece.value?.kind === 'round' || piece.value?.kind === 'dome' || piece.value?.kind === 'ring')
const trays = computed(() => plan.value?.pans.filter((p) => p.kind === 'tray') ?? [])
const tins = computed(() => plan.value?.pans.filter((p) => p.kind === 'tin') ?? [])

const hold = (change: { thickness_mm?: number | null; length_mm?: number | null }, pulling = false): void => {
  const held = 'thickness_mm' in change ? 'thickness' : 'size'
  const edit = pulling ? bench.pull : bench.edit
  edit((doc) => withSize(doc, { held, ...change }))
}
/** A ring holds its hole until one of its other measures is held, and stands in no pan. */
const ring = (hole_mm: number | null): void => {
  bench.edit((doc) => withSize(doc, { held: '', hole_mm, pan: '' }))
}
const choose = (change: { tray?: string; pan?: string; gap_mm?: number | null }): void => {
  bench.edit((doc) => withSize(doc, change))
}
const setPieces = (pieces: number | null): void => {
  if (pieces !== null) bench.edit((doc) => ({ ...doc, form: { ...doc.form, pieces } }))
}
const scaleAll = (factor: number): void => {
  bench.edit((doc) => ({
    ...doc,
    lines: (doc.lines ?? []).map((l) =>
      l.grams == null ? l : { ...l, grams: Math.round(l.grams * factor * 10) / 10, entered: `${Math.round(l.grams * factor * 10) / 10} g` },
    ),
  }))
}
</script>

<template>
  <FormulaFrame :missing="missing">
    <p v-if="latest.refusal.value" role="alert" class="act">{{ latest.refusal.value.sentence }}</p>
    <p v-if="plan" class="sentence" aria-live="polite">{{ plan.text }}</p>
    <div v-else-if="!latest.refusal.value && bench.analysis && !bench.analysis.totals.dough_g" class="note">
      {{ $t('shape-shape-view-no-dough-to-shape-yet') }}
      <router-link :to="`/formula/${id}`">{{ $t('shape-shape-view-to-the-bench') }}</router-link>
    </div>
    <div v-else-if="!latest.refusal.value" class="skeleton wait" />
    <template v-if="plan && piece">
      <div class="set">
        <label :class="{ held: piece.held === 'thickness' }"
          ><QuantityField
            kind="length"
            :label="$t('shape-shape-view-thickness')"
            :value="piece.thickness_mm"
            :low="0.1"
            :disabled="!bench.mayEdit || piece.kind === 'tin'"
            @change="hold({ thickness_mm: $event })"
          />
          {{ plan.thick_word }}<span v-if="piece.held === 'thickness'" class="note"> {{ $t('shape-shape-view-fixed') }}</span></label
        >
        <label :class="{ held: piece.held === 'size' }"
          ><QuantityField
            kind="length"
            :label="$t('shape-shape-view-size')"
            :value="piece.length_mm"
            :low="0.1"
            :disabled="!bench.mayEdit || piece.kind === 'tin'"
            @change="hold({ length_mm: $event })"
          />
          {{ plan.size_word }}<span v-if="piece.held === 'size'" class="note"> {{ $t('shape-shape-view-fixed') }}</span></label
        >
        <label v-if="piece.kind === 'ring'" :class="{ held: piece.held === 'hole' }"
          ><QuantityField
            kind="length"
            :label="$t('shape-shape-view-hole')"
            :value="piece.hole_mm"
            :low="0.1"
            :disabled="!bench.mayEdit"
            @change="ring($event)"
          />
          {{ $t('shape-shape-view-hole-2')
          }}<span v-if="piece.held === 'hole'" class="note"> {{ $t('shape-shape-view-fixed') }}</span></label
        >
        <v-btn
          v-if="plan.usual_hole_mm > 0 && bench.mayEdit"
          class="quiet-button"
          @click="ring(piece.kind === 'ring' ? null : plan.usual_hole_mm)"
        >
          {{ piece.kind === 'ring' ? $t('shape-shape-view-without-a-hole') : $t('shape-shape-view-with-a-hole') }}
        </v-btn>
        <label
          ><QuantityField
            kind="count"
            :label="$t('shape-shape-view-pieces')"
            :value="plan.pieces"
            :low="1"
            :disabled="!bench.mayEdit"
            @change="setPieces"
          />
          {{ plan.bodies === 1 && plan.pieces > 1 ? $t('shape-shape-view-slices') : $t('shape-shape-view-pieces-2') }}</label
        >
        <label v-if="plan.tray"
          >{{ $t('shape-shape-view-on') }}
          <v-select
            class="field wide"
            :model-value="plan.tray.id"
            :disabled="!bench.mayEdit"
            :aria-label="$t('shape-shape-view-tray')"
            @update:model-value="choose({ tray: $event })"
            :items="[...trays.map((t) => ({ value: t.id, title: `${t.name} ${t.region}` }))]"
        /></label>
        <label v-if="plan.rings.length && piece.kind !== 'ring'"
          >{{ $t('shape-shape-view-in') }}
          <v-select
            class="field wide"
            :model-value="bench.document?.form.size?.pan ?? ''"
            :disabled="!bench.mayEdit"
            :aria-label="$t('shape-shape-view-ring')"
            @update:model-value="choose({ pan: $event })"
            :items="[
              { value: '', title: $t('shape-shape-view-no-ring') },
              ...(plan.rings ?? []).map((r) => ({ value: r.id, title: r.name })),
            ]"
        /></label>
        <label v-if="!plan.tray"
          >{{ $t('shape-shape-view-in') }}
          <v-select
            class="field wide"
            :model-value="plan.pan"
            :disabled="!bench.mayEdit"
            :aria-label="$t('shape-shape-view-loaf-pan')"
            @update:model-value="choose({ pan: $event })"
            :items="[...tins.map((t) => ({ value: t.id, title: `${t.name} ${t.region}` }))]"
        /></label>
      </div>
      <div class="drawings">
        <figure>
          <figcaption>
            {{ $t('shape-shape-view-the-piece-from-the-side') }}
            <span class="note">{{ $t('shape-shape-view-drag-an-edge-to-resize') }}</span>
          </figcaption>
          <PieceSide
            :piece="piece"
            :may-edit="bench.mayEdit && piece.kind !== 'tin'"
            @thickness="(v) => hold({ thickness_mm: v }, true)"
            @size="(v) => hold({ length_mm: v }, true)"
            @end="bench.endPull()"
          />
          <p class="note">
            {{
              $t('shape-shape-view-of-dough-density-g-ml', {
                dough_g: inWeight(piece.dough_g, session.units),
                bodies:
                  plan.bodies > 1
                    ? ' ' + $t('shape-shape-view-each-when-shaped-by-hand', { tolerance_g: inWeight(piece.tolerance_g, session.units) })
                    : '',
                g_per_ml: figure(piece.g_per_ml, 2),
              })
            }}<span v-if="piece.fill_share > 0">
              {{ $t('shape-shape-view-fills-of-the-pan', { fill_share: percent(piece.fill_share) }) }}</span
            >
          </p>
          <ul class="notes">
            <li v-for="n in plan.notes" :key="n">{{ n }}</li>
          </ul>
          <p v-if="plan.sheet_cm2 > 0" class="note">
            {{
              $t('shape-shape-view-rolled-sheet-re-roll-of-trimmings', {
                sheet_cm2: inArea(plan.sheet_cm2, session.units),
                scraps_g: inWeight(plan.scraps_g, session.units),
                rerolls: plan.rerolls,
                docking_mm: inLength(plan.docking_mm, session.units),
              })
            }}
          </p>
        </figure>
        <figure v-if="plan.tray && plan.layout">
          <figcaption>
            {{ $t('shape-shape-view-top-view', { name: plan.tray.name }) }}
            <span class="note">{{
              $t('shape-shape-view-fit-with-room-to-spread-in', {
                places: plan.layout.places.length,
                way:
                  plan.layout.way === 'staggered'
                    ? $t('shape-shape-view-staggered')
                    : plan.layout.way === 'rows'
                      ? $t('shape-shape-view-in-rows')
                      : plan.layout.way,
                fried: plan.fried ? $t('shape-shape-view-oil') : $t('shape-shape-view-oven'),
              })
            }}</span>
          </figcaption>
          <TrayTop
            :tray="plan.tray"
            :places="plan.layout.places"
            :round="round"
            :piece="piece"
            :on-last="plan.on_last"
            :docking="plan.docking_mm"
          />
          <p class="note">
            <span v-if="plan.trays"
              >{{ $t('shape-shape-view-on-the-last-one', { trays: plan.trays, on_last: plan.on_last })
              }}<span v-if="plan.loads">{{ $t('shape-shape-view-oven-with-two-trays-at-a', { loads: plan.loads }) }}</span
              >.</span
            ><b v-else class="act">{{ $t('shape-shape-view-the-pieces-do-not-fit-on') }}</b> {{ $t('shape-shape-view-gap') }}
            <QuantityField
              kind="length"
              :label="$t('shape-shape-view-gap-between-pieces')"
              :value="bench.document?.form.size?.gap_mm"
              :usual="plan.gap_mm"
              :low="0"
              :disabled="!bench.mayEdit"
              @change="choose({ gap_mm: $event })"
            />{{ bench.document?.form.size?.gap_mm == null ? $t('shape-shape-view-the-usual') : '' }}
          </p>
        </figure>
      </div>
      <section v-if="plan.others.length" class="others">
        <h3>{{ $t('shape-shape-view-the-same-dough-in-another-pan') }}</h3>
        <table class="figures">
          <thead>
            <tr>
              <th>{{ $t('shape-shape-view-pan') }}</th>
              <th>{{ $t('shape-shape-view-with-this-dough') }}</th>
              <th>{{ $t('shape-shape-view-dough-for-the-same-thickness') }}</th>
              <th scope="col">
                <span class="visually-hidden">{{ $t('shape-shape-view-scale-to-this-pan') }}</span>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="o in plan.others" :key="o.pan">
              <th scope="row">{{ o.name }}</th>
              <td>{{ length(o.thickness_mm, session.units) }} {{ plan.thick_word }}</td>
              <td>{{ $t('shape-shape-view-of-dough', { dough_g: weight(o.dough_g, session.units), unit: weightUnit(session.units) }) }}</td>
              <td>
                <v-btn v-if="bench.mayEdit" class="quiet-button tiny-button" @click="scaleAll(o.factor)">
                  × {{ figure(o.factor, 2) }}
                </v-btn>
              </td>
            </tr>
          </tbody>
        </table>
      </section>
      <OwnPans :pans="plan.pans" @kept="ask" />
    </template>
  </FormulaFrame>
</template>

<style scoped>
.sentence {
  margin: 0;
  font-size: 18px;
}

.set {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 18px;
}

.field {
  width: 66px;
  --field-height: 30px;
  text-align: right;
}

.field.wide {
  width: auto;
  text-align: left;
}

.field.small {
  width: 46px;
  --field-height: 22px;
}

.held .field {
  --field-rule: 2px;
  font-weight: 700;
}

.drawings {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.25fr);
  gap: 22px;
}

figure {
  margin: 0;
}

figcaption {
  margin-bottom: 6px;
  font: 700 16px var(--head);
}

figcaption .note {
  font: 400 12px var(--text);
}

.notes {
  margin: 4px 0;
  padding-left: 16px;
  font-size: 13px;
}

h3 {
  font-size: 16px;
}

.wait {
  height: 50vh;
}

@media (max-width: 900px) {
  .drawings {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
