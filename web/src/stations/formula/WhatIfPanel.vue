<script setup lang="ts">
/**
 * One line, more or less of it. The eye falls on where the first curve leaves its window; a press on a weight takes it,
 * and the arrow keys in the amount do the same by kitchen steps.
 */
import { computed } from 'vue'
import { api, settled } from '@/api/client'
import type { FormulaDocument, Sweep } from '@/api/types'
import { linear } from '@/domain/chart'
import { useAsk } from '@/composables/useAsk'
import { usePanels } from '@/composables/usePanels'
import { withLine } from '@/domain/edits'
import { figure, minutes, weight, weightUnit } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

type Curve = Sweep['curves'][number]
const WIDTH = 220
const HEIGHT = 64
const bench = useBench()
const session = useSession()
const panels = usePanels()
const line = computed(() => bench.lines.find((l) => l.id === bench.selected) ?? bench.lines[0])
const asked = useAsk(
  () => [t('formula-what-if-panel-what-if-2'), bench.formulaId, bench.document, line.value?.id],
  (at) =>
    settled(
      api.POST('/api/kitchens/{kitchen_id}/what-if', {
        params: { path: at },
        body: { document: bench.document as FormulaDocument, line: line.value?.id ?? '' },
      }),
    ),
  { keep: true, when: () => !!bench.document && !!line.value && !bench.pulling },
)
const sweep = computed(() => asked.answer.value)
const x = computed(() => linear([sweep.value?.grams[0] ?? 0, sweep.value?.grams.at(-1) ?? 1], [0, WIDTH]))
/** A curve in a frame of its own: from the least to the most of it and of its window. */
function drawn(c: Curve) {
  const bounds = [...c.values, ...(c.window.low == null ? [] : [c.window.low]), ...(c.window.high == null ? [] : [c.window.high])]
  const [least, most] = [Math.min(...bounds), Math.max(...bounds)]
  const y = linear([least, most], [HEIGHT - 4, 4])
  const points = c.values.map((v, i) => `${x.value(sweep.value?.grams[i] ?? 0).toFixed(1)},${y(v).toFixed(1)}`)
  const top = c.window.high == null ? 0 : y(c.window.high)
  const bottom = c.window.low == null ? HEIGHT : y(c.window.low)
  const wanted = c.window.low != null || c.window.high != null
  return { points: points.join(' '), top, height: Math.max(bottom - top, 0), wanted }
}
const isMoving = (c: Curve): boolean => Math.max(...c.values) - Math.min(...c.values) >= 0.5 * 10 ** -c.decimals
const moving = computed(() => (sweep.value?.curves ?? []).filter(isMoving))
const still = computed(() => (sweep.value?.curves ?? []).filter((c) => !isMoving(c)).map((c) => c.label.toLowerCase()))
const grams = (g: number): string => `${weight(g, session.units)} ${weightUnit(session.units)}`
const leaves = (c: Curve): string =>
  [
    c.leaves_low_g == null ? '' : t('formula-what-if-panel-out-of-range-below', { leaves_low_g: grams(c.leaves_low_g) }),
    c.leaves_high_g == null ? '' : t('formula-what-if-panel-out-of-range-above', { leaves_high_g: grams(c.leaves_high_g) }),
  ]
    .filter(Boolean)
    .join(', ')
const classes = computed(() => {
  const s = sweep.value
  if (!s) return []
  const runs: { name: string; from: number; to: number }[] = []
  s.classes.forEach((name, i) => {
    const last = runs.at(-1)
    if (last?.name === name) last.to = s.grams[i] ?? 0
    else runs.push({ name, from: last?.to ?? s.grams[i] ?? 0, to: s.grams[i] ?? 0 })
  })
  return runs
})

function take(event: MouseEvent): void {
  const s = sweep.value
  if (!s || !bench.mayEdit || !line.value) return
  const box = (event.currentTarget as Element).getBoundingClientRect()
  const share = (event.clientX - box.left) / box.width
  const [low, high] = [s.grams[0] ?? 0, s.grams.at(-1) ?? 0]
  const wanted = Math.round(low + share * (high - low))
  const { id } = line.value
  bench.edit((doc) => withLine(doc, id, { grams: wanted, entered: `${wanted} g` }))
}
</script>

<template>
  <section class="what-if" :aria-label="$t('formula-what-if-panel-what-if')">
    <div class="panel-head">
      <h3>
        {{ $t('formula-what-if-panel-what-if-more-or-less', { name: sweep?.name ?? $t('formula-what-if-panel-of-one-ingredient') }) }}
      </h3>
      <v-btn class="note" @click="panels.open.value = 'lines'">{{ $t('formula-what-if-panel-back-to-ingredients') }}</v-btn>
    </div>
    <p v-if="asked.missing.value" class="act" role="alert">{{ asked.missing.value }}</p>
    <template v-if="sweep">
      <p class="text" aria-live="polite">{{ sweep.text }}</p>
      <div class="curves">
        <figure v-for="c in moving" :key="c.key">
          <figcaption>
            <b>{{ c.label }}</b> <span class="note">{{ c.unit }}</span>
          </figcaption>
          <svg
            :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
            role="img"
            :aria-label="`${c.label}: ${leaves(c) || $t('formula-what-if-panel-stays-inside')}`"
            @click="take"
          >
            <rect v-if="drawn(c).wanted" x="0" :width="WIDTH" :y="drawn(c).top" :height="drawn(c).height" class="wanted" />
            <line :x1="x(sweep.now)" :x2="x(sweep.now)" y1="0" :y2="HEIGHT" class="now" />
            <polyline :points="drawn(c).points" class="curve" />
          </svg>
          <p class="note">
            {{
              $t('formula-what-if-panel-to', { values: figure(c.values[0] ?? 0, c.decimals), at: figure(c.values.at(-1) ?? 0, c.decimals) })
            }}
            <span v-if="leaves(c)" class="act">{{ leaves(c) }}</span>
          </p>
        </figure>
      </div>
      <p v-if="still.length" class="note">{{ $t('formula-what-if-panel-no-effect-on', { still: still.join(', ') }) }}</p>
      <p class="ends note">
        {{
          $t('formula-what-if-panel-left-right-the-line-marks-the', {
            grams: grams(sweep.grams[0] ?? 0),
            at: grams(sweep.grams.at(-1) ?? 0),
          })
        }}
      </p>
      <p>
        {{ $t('formula-what-if-panel-handling') }}
        <span v-for="(run, i) in classes" :key="i">{{
          $t('formula-what-if-panel-to-2', { value: i ? ', ' : '', name: run.name, to: grams(run.to) })
        }}</span>
      </p>
      <p>
        {{ $t('formula-what-if-panel-in-the-oven') }}
        <span v-for="(m, i) in sweep.minutes" :key="i">{{
          $t('formula-what-if-panel-min-at', {
            value: i ? ' · ' : '',
            null: m.minutes == null ? '–' : minutes(m.minutes),
            grams: grams(m.grams),
          })
        }}</span>
      </p>
    </template>
  </section>
</template>

<style scoped>
.text {
  margin: 0 0 8px;
  font-size: 17px;
}

.curves {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 10px 16px;
}

figure {
  margin: 0;
}

svg {
  display: block;
  width: 100%;
  height: 64px;
  border-left: 1px solid var(--rule-strong);
  border-bottom: 1px solid var(--rule-strong);
  cursor: pointer;
}

.wanted {
  fill: var(--in-soft);
}

.curve {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}

.now {
  stroke: var(--act);
  stroke-dasharray: 3 3;
}

.note {
  margin: 2px 0 0;
}

.ends {
  margin-top: 10px;
}
</style>
