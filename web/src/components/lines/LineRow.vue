<script setup lang="ts">
import { mdiLockOpenVariantOutline, mdiLock } from '@mdi/js'
import { computed, ref, watch } from 'vue'
import type { LineDocument } from '@/api/types'
import RoleSwatch from '@/components/core/RoleSwatch.vue'
import { enteredAmount, withLine, withoutLine } from '@/domain/edits'
import { decimals, weight } from '@/domain/format'
import { inWords } from '@/api/client'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { useToasts } from '@/stores/toasts'
import RoleMenu from './RoleMenu.vue'
import { t } from '@/messages'

const props = defineProps<{ line: LineDocument; index: number; hasBase: boolean; unit: 'g' | 'oz' | string; dragged: boolean }>()
const emit = defineEmits<{
  next: [column: string]
  step: [by: number]
  dragStart: [event: PointerEvent]
  dragMove: [event: PointerEvent]
  dragEnd: []
}>()
const bench = useBench()
const session = useSession()
const toasts = useToasts()

const reading = computed(() => bench.readings.get(props.line.id))
const problem = computed(() => bench.problems.get(props.line.id))
const grams = computed(() => props.line.grams ?? reading.value?.grams ?? null)
const role = computed(() => props.line.role || known.value?.role || 'base')
/** Also for a line that could not be weighed: its name and role are still known. */
const known = computed(() => bench.reading(props.line))
const name = computed(() => known.value?.name ?? (problem.value?.name || props.line.note || t('frame-line-row-unknown-ingredient')))
const pack = computed(() => (props.line.lot ? reading.value?.pack || t('frame-line-row-a-pack-of-another-kitchen') : ''))
const beside = computed(() => [pack.value, props.line.treatment, props.line.note].filter(Boolean).join(' · '))
/** Typed grams say nothing that the weight does not: only measures are repeated beside it. */
const measure = computed(() => (/^[\d.,\s]+g$/.test(props.line.entered ?? '') ? '' : (props.line.entered ?? '')))

const measured = ref('')
const weighed = ref('')
const editing = ref('')
function begin(column: string, event?: Event): void {
  editing.value = column
  bench.selected = props.line.id
  ;(event?.target as HTMLInputElement | undefined)?.select()
}
watch(
  measure,
  (now) => {
    if (editing.value !== 'measured') measured.value = now
  },
  { immediate: true },
)
watch(
  [grams, () => session.units],
  ([now]) => {
    if (editing.value !== 'weighed') weighed.value = now === null ? '' : weight(now, session.units)
  },
  { immediate: true },
)

function change(text: string): void {
  if (text.trim()) bench.edit((doc) => withLine(doc, props.line.id, enteredAmount(text, session.units === 'us' ? 'oz' : 'g')))
}

function leave(column: 'measured' | 'weighed'): void {
  editing.value = ''
  const before = column === 'measured' ? measure.value : grams.value === null ? '' : weight(grams.value, session.units)
  const now = column === 'measured' ? measured.value : weighed.value
  if (now.trim() !== before.trim()) change(now)
  if (column === 'weighed' && grams.value !== null && !now.trim()) weighed.value = before
}

function onKey(event: KeyboardEvent, column: 'measured' | 'weighed'): void {
  if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
    event.preventDefault()
    emit('step', event.key === 'ArrowUp' ? -1 : 1)
  } else if (event.key === 'Enter') {
    leave(column)
    emit('next', column)
  } else if (event.key === 'Escape') {
    measured.value = measure.value
    weighed.value = grams.value === null ? '' : weight(grams.value, session.units)
    ;(event.target as HTMLInputElement).blur()
  } else if (column === 'weighed' && (event.key === 'ArrowUp' || event.key === 'ArrowDown') && grams.value !== null) {
    event.preventDefault()
    stepBy((reading.value?.step_g ?? 1) * (event.shiftKey ? 10 : 1) * (event.key === 'ArrowUp' ? 1 : -1))
  }
}

function stepBy(step: number): void {
  const now = Math.max(0, Math.round(((grams.value ?? 0) + step) * 10) / 10)
  weighed.value = weight(now, session.units)
  bench.edit((doc) => withLine(doc, props.line.id, { grams: now, entered: `${now} g` }))
}

function take(): void {
  const { id } = props.line
  bench.edit((doc) => withoutLine(doc, id))
  toasts.show(t('frame-line-row-removed', { value: name.value }), {
    action: {
      label: t('frame-line-row-restore'),
      run: () => {
        bench.goBack()
      },
    },
  })
}
</script>

<template>
  <div
    class="line"
    :class="{ on: bench.selected === line.id, dragged, wrong: problem }"
    role="row"
    :data-row="index"
    :data-line="line.id"
    @pointerdown="bench.selected = line.id"
  >
    <span
      role="cell"
      class="handle"
      data-handle
      tabindex="0"
      :aria-label="$t('frame-line-row-press-alt-and-an-arrow-key', { name, role })"
      :title="$t('frame-line-row-drag-to-reorder')"
      @pointerdown="emit('dragStart', $event)"
      @pointermove="emit('dragMove', $event)"
      @pointerup="emit('dragEnd')"
      @pointercancel="emit('dragEnd')"
      @keydown.alt.up.prevent="emit('step', -1)"
      @keydown.alt.down.prevent="emit('step', 1)"
      ><RoleSwatch :role="role"
    /></span>
    <span role="cell" class="name">
      <RoleMenu :line="line" :role="role" :name="name" :usual="reading?.source ?? ''" />
      <span v-if="beside" class="note beside" :title="beside">{{ beside }}</span>
    </span>
    <span role="cell">
      <input
        v-model="measured"
        class="cell"
        data-column="measured"
        :aria-label="$t('frame-line-row-as-measured', { name })"
        :placeholder="editing === 'measured' ? $t('frame-line-row-1-1-2-cup') : ''"
        :readonly="!bench.mayEdit"
        autocomplete="off"
        @focus="begin('measured')"
        @blur="leave('measured')"
        @keydown="onKey($event, 'measured')"
      />
    </span>
    <span role="cell" class="weighs">
      <input
        v-model="weighed"
        class="cell right strong"
        data-column="weighed"
        :aria-label="$t('frame-line-row-weighs', { name })"
        inputmode="decimal"
        :readonly="!bench.mayEdit"
        :title="
          reading
            ? $t('frame-line-row-likely-9-in-10', {
                grams_low: weight(reading.grams_low, session.units),
                grams_high: weight(reading.grams_high, session.units),
                unit,
              })
            : ''
        "
        autocomplete="off"
        @focus="begin('weighed', $event)"
        @blur="leave('weighed')"
        @keydown="onKey($event, 'weighed')"
      />
      <span class="note">{{ unit }}</span>
    </span>
    <span role="cell" class="right share">{{
      reading?.bakers_percent != null && hasBase ? decimals(reading.bakers_percent, 1) : '–'
    }}</span>
    <span role="cell" class="mid">
      <button
        class="lock"
        :class="{ locked: line.locked }"
        :aria-pressed="line.locked ?? false"
        :aria-label="$t('frame-line-row-lock', { name })"
        :disabled="!bench.mayEdit"
        @click="bench.edit((doc) => withLine(doc, line.id, { locked: !line.locked }))"
      >
        <v-icon :icon="line.locked ? mdiLock : mdiLockOpenVariantOutline" size="15" />
      </button>
    </span>
    <span role="cell" class="mid"
      ><button v-if="bench.mayEdit" class="out" :aria-label="$t('frame-line-row-remove', { name })" @click="take">×</button></span
    >
    <p v-if="problem" class="problem" role="alert">
      {{ inWords(problem) }}
    </p>
  </div>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 46px minmax(120px, 1fr) 116px 88px 82px 42px 26px;
  align-items: center;
  min-height: 31px;
  border-bottom: 1px solid var(--rule);
}

.line.on {
  background: var(--select);
}

.line.dragged {
  opacity: 0.6;
}

.handle {
  display: grid;
  place-items: center;
  cursor: grab;
  touch-action: none;
}

.name {
  display: flex;
  align-items: baseline;
  gap: 8px;
  min-width: 0;
  overflow: hidden;
}

.beside {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.cell {
  width: 100%;
  height: 27px;
  padding: 0 6px;
  margin-left: -6px;
  border: 1px solid transparent;
  border-radius: 6px;
  background: transparent;
  text-overflow: ellipsis;
}

.cell:hover:not([readonly]) {
  border-color: var(--rule-strong);
}

.cell:focus {
  border-color: var(--focus);
  background: var(--panel);
  outline: 1px solid var(--focus);
}

.weighs {
  display: flex;
  align-items: baseline;
  gap: 3px;
  padding-right: 14px;
}

.strong {
  font-weight: 700;
  font-size: 15px;
}

.right {
  text-align: right;
}

.share {
  padding-right: 12px;
  color: var(--ink-2);
}

.mid {
  display: grid;
  place-items: center;
}

.lock {
  color: var(--rule-strong);
}

.lock.locked {
  color: var(--ink);
}

.out {
  width: 22px;
  color: var(--ink-2);
  font-size: 16px;
  opacity: 0;
}

.line:hover .out,
.out:focus-visible {
  opacity: 1;
}

.problem {
  grid-column: 2 / -1;
  margin: 0 12px 6px 0;
  color: var(--act);
  font-size: 12px;
}

@media (max-width: 1140px) {
  .line {
    grid-template-columns: 42px minmax(90px, 1fr) 78px 74px 60px 34px 22px;
  }
}

@media (max-width: 700px) {
  .line {
    grid-template-columns: 36px minmax(70px, 1fr) 72px 74px 44px;
    min-height: 44px;
  }

  .line > :nth-child(5),
  .line > :nth-child(6) {
    display: none;
  }

  .out {
    width: 44px;
    height: 44px;
    opacity: 1;
  }
}
</style>
