<script setup lang="ts">
/** How the columns of a file are read, and some of its rows. */
import { computed } from 'vue'
import type { PackImport } from '@/api/types'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

const props = defineProps<{ found: PackImport }>()
const emit = defineEmits<{ match: [change: Partial<Pick<PackImport, 'columns' | 'style' | 'per_100'>>] }>()
const session = useSession()
const figures = computed(() => new Map(session.words?.label_figures.map((f) => [f.id, `${f.name}, ${f.unit}`]) ?? []))
const fieldName = (id: string): string =>
  figures.value.get(id) ??
  {
    per_g: 'serving',
    pack_g: t('pantry-import-columns-pack-weight'),
    use_by: t('pantry-import-columns-use-by'),
    bought_on: t('pantry-import-columns-bought-on'),
    may_contain: t('pantry-import-columns-may-contain'),
  }[id] ??
  id

function setColumn(at: number, field: string): void {
  emit('match', { columns: props.found.columns.map((f, i) => (i === at ? field : f === field ? '' : f)) })
}
</script>

<template>
  <div>
    <div class="options">
      <v-radio-group
        :label="$t('pantry-import-columns-labels-are')"
        hide-details="auto"
        :model-value="found.style"
        :disabled="!session.may('packs.edit')"
        :error-messages="found.style ? [] : [$t('pantry-import-columns-the-file-does-not-say-which')]"
        @update:model-value="emit('match', { style: $event === 'eu' ? 'eu' : 'us' })"
      >
        <v-radio value="us" :label="$t('pantry-import-columns-united-states-carbohydrate-includes-fiber')" />
        <v-radio value="eu" :label="$t('pantry-import-columns-european-carbohydrate-excludes-fiber')" />
      </v-radio-group>
      <v-radio-group
        :label="$t('pantry-import-columns-values-are')"
        :model-value="found.per_100"
        :disabled="!session.may('packs.edit')"
        @update:model-value="emit('match', { per_100: $event === true })"
      >
        <v-radio :value="true" :label="$t('pantry-import-columns-per-100-g')" />
        <v-radio :value="false" :label="$t('pantry-import-columns-per-serving-serving-size-in-a')" />
      </v-radio-group>
    </div>
    <div class="scroll">
      <table>
        <thead>
          <tr>
            <th class="note">{{ $t('pantry-import-columns-row') }}</th>
            <th v-for="(h, i) in found.headers" :key="i">{{ h || '–' }}</th>
            <th>{{ $t('pantry-import-columns-read-as') }}</th>
          </tr>
          <tr class="as">
            <td class="note">{{ $t('pantry-import-columns-is') }}</td>
            <td v-for="(f, i) in found.columns" :key="i">
              <v-select
                class="field"
                :class="{ none: !f }"
                :model-value="f"
                :disabled="!session.may('packs.edit')"
                :aria-label="$t('pantry-import-columns-column-is', { headers: found.headers[i] })"
                @update:model-value="setColumn(i, $event)"
                :items="[
                  { value: '', title: $t('pantry-import-columns-left-out') },
                  ...(session.words?.import_fields ?? []).map((id_) => ({ value: id_, title: fieldName(id_) })),
                ]"
              />
            </td>
            <td />
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in found.rows" :key="r.number" :class="{ bad: r.problem }">
            <td class="note">{{ r.number }}</td>
            <td v-for="(c, i) in r.cells" :key="i" :class="{ none: !found.columns[i] }">{{ c }}</td>
            <td>{{ r.problem ? r.problem.what : r.ingredient }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
.options {
  display: flex;
  gap: 40px;
  margin-bottom: 10px;
}

.scroll {
  overflow-x: auto;
  border: 1px solid var(--rule);
  border-radius: 10px;
  background: var(--panel);
}

table {
  border-collapse: collapse;
  font-size: 13px;
}

th,
td {
  padding: 5px 10px;
  border-bottom: 1px solid var(--rule);
  text-align: left;
  white-space: nowrap;
  max-width: 220px;
  overflow: hidden;
  text-overflow: ellipsis;
}

.as .field {
  min-width: 112px;
  --field-height: 28px;
  border-color: var(--in);
  font-size: 12px;
}

.as .field.none,
td.none {
  color: var(--ink-2);
  opacity: 0.75;
  border-color: var(--rule-strong);
}

tr.bad td:last-child {
  color: var(--act);
}
</style>
