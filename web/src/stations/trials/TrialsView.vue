<script setup lang="ts">
/**
 * Which bakes were good, and which want a look? The eye falls on what was not judged yet and on what went wrong; ticking two puts
 * them side by side, a press opens one.
 */
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, settled } from '@/api/client'
import type { RunRow } from '@/api/types'
import LongRows from '@/components/frame/LongRows.vue'
import MoreRows from '@/components/frame/MoreRows.vue'
import { useDo } from '@/composables/useDo'
import { usePages } from '@/composables/usePages'
import { download } from '@/domain/download'
import { ago } from '@/domain/format'
import { useSession } from '@/stores/session'
import { useToasts } from '@/stores/toasts'
import FigureLine from './FigureLine.vue'
import { t } from '@/messages'

const props = defineProps<{ formulaId?: number }>()
const router = useRouter()
const session = useSession()
const toasts = useToasts()
const trials = usePages(
  () => ['trials', props.formulaId ?? 0],
  async (at, offset) => {
    const { runs, total } = await settled(
      api.GET('/api/kitchens/{kitchen_id}/runs', { params: { path: at, query: { formula_id: props.formulaId ?? 0, offset } } }),
    )
    return { items: runs, total }
  },
)
const rows = trials.items
const faultWords = computed(() => new Map(session.words?.faults.map((f) => [f.id, f.name])))
const ticked = ref<number[]>([])
const tick = (id: number): void => {
  ticked.value = ticked.value.includes(id) ? ticked.value.filter((one) => one !== id) : [...ticked.value, id].slice(-8)
}
const compare = (): void => {
  void router.push(`/trials/compare?runs=${ticked.value.join(',')}`)
}
const filing = useDo((style: string, at) =>
  settled(api.GET('/api/kitchens/{kitchen_id}/runs-file', { params: { path: at, query: { style } } })),
)
async function save(style: string): Promise<void> {
  const file = await filing.run(style)
  if (!file) return
  download(file.name, file.text, style === 'csv' ? 'text/csv' : 'application/json')
}
const taking = useDo(
  (file: Record<string, unknown>, at) =>
    settled(api.POST('/api/kitchens/{kitchen_id}/runs-file', { params: { path: at }, body: { file } })),
  {
    then: (out) => {
      toasts.show(out.runs ? t('trials-trials-view-imported', { runs: out.runs }) : t('trials-trials-view-all-bakes-in-this-file-are'))
    },
  },
)
async function take(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const text = await input.files?.[0]?.text()
  input.value = ''
  if (text === undefined) return
  try {
    await taking.run(JSON.parse(text) as Record<string, unknown>)
  } catch {
    toasts.show(t('trials-trials-view-this-file-is-not-json-choose'), { tone: 'act' })
  }
}
const state = (r: RunRow): string =>
  r.judged
    ? r.liked === ''
      ? 'judged'
      : r.liked
    : r.finished_at
      ? t('trials-trials-view-not-rated-yet')
      : t('trials-trials-view-in-progress')
const address = (r: RunRow): string => (r.finished_at ? `/trials/${r.id}` : `/run/${r.id}`)
</script>

<template>
  <div class="page">
    <header>
      <h2>{{ $t('trials-trials-view-results') }}</h2>
      <router-link class="quiet-button" to="/trials/learned">{{ $t('trials-trials-view-what-we-learned') }}</router-link>
      <v-btn class="act-button" :disabled="ticked.length < 2" @click="compare">{{
        $t('trials-trials-view-compare', { ticked: ticked.length ? ` (${ticked.length})` : '' })
      }}</v-btn>
      <label v-if="session.may('bakes.edit')" class="quiet-button take"
        ><input type="file" accept="application/json,.json" class="visually-hidden" @change="take" />{{
          $t('trials-trials-view-from-a-file')
        }}</label
      >
      <v-btn class="quiet-button" @click="save('csv')">{{ $t('trials-trials-view-csv') }}</v-btn>
      <v-btn class="quiet-button" @click="save('json')">{{ $t('trials-trials-view-json') }}</v-btn>
    </header>
    <FigureLine v-if="rows.length > 1" :formula-id="formulaId ?? 0" />
    <table v-if="rows.length">
      <thead>
        <tr>
          <th>
            <span class="visually-hidden">{{ $t('trials-trials-view-side-by-side') }}</span>
          </th>
          <th>{{ $t('trials-trials-view-bake') }}</th>
          <th>{{ $t('trials-trials-view-when') }}</th>
          <th>{{ $t('trials-trials-view-how-it-was') }}</th>
          <th>{{ $t('trials-trials-view-faults') }}</th>
        </tr>
      </thead>
      <tbody>
        <LongRows :items="rows" item-key="id" :item-height="41">
          <template #default="{ item: r, itemRef }">
            <tr :ref="itemRef" :class="{ out: r.left_out }">
              <td>
                <v-checkbox-btn
                  :model-value="ticked.includes(r.id)"
                  :aria-label="$t('trials-trials-view-select-to-compare', { name: r.name, started_at: ago(r.started_at) })"
                  @update:model-value="tick(r.id)"
                />
              </td>
              <td>
                <router-link :to="address(r)"
                  ><b>{{ r.name }}</b></router-link
                >{{ ' ' }}
                <span class="note">
                  {{ r.number ? `v${r.number}` : $t('trials-trials-view-draft') }}{{ r.batches === 1 ? '' : ` · ${r.batches} ×` }} ·
                  {{ r.by }}</span
                >
              </td>
              <td>{{ ago(r.started_at) }}</td>
              <td>
                <span class="liked" :class="r.liked || 'open'">{{ state(r) }}</span><span v-if="r.left_out" class="note">
                  {{ $t('trials-trials-view-left-out') }}</span
                >
              </td>
              <td>{{ r.faults.map((f) => faultWords.get(f) ?? f).join(', ') }}</td>
            </tr>
          </template>
        </LongRows>
      </tbody>
    </table>
    <p v-else-if="!trials.waiting.value && !trials.trouble.value" class="note">
      {{ $t('trials-trials-view-no-results-yet-start-a-bake') }}
    </p>
    <p v-if="trials.trouble.value" role="alert">
      {{ trials.trouble.value }} <v-btn class="quiet-button" @click="trials.again()">{{ $t('trials-trials-view-try-again') }}</v-btn>
    </p>
    <MoreRows :left="trials.left.value" :busy="trials.busy.value" @more="trials.more" />
  </div>
</template>

<style scoped>
.page {
  position: relative;
  height: 100%;
  padding: 16px 24px 40px;
  overflow-y: auto;
}

header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  margin-bottom: 10px;
}

h2 {
  flex: 1;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th {
  padding: 4px 8px;
  color: var(--ink-2);
  font-size: 12px;
  font-weight: 400;
  text-align: left;
}

td {
  padding: 6px 8px;
  border-top: 1px solid var(--rule);
}

tr:hover td {
  background: var(--select);
}

.out {
  color: var(--ink-2);
}

a {
  text-decoration: none;
}

.liked {
  padding: 2px 9px;
  border-radius: 9px;
  background: var(--rail);
}

.liked.good {
  background: var(--in-soft);
  color: var(--in);
}

.liked.bad {
  background: var(--act-soft);
  color: var(--act);
}

.liked.open {
  border: 1px dashed var(--rule-strong);
  background: none;
}

.take {
  cursor: pointer;
}

.take:focus-within {
  outline: 2px solid var(--focus);
}

.quiet-button {
  text-decoration: none;
}

@media (max-width: 700px) {
  .page {
    padding: 10px 12px 40px;
  }

  td:nth-child(3),
  th:nth-child(3) {
    display: none;
  }
}
</style>
