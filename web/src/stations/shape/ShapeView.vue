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
      No dough to shape yet. <router-link :to="`/formula/${id}`">To the bench</router-link>
    </div>
    <div v-else-if="!latest.refusal.value" class="skeleton wait" />
    <template v-if="plan && piece">
      <div class="set">
        <label :class="{ held: piece.held === 'thickness' }"
          ><QuantityField
            kind="length"
            label="Thickness"
            :value="piece.thickness_mm"
            :low="0.1"
            :disabled="!bench.mayEdit || piece.kind === 'tin'"
            @change="hold({ thickness_mm: $event })"
          />
          {{ plan.thick_word }}<span v-if="piece.held === 'thickness'" class="note"> · fixed</span></label
        >
        <label :class="{ held: piece.held === 'size' }"
          ><QuantityField
            kind="length"
            label="Size"
            :value="piece.length_mm"
            :low="0.1"
            :disabled="!bench.mayEdit || piece.kind === 'tin'"
            @change="hold({ length_mm: $event })"
          />
          {{ plan.size_word }}<span v-if="piece.held === 'size'" class="note"> · fixed</span></label
        >
        <label v-if="piece.kind === 'ring'" :class="{ held: piece.held === 'hole' }"
          ><QuantityField kind="length" label="Hole" :value="piece.hole_mm" :low="0.1" :disabled="!bench.mayEdit" @change="ring($event)" />
          hole<span v-if="piece.held === 'hole'" class="note"> · fixed</span></label
        >
        <v-btn
          v-if="plan.usual_hole_mm > 0 && bench.mayEdit"
          class="quiet-button"
          @click="ring(piece.kind === 'ring' ? null : plan.usual_hole_mm)"
        >
          {{ piece.kind === 'ring' ? 'without a hole' : 'with a hole' }}
        </v-btn>
        <label
          ><QuantityField kind="count" label="Pieces" :value="plan.pieces" :low="1" :disabled="!bench.mayEdit" @change="setPieces" />
          {{ plan.bodies === 1 && plan.pieces > 1 ? 'slices' : 'pieces' }}</label
        >
        <label v-if="plan.tray"
          >on
          <v-select
            class="field wide"
            :model-value="plan.tray.id"
            :disabled="!bench.mayEdit"
            aria-label="Tray"
            @update:model-value="choose({ tray: $event })"
            :items="[...trays.map((t) => ({ value: t.id, title: `${t.name} ${t.region}` }))]"
        /></label>
        <label v-if="plan.rings.length && piece.kind !== 'ring'"
          >in
          <v-select
            class="field wide"
            :model-value="bench.document?.form.size?.pan ?? ''"
            :disabled="!bench.mayEdit"
            aria-label="Ring"
            @update:model-value="choose({ pan: $event })"
            :items="[{ value: '', title: 'no ring' }, ...(plan.rings ?? []).map((r) => ({ value: r.id, title: r.name }))]"
        /></label>
        <label v-if="!plan.tray"
          >in
          <v-select
            class="field wide"
            :model-value="plan.pan"
            :disabled="!bench.mayEdit"
            aria-label="Loaf pan"
            @update:model-value="choose({ pan: $event })"
            :items="[...tins.map((t) => ({ value: t.id, title: `${t.name} ${t.region}` }))]"
        /></label>
      </div>
      <div class="drawings">
        <figure>
          <figcaption>The piece from the side <span class="note">Drag an edge to resize</span></figcaption>
          <PieceSide
            :piece="piece"
            :may-edit="bench.mayEdit && piece.kind !== 'tin'"
            @thickness="(v) => hold({ thickness_mm: v }, true)"
            @size="(v) => hold({ length_mm: v }, true)"
            @end="bench.endPull()"
          />
          <p class="note">
            {{ inWeight(piece.dough_g, session.units) }} of dough{{
              plan.bodies > 1 ? ` each, ± ${inWeight(piece.tolerance_g, session.units)} when shaped by hand` : ''
            }}
            · density {{ figure(piece.g_per_ml, 2) }} g/mL<span v-if="piece.fill_share > 0">
              · fills {{ percent(piece.fill_share) }} of the pan</span
            >
          </p>
          <ul class="notes">
            <li v-for="n in plan.notes" :key="n">{{ n }}</li>
          </ul>
          <p v-if="plan.sheet_cm2 > 0" class="note">
            Rolled sheet: {{ inArea(plan.sheet_cm2, session.units) }}. Re-roll {{ inWeight(plan.scraps_g, session.units) }} of trimmings
            {{ plan.rerolls }}×. Dock every {{ inLength(plan.docking_mm, session.units) }}.
          </p>
        </figure>
        <figure v-if="plan.tray && plan.layout">
          <figcaption>
            {{ plan.tray.name }}, top view
            <span class="note"
              >{{ plan.layout.places.length }} fit
              {{ plan.layout.way === 'staggered' ? 'staggered' : plan.layout.way === 'rows' ? 'in rows' : plan.layout.way }}, with room to
              spread in the {{ plan.fried ? 'oil' : 'oven' }}</span
            >
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
              >{{ plan.trays }} {{ plan.trays === 1 ? 'tray' : 'trays' }}, {{ plan.on_last }} on the last one<span v-if="plan.loads"
                >; {{ plan.loads }} oven {{ plan.loads === 1 ? 'load' : 'loads' }} with two trays at a time</span
              >.</span
            ><b v-else class="act">The pieces do not fit on this tray. Choose a larger tray or fewer pieces.</b> Gap
            <QuantityField
              kind="length"
              label="Gap between pieces"
              :value="bench.document?.form.size?.gap_mm"
              :usual="plan.gap_mm"
              :low="0"
              :disabled="!bench.mayEdit"
              @change="choose({ gap_mm: $event })"
            />{{ bench.document?.form.size?.gap_mm == null ? ', the usual' : '' }}
          </p>
        </figure>
      </div>
      <section v-if="plan.others.length" class="others">
        <h3>The same dough in another pan</h3>
        <table class="figures">
          <thead>
            <tr>
              <th>pan</th>
              <th>with this dough</th>
              <th>dough for the same thickness</th>
              <th scope="col"><span class="visually-hidden">Scale to this pan</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="o in plan.others" :key="o.pan">
              <th scope="row">{{ o.name }}</th>
              <td>{{ length(o.thickness_mm, session.units) }} {{ plan.thick_word }}</td>
              <td>{{ weight(o.dough_g, session.units) }} {{ weightUnit(session.units) }} of dough</td>
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
