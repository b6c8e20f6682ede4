<script setup lang="ts">
/** The lines, edited where they stand. */
import { computed, nextTick, ref } from 'vue'
import { movedLine } from '@/domain/edits'
import { weightUnit } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import AddLine from './AddLine.vue'
import LineRow from './LineRow.vue'

const ROW = 31
const bench = useBench()
const session = useSession()
const table = ref<HTMLElement>()
const dragged = ref('')
const hasBase = computed(() => (bench.analysis?.totals.dry_base_g ?? 0) > 0)

/** Enter leads to the same column of the next line, and from the last one to the line that adds. */
function next(index: number, column: string): void {
  void nextTick(() => {
    const field = table.value?.querySelector<HTMLInputElement>(`[data-row="${index + 1}"] [data-column="${column}"]`)
    if (field) {
      field.focus()
      field.select()
    } else {
      table.value?.querySelector<HTMLInputElement>('[data-finder]')?.focus()
    }
  })
}

function step(id: string, by: number): void {
  const from = bench.lines.findIndex((line) => line.id === id)
  bench.edit((doc) => movedLine(doc, id, from + by))
  void nextTick(() => table.value?.querySelector<HTMLElement>(`[data-line="${id}"] [data-handle]`)?.focus())
}

function dragStart(event: PointerEvent, id: string): void {
  if (!bench.mayEdit) return
  dragged.value = id
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}

function dragMove(event: PointerEvent): void {
  const body = table.value?.querySelector('.rows')
  if (!dragged.value || !body) return
  const to = Math.max(0, Math.min(Math.floor((event.clientY - body.getBoundingClientRect().top) / ROW), bench.lines.length - 1))
  const from = bench.lines.findIndex((line) => line.id === dragged.value)
  if (from !== to) bench.pull((doc) => movedLine(doc, dragged.value, to))
}

function dragEnd(): void {
  dragged.value = ''
  bench.endPull()
}
</script>

<template>
  <section ref="table" class="table">
    <div role="table" :aria-label="$t('frame-line-table-ingredients')">
      <div class="head note" role="row">
        <span role="columnheader"
          ><span class="visually-hidden">{{ $t('frame-line-table-role') }}</span></span
        >
        <span role="columnheader">{{ $t('frame-line-table-ingredient') }}</span>
        <span role="columnheader">{{ $t('frame-line-table-as-entered') }}</span>
        <span role="columnheader" class="right">{{ $t('frame-line-table-weighs') }}</span>
        <span role="columnheader" class="right" :title="$t('frame-line-table-bakers-percent-share-of-the-dry')">{{
          $t('frame-line-table-bakers')
        }}</span>
        <span role="columnheader" class="mid">{{ $t('frame-line-table-lock') }}</span>
        <span role="columnheader"
          ><span class="visually-hidden">{{ $t('frame-line-table-remove') }}</span></span
        >
      </div>
      <div class="rows" role="rowgroup">
        <LineRow
          v-for="(line, index) in bench.lines"
          :key="line.id"
          :line="line"
          :index="index"
          :has-base="hasBase"
          :unit="weightUnit(session.units)"
          :dragged="dragged === line.id"
          @next="next(index, $event)"
          @step="step(line.id, $event)"
          @drag-start="dragStart($event, line.id)"
          @drag-move="dragMove"
          @drag-end="dragEnd"
        />
      </div>
    </div>
    <AddLine v-if="bench.mayEdit" />
  </section>
</template>

<style scoped>
.table {
  border: 1px solid var(--rule);
  border-radius: 10px;
  background: var(--panel);
}

.head {
  display: grid;
  grid-template-columns: 46px minmax(120px, 1fr) 116px 88px 82px 42px 26px;
  align-items: center;
  height: 34px;
  border-bottom: 1px solid var(--rule-strong);
}

.right {
  padding-right: 14px;
  text-align: right;
}

.mid {
  text-align: center;
}

@media (max-width: 1140px) {
  .head {
    grid-template-columns: 42px minmax(90px, 1fr) 78px 74px 60px 34px 22px;
  }
}

/* A phone has room for what, how it was measured, how much, and taking it out. */
@media (max-width: 700px) {
  .head {
    grid-template-columns: 36px minmax(70px, 1fr) 72px 74px 44px;
  }

  .head > :nth-child(5),
  .head > :nth-child(6) {
    display: none;
  }
}
</style>
