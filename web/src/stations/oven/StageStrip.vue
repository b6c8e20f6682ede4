<script setup lang="ts">
/** The stages as blocks on the time line. A block's right edge is dragged; the last hot one ends when it is done. */
import { computed, shallowRef } from 'vue'
import type { BakeForecast, BakeStage } from '@/api/types'
import { linear } from '@/domain/chart'
import { withBake } from '@/domain/edits'
import { celsiusOf, dialDegrees, minutes, temperatureUnit } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'

const props = defineProps<{ forecast: BakeForecast; span: number }>()
const bench = useBench()
const session = useSession()
const place = computed(() => linear([0, props.span], [0, 100], true))
const at = (value: number): string => `${place.value(value)}%`
const hot = computed(() => props.forecast.stages.filter((s) => s.kind !== 'rest'))
const blocks = computed(() => hot.value.map((s, index) => ({ ...s, index })).filter((s) => !s.moment))
const marks = computed(() => hot.value.map((s, index) => ({ ...s, index })).filter((s) => s.moment))
const lastHot = computed(() => blocks.value.at(-1)?.index ?? -1)
/** What stands in the document, or what is usual, ready to be changed. */
const stages = (): BakeStage[] => props.forecast.planned.map((s) => ({ ...s }))
const put = (next: BakeStage[], pulling = false): void => {
  const edit = pulling ? bench.pull : bench.edit
  edit((doc) => withBake(doc, { stages: next }))
}
const setMinutes = (index: number, value: number, pulling = false): void => {
  put(
    stages().map((s, i) => (i === index ? { ...s, minutes: value } : s)),
    pulling,
  )
}

const strip = shallowRef<HTMLElement>()
const pull = shallowRef<{ index: number; start: number } | null>(null)
function begin(event: PointerEvent, index: number, start: number): void {
  if (!bench.mayEdit || index === lastHot.value) return
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  event.preventDefault()
  pull.value = { index, start }
}
function move(event: PointerEvent): void {
  const box = strip.value?.getBoundingClientRect()
  if (!pull.value || !box) return
  const minute = ((event.clientX - box.left) / box.width) * props.span - pull.value.start
  setMinutes(pull.value.index, Math.max(Math.round(minute * 2) / 2, 0.5), true)
}
function end(): void {
  if (!pull.value) return
  pull.value = null
  bench.endPull()
}
function onKey(event: KeyboardEvent, index: number, now: number): void {
  const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key]
  if (!by || index === lastHot.value || !bench.mayEdit) return
  event.preventDefault()
  setMinutes(index, Math.max(Math.round(now) + by * (event.shiftKey ? 5 : 1), 1))
}
function degrees(index: number, event: Event): void {
  const typed = Number((event.target as HTMLInputElement).value.trim().replace(',', '.'))
  if (!Number.isFinite(typed) || typed <= 0) return
  const celsius = celsiusOf(typed, session.units)
  put(stages().map((s, i) => (i === index ? { ...s, oven_c: Math.round(celsius * 10) / 10 } : s)))
}
const shown = (celsius: number): string => String(dialDegrees(celsius, session.units))
</script>

<template>
  <section class="stages" :aria-label="$t('oven-stage-strip-stages-of-the-bake')">
    <div ref="strip" class="strip">
      <div
        v-for="b in blocks"
        :key="b.index"
        class="block"
        :class="b.kind"
        :style="{ left: at(b.start_min), width: `calc(${at(b.end_min)} - ${at(b.start_min)})` }"
      >
        <b>{{ b.name }}</b>
        <span class="note">{{ $t('oven-stage-strip-min', { start_min: minutes(b.end_min - b.start_min) }) }}</span>
        <span class="note"
          ><input
            :value="shown(b.heat.oven_c)"
            :disabled="!bench.mayEdit"
            inputmode="numeric"
            :aria-label="$t('oven-stage-strip-degrees', { name: b.name })"
            @change="degrees(b.index, $event)"
          />{{ temperatureUnit(session.units) }}{{ b.heat.fan ? ' ' + $t('oven-stage-strip-fan') : '' }}</span
        >
        <i
          v-if="b.index !== lastHot"
          class="edge"
          tabindex="0"
          role="slider"
          :aria-label="$t('oven-stage-strip-minutes', { name: b.name })"
          :aria-valuenow="Math.round(b.end_min - b.start_min)"
          @pointerdown="begin($event, b.index, b.start_min)"
          @pointermove="move"
          @pointerup="end"
          @pointercancel="end"
          @keydown="onKey($event, b.index, b.end_min - b.start_min)"
        />
      </div>
      <span v-if="blocks.length" class="until note" :style="{ left: at(blocks.at(-1)?.end_min ?? 0) }">{{
        $t('oven-stage-strip-until-done')
      }}</span>
      <span v-for="m in marks" :key="m.index" class="moment" :style="{ left: at(m.start_min) }">{{ m.name }}</span>
    </div>
    <div v-if="bench.mayEdit" class="add note">
      {{ $t('oven-stage-strip-add') }}
      <v-btn v-for="more in forecast.additions" :key="more.kind" @click="put([...more.stages])">{{ more.name }}</v-btn>
      <v-btn v-if="bench.document?.bake?.stages?.length" class="usual" @click="put([])">{{
        $t('oven-stage-strip-the-usual-stages')
      }}</v-btn>
    </div>
  </section>
</template>

<style scoped>
.strip {
  position: relative;
  height: 58px;
  border-bottom: 1px solid var(--rule-strong);
}

.block {
  position: absolute;
  top: 0;
  bottom: 4px;
  display: flex;
  flex-direction: column;
  padding: 3px 8px;
  border: 1px solid var(--rule-strong);
  border-radius: 7px;
  background: var(--role-egg);
  color: #2b2620;
  font-size: 13px;
  line-height: 1.25;
  overflow: hidden;
  white-space: nowrap;
}

.block .note {
  color: #4a4036;
}

.block.finish {
  background: var(--role-cheese);
}

.block.broil {
  background: var(--role-binder);
}

.block input {
  width: 34px;
  border: 0;
  border-bottom: 1px dashed currentcolor;
  background: none;
  text-align: right;
}

.edge {
  position: absolute;
  top: 0;
  right: 0;
  bottom: 0;
  width: 10px;
  cursor: ew-resize;
  touch-action: none;
}

.edge:hover,
.edge:focus-visible {
  background: rgb(43 38 32 / 25%);
}

.moment {
  position: absolute;
  bottom: -2px;
  padding: 0 5px;
  border: 1px solid var(--rule-strong);
  border-radius: 5px;
  background: var(--panel);
  font-size: 12px;
  transform: translateX(-50%);
}

.until {
  position: absolute;
  top: 16px;
  padding-left: 8px;
  white-space: nowrap;
}

.add {
  display: flex;
  gap: 10px;
  margin-top: 5px;
}

.add button {
  border-bottom: 1px solid var(--rule-strong);
}

.usual {
  margin-left: auto;
}
</style>
