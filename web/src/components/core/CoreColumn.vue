<script setup lang="ts">
/**
 * The core sample: every line a stratum, its height its grams, its colour and hatch its role.
 * Pulling a stratum's lower boundary changes its grams and everything answers while the hand moves.
 */
import { useElementSize } from '@vueuse/core'
import { computed, ref, shallowRef } from 'vue'
import { layStrata, pulledGrams, stack, unevenEdge, type StrataLayout } from '@/domain/strata'
import { weight, weightUnit } from '@/domain/format'
import type { FormulaDocument } from '@/api/types'
import { withLine, withLineOfWhole } from '@/domain/edits'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { useSettle } from '@/stores/settle'

/** Roles of what lies in, on or around the dough. */
const BESIDE = new Set(['filling', 'topping', 'wash', 'dusting', 'flavour', 'salt', 'lift'])
const GHOST = 14
const WIDTH = 132
const LETTERS = 13
const LEAST = 9
const SWING = 2
const bench = useBench()
const session = useSession()
const settle = useSettle()
const frame = ref<HTMLElement>()
const { height: room } = useElementSize(frame)

interface Pull {
  id: string
  startY: number
  startGrams: number
  scale: number
  /** The formula as the pull began. */
  document: FormulaDocument | null
}
const pull = shallowRef<Pull | null>(null)

const shown = computed(() =>
  bench.lines.map((line) => {
    const reading = bench.reading(line)
    return {
      id: line.id,
      grams: line.grams ?? bench.readings.get(line.id)?.grams ?? 0,
      role: line.role || reading?.role || 'base',
      code: reading?.code ?? '??',
      name: reading?.name ?? (line.note || 'unknown'),
      step: reading?.step_g ?? 1,
      locked: line.locked ?? false,
    }
  }),
)
/** As much of a name as stands beside the grams. */
const shortly = (name: string): string => {
  const short = name.split(',')[0] ?? ''
  return short.length > LETTERS ? `${short.slice(0, LETTERS - 1).trim()}…` : short
}
const height = computed(() => Math.max(room.value - 8, 120))
const layout = computed<StrataLayout>(() => {
  const grams = shown.value.map((s) => s.grams)
  return pull.value ? stack(grams, pull.value.scale, LEAST) : layStrata(grams, height.value, LEAST)
})
const total = computed(() => layout.value.strata.reduce((sum, s) => sum + s.height, 0))
/** Whether something lies in or on the dough that is no part of it. */
const beside = computed(() => (bench.analysis ? bench.analysis.totals.whole_g - bench.analysis.totals.dough_g > 0.5 : false))
const dough = computed(() => shown.value.reduce((sum, s) => sum + s.grams, 0))

const drawn = computed(() =>
  shown.value.map((line, i) => {
    const s = layout.value.strata[i] ?? { top: 0, height: 0 }
    const top = 4 + s.top
    const bottom = top + s.height
    const swing = (edge: number): number => (edge === 0 || edge === shown.value.length ? SWING : Math.min(SWING, s.height / 5))
    const over = unevenEdge(i, WIDTH, top, swing(i))
    const under = unevenEdge(i + 1, WIDTH, bottom, swing(i + 1))
      .split(' L ')
      .reverse()
      .join(' L ')
    return { ...line, top, bottom, middle: (top + bottom) / 2, height: s.height, d: `M ${over} L ${under} Z` }
  }),
)

/** What Settle would make of it, beside the core at the same scale: each old boundary runs to where it would lie. */
const ghost = computed(() => {
  const made = settle.preview
  if (!made || pull.value) return []
  const after = new Map((made.lines ?? []).map((line) => [line.id, line]))
  const here = new Set(shown.value.map((s) => s.id))
  const roles = new Map(settle.way?.changes.map((change) => [change.line, change.role]))
  const lines = [
    ...shown.value.map((s) => ({ id: s.id, role: s.role, grams: after.get(s.id)?.grams ?? 0, was: s.grams })),
    ...(made.lines ?? [])
      .filter((line) => !here.has(line.id))
      .map((line) => ({ id: line.id, role: line.role || roles.get(line.id) || 'base', grams: line.grams ?? 0, was: 0 })),
  ]
  const scale = layout.value.pixelsPerGram
  let top = 4
  return lines.map((line, i) => {
    const height = line.grams > 0 ? Math.max(line.grams * scale, line.was ? LEAST : 4) : 0
    const from = drawn.value[i]?.bottom ?? 4 + total.value
    const place = { ...line, top, bottom: top + height, from, moved: Math.abs(line.grams - line.was) > 0.01 }
    top += height
    return place
  })
})

const fill = computed(() => bench.analysis?.water.fill.value ?? 0)
const waterY = computed(() => 4 + Math.max(0, 1 - fill.value) * total.value)

function begin(event: PointerEvent, id: string): void {
  const line = shown.value.find((s) => s.id === id)
  bench.selected = id
  if (!line || line.locked || !bench.mayEdit) return
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  event.preventDefault()
  pull.value = { id, startY: event.clientY, startGrams: line.grams, scale: layout.value.pixelsPerGram || 1, document: bench.document }
}

function move(event: PointerEvent): void {
  const now = pull.value
  if (!now) return
  const grams = pulledGrams(now.startGrams, event.clientY - now.startY, now.scale)
  if (grams !== shown.value.find((s) => s.id === now.id)?.grams) set(now.id, grams, true, event.shiftKey)
}

function end(): void {
  if (!pull.value) return
  pull.value = null
  bench.endPull()
}

/** With Shift the whole keeps its weight, and what is in the dough besides gives. */
function set(id: string, grams: number, pulling: boolean, whole = false): void {
  const now = pull.value
  const giving = shown.value.filter((s) => !s.locked && !BESIDE.has(s.role)).map((s) => s.id)
  const change = (doc: FormulaDocument): FormulaDocument =>
    whole ? withLineOfWhole(now?.document ?? doc, id, grams, giving) : withLine(doc, id, { grams, entered: `${grams} g` })
  if (pulling) bench.pull(change)
  else bench.edit(change)
}

function onKey(event: KeyboardEvent, id: string): void {
  const line = shown.value.find((s) => s.id === id)
  if (!line || line.locked || !['ArrowUp', 'ArrowDown'].includes(event.key)) return
  event.preventDefault()
  const step = line.step * (event.shiftKey ? 10 : 1) * (event.key === 'ArrowDown' ? 1 : -1)
  set(id, Math.max(0, Math.round((line.grams + step) * 10) / 10), false)
}
</script>

<template>
  <section class="core" :aria-label="$t('frame-core-column-dough-layers')">
    <div ref="frame" class="frame">
      <svg v-if="shown.length" :width="WIDTH + 30" :height="Math.max(total + 10, 60)" class="column" :class="{ pulling: pull }">
        <g
          v-for="s in drawn"
          :key="s.id"
          class="stratum"
          :class="{ on: s.id === bench.selected, locked: s.locked }"
          @pointerdown="bench.selected = s.id"
        >
          <path :d="s.d" :style="{ fill: `url(#hatch-${s.role})` }" />
          <template v-if="s.height >= 14">
            <text :x="8" :y="s.middle + 4" class="code" :style="{ stroke: `var(--role-${s.role})` }">
              {{ shortly(s.name) }}
            </text>
            <text :x="WIDTH - 8" :y="s.middle + 4" text-anchor="end" class="grams" :style="{ stroke: `var(--role-${s.role})` }">
              {{ weight(s.grams, session.units) }}
            </text>
          </template>
        </g>
        <path v-for="s in drawn.filter((s) => s.id === bench.selected)" :key="`on-${s.id}`" :d="s.d" class="heavy" />
        <g v-if="ghost.length" class="ghost" aria-hidden="true" data-ghost>
          <g v-for="g in ghost" :key="`ghost-${g.id}`" :class="{ moved: g.moved }">
            <rect
              :x="WIDTH + 7"
              :width="GHOST"
              :y="g.top"
              :height="Math.max(g.bottom - g.top, 0)"
              :style="{ fill: `url(#hatch-${g.role})` }"
            />
            <line :x1="WIDTH" :x2="WIDTH + 7" :y1="g.from" :y2="g.bottom" />
          </g>
        </g>
        <g v-else-if="fill > 0" class="water-line">
          <line x1="0" :x2="WIDTH + 6" :y1="waterY" :y2="waterY" />
          <path :d="`M ${WIDTH + 20} ${waterY - 6} v 12 l -9 -6 z`" />
        </g>
        <rect
          v-for="s in drawn"
          :key="`grip-${s.id}`"
          class="grip"
          x="0"
          :width="WIDTH"
          :y="s.bottom - 4"
          height="9"
          tabindex="0"
          role="slider"
          :aria-label="$t('frame-core-column-boundary', { name: s.name })"
          :aria-valuenow="s.grams"
          aria-valuemin="0"
          :aria-valuetext="`${weight(s.grams, session.units)} ${weightUnit(session.units)}`"
          :aria-disabled="s.locked || !bench.mayEdit"
          :data-grip="s.id"
          @pointerdown="begin($event, s.id)"
          @pointermove="move"
          @pointerup="end"
          @pointercancel="end"
          @lostpointercapture="end"
          @keydown="onKey($event, s.id)"
          @focus="bench.selected = s.id"
        />
      </svg>
      <div v-else class="empty note">{{ $t('frame-core-column-your-first-ingredient-becomes-the-first') }}</div>
    </div>
    <p class="note">
      {{ weight(dough, session.units) }} {{ weightUnit(session.units)
      }}{{
        beside
          ? $t('frame-core-column-of-it-dough', { dough_g: weight(bench.analysis?.totals.dough_g ?? 0, session.units) })
          : ' ' + $t('frame-core-column-dough')
      }}<span v-if="fill > 0"> {{ $t('frame-core-column-water-fill', { fill: Math.round(fill * 100) }) }}</span>
    </p>
    <p v-if="shown.length && bench.mayEdit" class="note">{{ $t('frame-core-column-drag-a-boundary-to-change-the') }}</p>
  </section>
</template>

<style scoped>
.core {
  display: flex;
  flex-direction: column;
  min-height: 0;
  padding: 14px 0 14px 21px;
}

.frame {
  flex: 1;
  min-height: 0;
  overflow: hidden;
}

.column {
  display: block;
  overflow: visible;
  touch-action: none;
}

.stratum path {
  transition: d 0.25s ease;
}

.pulling .stratum path {
  transition: none;
}

.code,
.grams {
  fill: var(--on-role);
  font-size: 12px;
  font-weight: 650;
  paint-order: stroke;
  stroke-width: 4px;
  stroke-linejoin: round;
  pointer-events: none;
}

.heavy {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
  pointer-events: none;
}

.water-line line {
  stroke: var(--water);
  stroke-width: 2;
  stroke-dasharray: 5 4;
}

.water-line path {
  fill: var(--water);
}

.water-line {
  pointer-events: none;
}

.ghost rect {
  opacity: 0.5;
}

.ghost .moved rect {
  opacity: 1;
  stroke: var(--ink);
  stroke-width: 1.2;
}

.ghost line {
  stroke: var(--rule-strong);
}

.ghost .moved line {
  stroke: var(--ink);
  stroke-width: 1.4;
  stroke-dasharray: 3 2;
}

.grip {
  fill: transparent;
  cursor: ns-resize;
}

.grip:hover {
  fill: rgb(43 38 32 / 22%);
}

.grip[aria-disabled='true'] {
  cursor: default;
}

.grip:focus-visible {
  outline: 2px solid var(--focus);
}

.empty {
  display: grid;
  place-items: center;
  width: 132px;
  height: 100%;
  padding: 12px;
  border: 1.5px dashed var(--rule-strong);
  border-radius: 8px;
  text-align: center;
}

p {
  width: 150px;
  margin: 6px 0 0;
}
</style>
