<script setup lang="ts">
/** One way: its edits to tick, what they move, what holds it. Nothing is taken that was not seen. */
import { computed } from 'vue'
import { api, settled } from '@/api/client'
import type { FormulaDocument, Moved, Way } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { usePanels } from '@/composables/usePanels'
import { figure, minutes, weight, weightUnit } from '@/domain/format'
import { isOutside } from '@/domain/states'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { useSettle } from '@/stores/settle'
import { t } from '@/messages'

const props = defineProps<{ way: Way }>()
const bench = useBench()
const session = useSession()
const settle = useSettle()
const panels = usePanels()
const some = computed(() => settle.ticked.length < settle.edits.length)
/** With an edit left out the figures are others: they are worked out anew. */
const partly = useAsk(
  () => [t('formula-settle-way-preview-of-ticked-changes'), settle.preview],
  (at) => settled(api.POST('/api/kitchens/{kitchen_id}/analyse', { params: { path: at }, body: settle.preview as FormulaDocument })),
  { keep: true, when: () => some.value && settle.preview !== null },
)
const moved = computed<readonly Moved[]>(() => {
  if (!some.value) return props.way.brackets
  const after = new Map((partly.answer.value?.brackets ?? []).map((b) => [b.key, b]))
  return props.way.brackets.map((m) => {
    const b = after.get(m.key)
    return b ? { ...m, after: b.estimate.value, state_after: b.state } : m
  })
})
const outside = (state: string): boolean => isOutside(state as Parameters<typeof isOutside>[0])
const time = (value: number | null | undefined): string => (value == null ? '–' : t('formula-settle-way-min', { value: minutes(value) }))
const mass = computed(
  () =>
    `${weight(props.way.dough_before_g, session.units)} → ${weight(props.way.dough_after_g, session.units)} ${weightUnit(session.units)}`,
)

function accept(): void {
  if (settle.accept()) panels.open.value = 'lines'
}
</script>

<template>
  <div class="way">
    <div>
      <ul class="edits" :aria-label="$t('formula-settle-way-changes')">
        <li v-for="edit in settle.edits" :key="edit.key">
          <v-checkbox
            :model-value="!settle.unticked.has(edit.key)"
            :label="edit.text"
            @update:model-value="settle.tick(edit.key, $event === true)"
          />
        </li>
      </ul>
      <p class="buttons">
        <v-btn class="act-button" :disabled="!settle.fresh || !settle.ticked.length || !bench.mayEdit" @click="accept">
          {{
            some
              ? $t('formula-settle-way-apply-of', { ticked: settle.ticked.length, edits: settle.edits.length })
              : $t('formula-settle-way-apply-all')
          }}
        </v-btn>
        <v-btn
          v-if="(settle.answer?.ways.length ?? 0) > 1"
          class="quiet-button"
          @click="settle.choose((settle.number + 1) % (settle.answer?.ways.length ?? 1))"
          >{{ $t('formula-settle-way-next-option') }}</v-btn
        >
      </p>
      <ul v-if="way.lost.length || way.cautions.length || way.missed.length" class="said-list">
        <li v-for="text in way.missed" :key="text" class="act">{{ $t('formula-settle-way-target-not-met', { text }) }}</li>
        <li v-for="text in [...way.lost, ...way.cautions]" :key="text">{{ text }}</li>
      </ul>
    </div>
    <div>
      <table class="figures">
        <thead>
          <tr>
            <th scope="col">{{ $t('formula-settle-way-effect') }}</th>
            <th scope="col">{{ $t('formula-settle-way-before') }}</th>
            <th scope="col">{{ $t('formula-settle-way-after') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="m in moved" :key="m.key" :data-moved="m.key">
            <th scope="row">
              {{ m.label }} <span class="note">{{ m.unit }}</span>
            </th>
            <td :class="{ act: outside(m.state_before) }">{{ figure(m.before, m.decimals) }}</td>
            <td :class="{ act: outside(m.state_after) }">
              <b>{{ figure(m.after, m.decimals) }}</b>
            </td>
          </tr>
          <template v-if="!some">
            <tr v-if="way.handling">
              <th scope="row">{{ $t('formula-settle-way-handling') }}</th>
              <td>{{ way.handling.before }}</td>
              <td>
                <b>{{ way.handling.after }}</b>
              </td>
            </tr>
            <tr v-for="m in way.texture" :key="m.key">
              <th scope="row">
                {{ m.label }} <span class="note">{{ $t('formula-settle-way-of-10') }}</span>
              </th>
              <td>{{ figure(m.before, 1) }}</td>
              <td>
                <b>{{ figure(m.after, 1) }}</b>
              </td>
            </tr>
            <tr>
              <th scope="row">{{ $t('formula-settle-way-in-the-oven') }}</th>
              <td>{{ time(way.minutes.before) }}</td>
              <td>
                <b>{{ time(way.minutes.after) }}</b>
              </td>
            </tr>
          </template>
        </tbody>
      </table>
      <p class="note">{{ $t('formula-settle-way-dough', { mass }) }}</p>
      <p v-if="way.holds.length" class="note">{{ $t('formula-settle-way-limited-by', { holds: way.holds.join(' · ') }) }}</p>
      <p v-for="text in way.prices" :key="text" class="note">{{ text }}</p>
      <p v-for="s in way.sure" :key="s.key" class="note">{{ s.text }}</p>
    </div>
  </div>
</template>

<style scoped>
.way {
  display: grid;
  grid-template-columns: minmax(240px, 1fr) minmax(0, 1.1fr);
  gap: 10px 28px;
}

.edits {
  margin: 0;
  padding: 0;
  list-style: none;
}

.buttons {
  display: flex;
  gap: 8px;
  margin: 10px 0;
}

.figures {
  width: 100%;
}

p.note {
  margin: 5px 0 0;
}

@media (max-width: 1140px) {
  .way {
    grid-template-columns: 1fr;
  }
}
</style>
