<script setup lang="ts">
/** The kitchen's own pans and trays: typed once, then chosen like any other. */
import { computed, reactive, ref } from 'vue'
import { api, settled } from '@/api/client'
import type { ShapePlan } from '@/api/types'
import { useDo } from '@/composables/useDo'
import { inLength, length, lengthUnit, millimetresOf } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'

const props = defineProps<{ pans: ShapePlan['pans'] }>()
const emit = defineEmits<{ kept: [] }>()
const session = useSession()
const bench = useBench()
const own = computed(() => props.pans.filter((p) => p.id.startsWith('own-')))
const open = ref(false)
const fresh = reactive({ name: '', kind: 'tray', length_mm: '', width_mm: '', height_mm: '' })

type OwnPan = { name: string; kind: string; length_mm: number; width_mm: number; height_mm: number }
const keeping = useDo(
  (pans: OwnPan[], at) =>
    settled(
      api.PUT('/api/kitchens/{kitchen_id}/pans', {
        params: { path: at },
        body: {
          seen: own.value.map((p) => p.id),
          pans: pans.map(({ name, kind, length_mm, width_mm, height_mm }) => ({
            id: '',
            name,
            kind,
            length_mm,
            width_mm,
            height_mm,
            region: '',
            taper: 1,
            source: '',
          })),
        },
      }),
    ),
  {
    here: true,
    then: () => {
      Object.assign(fresh, { name: '', length_mm: '', width_mm: '', height_mm: '' })
      emit('kept')
    },
  },
)
const { trouble } = keeping
const keep = (pans: OwnPan[]): Promise<unknown> => keeping.run(pans)
const measured = (typed: string): number => millimetresOf(Number(typed.replace(',', '.')), session.units)
const add = (): Promise<unknown> =>
  keep([
    ...own.value,
    {
      name: fresh.name,
      kind: fresh.kind,
      length_mm: measured(fresh.length_mm),
      width_mm: measured(fresh.width_mm || fresh.length_mm),
      height_mm: fresh.height_mm ? measured(fresh.height_mm) : 20,
    },
  ])
</script>

<template>
  <section class="own">
    <v-btn class="note toggle" :aria-expanded="open" @click="open = !open">{{
      $t('shape-own-pans-your-own-pans-and-trays', { its: own.length })
    }}</v-btn>
    <div v-if="open">
      <ul>
        <li v-for="p in own" :key="p.id">
          {{ p.name }}, {{ p.kind }}, {{ length(p.length_mm, session.units) }} × {{ length(p.width_mm, session.units) }} ×
          {{ inLength(p.height_mm, session.units) }}
          <v-btn v-if="bench.mayEdit" class="note" @click="keep(own.filter((o) => o.id !== p.id))">{{ $t('shape-own-pans-remove') }}</v-btn>
        </li>
      </ul>
      <form v-if="bench.mayEdit" @submit.prevent="add">
        <v-text-field
          v-model="fresh.name"
          class="field"
          :placeholder="$t('shape-own-pans-name')"
          :aria-label="$t('shape-own-pans-name-of-the-pan')"
          maxlength="80"
          required
        />
        <v-select
          v-model="fresh.kind"
          class="field"
          :aria-label="$t('shape-own-pans-pan-type')"
          :items="[...(session.words?.pan_kinds ?? []).map((k) => ({ value: k, title: k }))]"
        />
        <v-text-field
          v-model="fresh.length_mm"
          class="field short"
          :placeholder="$t('shape-own-pans-length')"
          inputmode="decimal"
          :aria-label="$t('shape-own-pans-inner-length-or-diameter', { unit: lengthUnit(session.units) })"
          required
        />
        <v-text-field
          v-if="fresh.kind !== 'round'"
          v-model="fresh.width_mm"
          class="field short"
          :placeholder="$t('shape-own-pans-width')"
          inputmode="decimal"
          :aria-label="$t('shape-own-pans-inner-width', { unit: lengthUnit(session.units) })"
        />
        <v-text-field
          v-model="fresh.height_mm"
          class="field short"
          :placeholder="$t('shape-own-pans-height')"
          inputmode="decimal"
          :aria-label="$t('shape-own-pans-inner-height', { unit: lengthUnit(session.units) })"
        />
        {{ lengthUnit(session.units) }}
        <v-btn type="submit" class="quiet-button">{{ $t('shape-own-pans-save') }}</v-btn>
      </form>
      <p v-if="trouble" role="alert" class="act">{{ trouble }}</p>
    </div>
  </section>
</template>

<style scoped>
.toggle {
  border-bottom: 1px solid var(--rule-strong);
}

ul {
  margin: 6px 0;
  padding: 0;
  list-style: none;
  font-size: 13px;
}

form {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}

.field {
  width: 150px;
  --field-height: 28px;
}

.field.short {
  width: 76px;
}
</style>
