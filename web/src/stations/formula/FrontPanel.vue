<script setup lang="ts">
/**
 * What a step further in one quantity takes of another. The eye falls on the bend of the front; a press on a point shows its
 * edits and its ghost, and one more takes it.
 */
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import JobProgress from '@/components/frame/JobProgress.vue'
import { linear } from '@/domain/chart'
import { useJob } from '@/composables/useJob'
import { usePanels } from '@/composables/usePanels'
import { figure } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { useSettle } from '@/stores/settle'
import { useToasts } from '@/stores/toasts'
import type { FormulaDocument } from '@/api/types'
import { t } from '@/messages'

const WIDTH = 460
const HEIGHT = 220
const bench = useBench()
const session = useSession()
const panels = usePanels()
const toasts = useToasts()
const settle = useSettle()
const jobs = useJob()
const axes = computed(() => (session.words?.axes ?? []).map((a) => ({ value: a.id, title: a.name })))
const further = computed(() => axes.value.filter((a) => ['net_carbs', 'protein', 'energy', 'cost', 'fat', 'fibre'].includes(a.value)))
const x = ref('net_carbs')
const y = ref('change')
const chosen = ref(-1)
const asked = shallowRef<FormulaDocument | null>(null)
const front = computed(() => (jobs.job.value?.state === 'done' ? (jobs.job.value.front ?? null) : null))
const fresh = computed(() => asked.value === bench.document)
watch(front, () => {
  chosen.value = -1
})
const name = (key: string): string => axes.value.find((a) => a.value === key)?.title ?? key

const point = computed(() => front.value?.points[chosen.value] ?? null)
watch([point, fresh], ([made, now]) => {
  settle.looked = made && now ? (made.document as FormulaDocument) : null
})
onBeforeUnmount(() => {
  settle.looked = null
})

function start(): void {
  if (!bench.document) return
  asked.value = bench.document
  void jobs.start({ kind: 'front', document: bench.document, formula_id: bench.formulaId, x: x.value, y: y.value })
}
const span = (values: readonly number[]): [number, number] => {
  const [low, high] = [Math.min(...values), Math.max(...values)]
  const room = (high - low || Math.abs(high) || 1) * 0.08
  return [low - room, high + room]
}
const ends = computed(() => {
  const f = front.value
  if (!f?.points.length) return null
  return { x: span([f.now_x, ...f.points.map((p) => p.x)]), y: span([f.now_y, ...f.points.map((p) => p.y)]) }
})
const places = computed(() => (ends.value ? { x: linear(ends.value.x, [0, WIDTH]), y: linear(ends.value.y, [HEIGHT, 0]) } : null))
const points = computed(() => {
  const at = places.value
  if (!front.value || !at) return []
  return front.value.points.map((p) => ({ ...p, cx: at.x(p.x), cy: at.y(p.y) }))
})
const now = computed(() => {
  const at = places.value
  return front.value && at ? { cx: at.x(front.value.now_x), cy: at.y(front.value.now_y) } : null
})

function take(): void {
  const made = point.value
  if (!made || !fresh.value) return
  const lines = made.document.lines
  bench.edit((doc) => ({ ...doc, lines: lines ?? [] }))
  toasts.show(t('formula-front-panel-trade-off-applied'), {
    action: { label: t('formula-front-panel-undo'), run: () => void bench.goBack() },
  })
  panels.open.value = 'lines'
}
</script>

<template>
  <section class="front" :aria-label="$t('formula-front-panel-trade-offs')">
    <div class="panel-head">
      <h3>{{ $t('formula-front-panel-trade-offs') }}</h3>
      <v-btn class="note" @click="panels.open.value = 'lines'">{{ $t('formula-front-panel-back-to-ingredients') }}</v-btn>
    </div>
    <p class="asked">
      <v-select v-model="x" class="field" :aria-label="$t('formula-front-panel-improve')" :items="further" />
      <span>{{ $t('formula-front-panel-at-the-cost-of') }}</span>
      <v-select
        v-model="y"
        class="field"
        :aria-label="$t('formula-front-panel-at-the-cost-of-2')"
        :items="axes.filter((a) => a.value !== x)"
      />
      <v-btn v-if="!jobs.underWay.value" class="act-button" :disabled="!bench.mayEdit" @click="start">{{
        front ? $t('formula-front-panel-redraw') : $t('formula-front-panel-draw-chart')
      }}</v-btn>
      <JobProgress v-else-if="jobs.job.value" :job="jobs.job.value" :what="$t('formula-front-panel-points')" @stop="jobs.stop()" />
    </p>
    <p v-if="jobs.trouble.value" class="act" role="alert">{{ jobs.trouble.value }}</p>
    <p v-if="front && !front.points.length">{{ $t('formula-front-panel-no-formula-goes-further-without-giving') }}</p>
    <template v-else-if="front && ends">
      <svg
        :viewBox="`-44 -10 ${WIDTH + 60} ${HEIGHT + 46}`"
        role="group"
        :aria-label="$t('formula-front-panel-against', { along: name(front.x), across: name(front.y) })"
      >
        <path :d="`M 0 0 V ${HEIGHT} H ${WIDTH}`" class="axis" />
        <text x="0" :y="HEIGHT + 16">{{ figure(ends.x[0], 1) }}</text>
        <text :x="WIDTH" :y="HEIGHT + 16" text-anchor="end">{{ figure(ends.x[1], 1) }}</text>
        <text :x="WIDTH / 2" :y="HEIGHT + 30" text-anchor="middle" class="word">{{ name(front.x) }}</text>
        <text x="-6" :y="HEIGHT" text-anchor="end">{{ figure(Math.max(ends.y[0], 0), 1) }}</text>
        <text x="-6" y="8" text-anchor="end">{{ figure(ends.y[1], 1) }}</text>
        <text x="6" y="4" class="word">{{ name(front.y) }}</text>
        <polyline :points="points.map((p) => `${p.cx},${p.cy}`).join(' ')" class="line" />
        <circle v-if="now" :cx="now.cx" :cy="now.cy" r="7" class="now">
          <title>{{ $t('formula-front-panel-current') }}</title>
        </circle>
        <circle
          v-for="(p, i) in points"
          :key="i"
          :cx="p.cx"
          :cy="p.cy"
          r="6"
          class="point"
          :class="{ on: i === chosen }"
          tabindex="0"
          role="button"
          :aria-label="`${figure(p.x, 2)}, ${figure(p.y, 2)}: ${p.text}`"
          @click="chosen = i"
          @keydown.enter="chosen = i"
        >
          <title>{{ figure(p.x, 2) }}, {{ figure(p.y, 2) }}: {{ p.text }}</title>
        </circle>
      </svg>
      <p v-if="!point" class="note">{{ $t('formula-front-panel-the-ring-is-your-current-formula') }}</p>
      <div v-else>
        <p class="text">{{ name(front.x) }} {{ figure(point.x, 2) }}, {{ name(front.y).toLowerCase() }} {{ figure(point.y, 1) }}</p>
        <p>{{ point.text }}</p>
        <v-btn class="act-button" :disabled="!fresh" @click="take">{{ $t('formula-front-panel-apply-this-option') }}</v-btn>
        <span v-if="!fresh" class="about"> {{ $t('formula-front-panel-the-formula-has-changed-redraw-the') }}</span>
      </div>
    </template>
  </section>
</template>

<style scoped>
.asked {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  margin: 0 0 10px;
}

.field {
  width: 180px;
}

svg {
  display: block;
  width: 100%;
  max-width: 620px;
}

text {
  font-size: 11px;
  fill: var(--ink-2);
}

.word {
  fill: var(--ink);
}

.axis {
  fill: none;
  stroke: var(--rule-strong);
}

.line {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.5;
}

.point {
  fill: var(--panel);
  stroke: var(--ink);
  stroke-width: 2;
  cursor: pointer;
}

.point.on {
  fill: var(--act);
}

.now {
  fill: none;
  stroke: var(--in);
  stroke-width: 2;
}

.text {
  margin: 6px 0 2px;
  font-size: 17px;
}
</style>
