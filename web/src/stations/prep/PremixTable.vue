<script setup lang="ts">
/** The dry things: for one batch and for the premix, with the weight that the scale really showed. */
import { reactive } from 'vue'
import type { PrepTask } from '@/api/types'
import { withLine } from '@/domain/edits'
import { gramsOf, weight, weightUnit } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'

defineProps<{ premix: NonNullable<PrepTask['premix']> }>()
const emit = defineEmits<{ weighing: [] }>()
const bench = useBench()
const session = useSession()

const typed = reactive<Record<string, string>>({})
function weighed(line: string): void {
  const grams = gramsOf(Number((typed[line] ?? '').trim().replace(',', '.')), session.units)
  if (!Number.isFinite(grams) || grams <= 0) return
  emit('weighing')
  bench.edit((doc) => withLine(doc, line, { grams, entered: `${grams} g` }))
  typed[line] = ''
}
</script>

<template>
  <div class="premix">
    <div class="bar" aria-hidden="true">
      <i v-for="p in premix.parts" :key="p.line" :style="{ flexGrow: p.share, background: `var(--role-${p.role})` }" :title="p.name"
        ><b v-if="p.share > 0.07">{{ p.code }}</b></i
      >
    </div>
    <table class="figures">
      <thead>
        <tr>
          <th>{{ $t('prep-premix-table-dry-ingredient') }}</th>
          <th>{{ $t('prep-premix-table-one-batch') }}</th>
          <th>{{ premix.batches }} {{ $t('prep-premix-table-value', { batches: premix.batches }) }}</th>
          <th>{{ $t('prep-premix-table-on-the-scale') }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="p in premix.parts" :key="p.line">
          <th scope="row">{{ p.name }}</th>
          <td>{{ weight(p.grams, session.units) }} {{ weightUnit(session.units) }}</td>
          <td>{{ weight(p.whole_g, session.units) }} {{ weightUnit(session.units) }}</td>
          <td>
            <v-text-field
              v-model="typed[p.line]"
              class="field"
              :placeholder="weight(p.grams, session.units)"
              :disabled="!bench.mayEdit"
              inputmode="decimal"
              :aria-label="$t('prep-premix-table-on-the-scale-2', { name: p.name, unit: weightUnit(session.units) })"
              @change="weighed(p.line)"
            />
            {{ weightUnit(session.units) }}
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  height: 20px;
  margin-bottom: 6px;
  border-radius: 4px;
  overflow: hidden;
}

.bar i {
  display: flex;
  align-items: center;
  justify-content: center;
  min-width: 2px;
  border-right: 1px solid var(--panel);
}

.bar b {
  padding: 0 4px;
  border-radius: 4px;
  background: var(--panel);
  color: var(--ink);
  font: 600 12px/15px var(--text);
}

table {
  width: 100%;
}

.field {
  width: 70px;
  --field-height: 24px;
  text-align: right;
}
</style>
