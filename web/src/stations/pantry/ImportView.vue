<script setup lang="ts">
/**
 * Import decides how a file's columns are read and whether its good rows are kept. The eye falls on the columns
 * with what each is taken for, then on the rows that cannot be read; nothing is in the pantry until all is kept at once.
 */
import { computed, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, inWords, settled } from '@/api/client'
import type { BadRow, PackImport } from '@/api/types'
import JobProgress from '@/components/frame/JobProgress.vue'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { useJob } from '@/composables/useJob'
import { useSession } from '@/stores/session'
import ImportColumns from './ImportColumns.vue'
import ImportStart from './ImportStart.vue'
import PantryBar from './PantryBar.vue'

const props = defineProps<{ id: number }>()
const session = useSession()
const router = useRouter()
const asked = useAsk(
  () => ['import', props.id],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/imports/{import_id}', { params: { path: { ...at, import_id: props.id } } })),
  { when: () => props.id > 0, keep: true },
)
const found = computed<PackImport | null>(() => (asked.answer.value?.id === props.id ? asked.answer.value : null))
const missing = computed(() => asked.missing.value)
const { job, underWay, trouble, start: startJob, follow, stop: stopJob } = useJob()
/** After a reload the job that was under way is followed again; when it is over, the import has moved on. */
watch(
  () => found.value?.job?.id,
  () => {
    if (found.value?.job && job.value?.id !== found.value.job.id) follow(found.value.job)
  },
)
watch(
  () => job.value?.state,
  (now) => {
    if (now === 'done' || now === 'failed' || now === 'stopped') void asked.again()
  },
)
watch(
  () => props.id,
  () => {
    follow(null)
  },
)

const reading = useDo(
  ({ name, content }: { name: string; content: string }, at) =>
    settled(api.POST('/api/kitchens/{kitchen_id}/imports', { params: { path: at }, body: { file_name: name, text: content } })),
  { then: (made) => router.push(`/pantry/import/${made.id}`) },
)
const start = (name: string, content: string): Promise<unknown> => reading.run({ name, content })

const matching = useDo((columns: Pick<PackImport, 'columns' | 'style' | 'per_100'>, at) =>
  settled(
    api.PUT('/api/kitchens/{kitchen_id}/imports/{import_id}/columns', { params: { path: { ...at, import_id: props.id } }, body: columns }),
  ),
)
function match(change: Partial<Pick<PackImport, 'columns' | 'style' | 'per_100'>>): void {
  if (!found.value) return
  const { columns, style, per_100 } = { ...found.value, ...change }
  void matching.run({ columns, style, per_100 })
}
const go = (kind: 'import-check' | 'import-save'): void => {
  void startJob({ kind, import_id: props.id })
}
const givingUp = useDo((id: number, at) =>
  settled(api.POST('/api/kitchens/{kitchen_id}/imports/{import_id}/stop', { params: { path: { ...at, import_id: id } } })),
)

const why = (row: BadRow): string => inWords(row)
</script>

<template>
  <div class="page">
    <PantryBar :title="$t('pantry-import-view-import-packs')" />
    <p v-if="missing" class="start" role="alert">
      {{ missing }} <router-link class="quiet-button" to="/pantry/import">{{ $t('pantry-import-view-start-again') }}</router-link>
    </p>
    <ImportStart v-else-if="!id" @read="start" />
    <div v-else-if="found" class="page-sheet">
      <p class="head">
        <b class="figure">{{ found.file_name }}</b>{{ ' '
        }}<span class="note">{{ $t('pantry-import-view-products', { total: found.total, kind: found.kind }) }}</span>
      </p>
      <ImportColumns v-if="found.headers.length" :found="found" @match="match" />
      <p v-if="underWay && job" class="progress">
        <JobProgress
          :job="job"
          :what="job.kind === 'import-check' ? $t('pantry-import-view-reviewed') : $t('pantry-import-view-imported')"
          @stop="stopJob"
        />
      </p>
      <p v-if="trouble" role="alert" class="act">{{ trouble }}</p>
      <p v-if="found.state === 'checked' || found.state === 'saved'" class="result">
        <b>{{ found.good }}</b> {{ $t('pantry-import-view-ready-to-import')
        }}<span v-if="found.odd"
          >, <b>{{ found.odd }}</b> {{ $t('pantry-import-view-of-these-have-a-label-to') }}</span
        >; <b>{{ found.total - found.good }}</b> {{ $t('pantry-import-view-cannot') }}
      </p>
      <div v-if="session.may('packs.edit') && !underWay" class="actions">
        <v-btn v-if="found.state === 'matching'" class="act-button" @click="go('import-check')">{{
          $t('pantry-import-view-review-all', { total: found.total })
        }}</v-btn>
        <v-btn v-if="found.state === 'checked'" class="act-button" :disabled="!found.good" @click="go('import-save')">{{
          $t('pantry-import-view-import-valid-rows', { good: found.good })
        }}</v-btn>
        <v-btn v-if="found.state === 'matching' || found.state === 'checked'" class="quiet-button" @click="givingUp.run(found.id)">{{
          $t('pantry-import-view-cancel-import')
        }}</v-btn>
        <p v-if="found.state === 'saved'">
          {{ $t('pantry-import-view-packs-imported', { good: found.good }) }}
          <router-link to="/pantry?own=true">{{ $t('pantry-import-view-show-packs') }}</router-link>
        </p>
        <p v-if="found.state === 'stopped'">
          {{ $t('pantry-import-view-stopped-nothing-was-imported') }}
          <router-link to="/pantry/import">{{ $t('pantry-import-view-start-again') }}</router-link>
        </p>
      </div>
      <section v-if="found.bad.length" class="bads" :aria-label="$t('pantry-import-view-rows-that-cannot-be-read')">
        <h3>{{ $t('pantry-import-view-rows-that-cannot-be-read') }}</h3>
        <ul>
          <li v-for="r in found.bad.slice(0, 200)" :key="r.number">
            <b>{{ $t('pantry-import-view-row', { number: r.number }) }}</b> {{ r.name }}: {{ why(r) }}
          </li>
        </ul>
        <p v-if="found.total - found.good > 200" class="note">
          {{ $t('pantry-import-view-and-more', { good: found.total - found.good - 200 }) }}
        </p>
      </section>
    </div>
    <div v-else class="page-sheet"><div class="skeleton wait" /></div>
  </div>
</template>

<style scoped>
.start {
  width: 620px;
  max-width: 90%;
  margin: 6vh auto 0;
  padding: 30px;
  border: 2px dashed var(--rule-strong);
  border-radius: 14px;
  text-align: center;
}

.head {
  margin: 0 0 8px;
}

.head .figure {
  font-size: 17px;
}

.progress,
.actions {
  display: flex;
  align-items: center;
  gap: 12px;
  margin-top: 14px;
}

.result {
  margin: 14px 0 0;
}

.bads h3 {
  margin: 18px 0 6px;
  font-size: 15px;
}

.bads ul {
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 13px;
}

.bads li {
  padding: 3px 0;
  border-top: 1px solid var(--rule);
}

.wait {
  height: 240px;
}
</style>
