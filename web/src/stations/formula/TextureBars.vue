<script setup lang="ts">
/**
 * What it will eat like: nine scores as bars from 0 to 10 with their soft range. How far a score can be trusted
 * is its bar's edge and a word; a press shows what makes it.
 */
import { computed, ref } from 'vue'
import QuantityField from '@/components/frame/QuantityField.vue'
import type { FormulaDocument } from '@/api/types'
import { useSettling } from '@/composables/useSettling'
import { withSize } from '@/domain/edits'
import { figure, inWeight, temperature } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { useSettle } from '@/stores/settle'
import { t } from '@/messages'

const bench = useBench()
const session = useSession()
const settle = useSettle()
const settling = useSettling()
/** The bound that Settle is asked for, of a score. */
const wished = (key: string): number | null => {
  const window = settle.wish.texture?.[key]
  return window?.low ?? window?.high ?? null
}
const open = ref('')
/** What is wished of the score that is looked at; it begins where it is. */
const aim = ref(0)
function look(key: string, value: number): void {
  open.value = open.value === key ? '' : key
  aim.value = wished(key) ?? Math.round(2 * value) / 2
}
const texture = computed(() => bench.analysis?.texture ?? null)
const baked = computed(() => bench.analysis?.baked ?? null)
const sources: Record<string, string> = {
  set: t('formula-texture-bars-as-you-set-it'),
  dried: t('formula-texture-bars-dried-as-usual-for-this-shape'),
  habit: t('formula-texture-bars-usual-for-this-shape'),
  oven: t('formula-texture-bars-from-the-oven-forecast'),
}
const marks: Record<string, string> = {
  computed: 'computed',
  'rule of thumb': t('formula-texture-bars-rule-of-thumb'),
  hint: t('formula-texture-bars-a-hint'),
}
type Bake = NonNullable<FormulaDocument['bake']>

function setBake(change: Partial<Bake>): void {
  bench.edit((doc) => ({ ...doc, bake: { ...doc.bake, ...change } as Bake }))
}
const point = (lines: readonly string[] | undefined): void => {
  if (lines?.[0]) bench.selected = lines[0]
}
</script>

<template>
  <section v-if="texture && baked" class="texture" :aria-label="$t('formula-texture-bars-texture')">
    <h3>{{ $t('formula-texture-bars-expected-texture') }}</h3>
    <p>{{ texture.text }}</p>
    <ul>
      <li v-for="s in texture.scores" :key="s.key">
        <v-btn
          class="row"
          :aria-expanded="open === s.key"
          :title="`${marks[s.confidence] ?? s.confidence}: ${s.basis}`"
          @click="look(s.key, s.value)"
        >
          <span class="name">{{ s.label }}</span>
          <span
            class="bar"
            role="img"
            :aria-label="
              $t('formula-texture-bars-out-of-10-likely-9-in', {
                label: s.label,
                value: figure(s.value, 1),
                low: figure(s.low, 1),
                high: figure(s.high, 1),
              })
            "
          >
            <i class="smear" :style="{ left: `${s.low * 10}%`, width: `${(s.high - s.low) * 10}%` }" />
            <i v-if="wished(s.key) !== null" class="wish" :style="{ left: `${(wished(s.key) ?? 0) * 10}%` }" />
            <i class="value" :class="`is-${s.confidence.split(' ')[0]}`" :style="{ width: `${s.value * 10}%` }" />
          </span>
          <span class="figure">{{ figure(s.value, 0) }}</span>
          <span class="note mark">{{ marks[s.confidence] }}</span>
        </v-btn>
        <div v-if="open === s.key" class="terms">
          <v-btn v-for="term in s.terms" :key="term.what" class="note term" :disabled="!term.lines.length" @click="point(term.lines)">
            {{ term.amount > 0 ? '+' : '−' }}{{ figure(Math.abs(term.amount), 1) }} {{ term.what }}
          </v-btn>
          <span v-if="!s.terms.length" class="note">{{ $t('formula-texture-bars-no-ingredient-contributes') }}</span>
          <div v-if="bench.mayEdit" class="wishes">
            <v-slider
              v-model="aim"
              :min="0"
              :max="10"
              :step="0.5"
              :aria-label="$t('formula-texture-bars-target-for', { label: s.label.toLowerCase() })"
            />
            <v-btn
              class="quiet-button tiny-button"
              :disabled="Math.abs(aim - s.value) < 0.5"
              @click="settling.texture(s.key, aim > s.value ? { low: aim, high: null } : { low: null, high: aim })"
              >{{
                Math.abs(aim - s.value) < 0.5
                  ? $t('formula-texture-bars-drag-to-set-a-target')
                  : $t('formula-texture-bars-settle-for-or', {
                      aim,
                      direction: aim > s.value ? $t('formula-texture-bars-more') : $t('formula-texture-bars-less'),
                    })
              }}</v-btn
            >
          </div>
          <p class="note">
            {{ s.low_word }} … {{ s.high_word }}; {{ s.basis }}<template v-if="s.learned">. {{ s.learned }}</template>
          </p>
        </div>
      </li>
    </ul>
    <div class="bake">
      <label class="note"
        >{{ $t('formula-texture-bars-final-moisture') }}
        <QuantityField
          kind="percent"
          bare
          :label="$t('formula-texture-bars-final-moisture-2')"
          :value="Math.round(baked.moisture_percent)"
          :low="1"
          :high="90"
          :disabled="!bench.mayEdit"
          @change="setBake({ moisture_percent: $event, moisture_from: '' })"
        />
        {{ $t('formula-texture-bars-water') }}</label
      >
      <label class="note"
        ><QuantityField
          kind="length"
          :label="$t('formula-texture-bars-thickness')"
          :value="texture.thickness_mm"
          :low="0.1"
          :disabled="!bench.mayEdit"
          @change="bench.edit((doc) => withSize(doc, { held: 'thickness', thickness_mm: $event }))"
        />
        {{ $t('formula-texture-bars-thick') }}</label
      >
      <v-btn
        v-if="bench.document?.bake?.moisture_percent != null && bench.mayEdit"
        class="note usual"
        @click="setBake({ moisture_percent: null, moisture_from: '' })"
        >{{ $t('formula-texture-bars-as-usual') }}</v-btn
      >
    </div>
    <p class="note">
      {{ sources[baked.source]
      }}<span v-if="baked.source === 'set'">{{
        $t('formula-texture-bars-take-it-out-when-each-piece', {
          bake_to_piece_g: inWeight(baked.bake_to_piece_g, session.units),
          loss: figure(baked.loss.value * 100, 0),
        })
      }}</span
      ><span v-else>{{
        $t('formula-texture-bars-loses-about-in-the-oven-see', {
          loss: figure(baked.loss.value * 100, 0),
          low: figure(baked.loss.low * 100, 0),
          high: figure(baked.loss.high * 100, 0),
        })
      }}</span
      ><span v-if="baked.fat_absorbed_g > 0">{{
        $t('formula-texture-bars-including-of-absorbed-frying-fat-in', { fat_absorbed_g: inWeight(baked.fat_absorbed_g, session.units) })
      }}</span
      >{{ $t('formula-texture-bars-oven-built-in-estimates-until-your', { oven_c: temperature(texture.oven_c, session.units) }) }}
    </p>
  </section>
</template>

<style scoped>
.wish {
  position: absolute;
  top: -3px;
  bottom: -3px;
  width: 2px;
  background: var(--act);
}

.wishes {
  display: grid;
  flex-basis: 100%;
  grid-template-columns: minmax(120px, 1fr) auto;
  gap: 8px;
  align-items: center;
}

.texture {
  margin-bottom: 14px;
}

h3 {
  font-size: 16px;
}

p {
  margin: 2px 0 4px;
}

ul {
  margin: 0 0 6px;
  padding: 0;
  list-style: none;
}

.row {
  display: grid;
  grid-template-columns: 92px minmax(60px, 1fr) 20px 82px;
  gap: 8px;
  align-items: center;
  width: 100%;
  padding: 2px 0;
  text-align: left;
  font-size: 13px;
}

.row:hover .name {
  text-decoration: underline;
  text-decoration-color: var(--rule-strong);
  text-underline-offset: 3px;
}

.bar {
  position: relative;
  height: 10px;
  border-radius: 3px;
  background: var(--rule);
  overflow: hidden;
}

.bar i {
  position: absolute;
  top: 0;
  bottom: 0;
}

.smear {
  background: var(--smear);
  opacity: 0.55;
}

.value {
  left: 0;
  border-right: 2px solid var(--ink);
  background: var(--in);
}

.value.is-rule {
  background: repeating-linear-gradient(115deg, var(--in) 0 4px, var(--in-soft) 4px 6px);
}

.value.is-hint {
  background: repeating-linear-gradient(115deg, var(--in) 0 2px, var(--in-soft) 2px 6px);
}

.figure {
  text-align: right;
}

.terms {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  padding: 2px 0 5px 10px;
  border-left: 2px solid var(--rule-strong);
}

.terms p {
  flex-basis: 100%;
}

.term:not([disabled]) {
  border-bottom: 1px solid var(--rule-strong);
}

.bake {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
}

.bake .field {
  width: 48px;
  --field-height: 26px;
  text-align: right;
}

.usual {
  border-bottom: 1px solid var(--rule-strong);
}
</style>
