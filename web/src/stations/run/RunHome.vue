<script setup lang="ts">
/**
 * Which bake is done now: one that is under way is taken up again, a formula is begun. The eye falls on what is under way;
 * the next touch begins.
 */
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, settled } from '@/api/client'
import { useAsk } from '@/composables/useAsk'
import { useBenchWorker } from '@/composables/useBenchWorker'
import { useDo } from '@/composables/useDo'
import { ago } from '@/domain/format'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

const props = defineProps<{ id?: number }>()
const router = useRouter()
const session = useSession()
useBenchWorker()
const batches = ref('1')
const search = ref('')
const shelf = useAsk(
  () => [t('run-run-home-formula-to-bake'), search.value],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/formulas', { params: { path: at, query: { search: search.value, limit: 100 } } })),
  { keep: true },
)
const runs = useAsk(
  () => [t('run-run-home-bakes-in-progress'), props.id],
  (at) =>
    settled(
      api.GET('/api/kitchens/{kitchen_id}/runs', {
        params: { path: at, query: { open_only: !props.id, formula_id: props.id ?? 0 } },
      }),
    ),
)
const chosen = computed(() => shelf.answer.value?.items.find((f) => f.id === props.id) ?? null)
const beginning = useDo(
  (formula_id: number, at) =>
    settled(
      api.POST('/api/kitchens/{kitchen_id}/runs', {
        params: { path: at },
        body: { formula_id, key: crypto.randomUUID(), batches: Number(batches.value.replace(',', '.')) || 0, started_at: '' },
      }),
    ),
  {
    here: true,
    then: (out) => {
      void router.push(`/run/${out.run.id}`)
    },
  },
)
</script>

<template>
  <div class="page">
    <h2>{{ chosen ? $t('run-run-home-bake', { name: chosen.name }) : $t('run-run-home-bake-2') }}</h2>
    <section v-if="runs.answer.value?.runs.length" :aria-label="$t('run-run-home-bakes')">
      <h3>{{ id ? $t('run-run-home-bakes-of-this-formula') : $t('run-run-home-in-progress') }}</h3>
      <router-link
        v-for="r in runs.answer.value.runs.slice(0, 8)"
        :key="r.id"
        :to="r.finished_at ? `/trials/${r.id}` : `/run/${r.id}`"
        class="row"
      >
        <b>{{ r.name }}</b>
        <span class="note"
          >{{ r.batches }} × · {{ ago(r.started_at)
          }}{{ r.finished_at ? (r.judged ? '' : ' ' + $t('run-run-home-not-rated-yet')) : ' ' + $t('run-run-home-in-progress-2') }}</span
        >
      </router-link>
    </section>
    <form v-if="id && session.may('bakes.edit')" class="begin" @submit.prevent="beginning.run(id)">
      <label
        >{{ $t('run-run-home-batches') }}
        <v-text-field v-model="batches" class="field few" inputmode="decimal" :aria-label="$t('run-run-home-batches-2')"
      /></label>
      <v-btn type="submit" class="act-button big" :disabled="beginning.busy.value">{{ $t('run-run-home-start-a-bake') }}</v-btn>
      <p v-if="beginning.trouble.value" role="alert" class="act">{{ beginning.trouble.value }}</p>
    </form>
    <p v-else-if="id" class="note">{{ $t('run-run-home-you-can-view-bakes-but-not') }}</p>
    <section v-if="!id" :aria-label="$t('run-run-home-start-a-bake')">
      <h3>{{ $t('run-run-home-start-a-bake') }}</h3>
      <v-text-field
        v-model="search"
        class="field"
        data-finder
        type="search"
        :placeholder="$t('run-run-home-find-a-formula')"
        :aria-label="$t('run-run-home-find-a-formula')"
        maxlength="100"
      />
      <router-link v-for="f in shelf.answer.value?.items" :key="f.id" :to="`/formula/${f.id}/run`" class="row"
        ><b>{{ f.name }}</b
        >{{ ' ' }}<span class="note">{{ f.thumb.pieces }} {{ $t('run-run-home-value', { pieces: f.thumb.pieces }) }}</span></router-link
      >
    </section>
    <p v-if="shelf.missing.value" role="alert">
      {{ shelf.trouble.value }} <v-btn class="quiet-button" @click="shelf.again()">{{ $t('run-run-home-try-again') }}</v-btn>
    </p>
  </div>
</template>

<style scoped>
.page {
  width: 520px;
  max-width: calc(100% - 30px);
  height: 100%;
  margin: 0 auto;
  padding: 26px 0;
  overflow-y: auto;
}

h3 {
  margin: 18px 0 4px;
  font-size: 16px;
}

.row {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  min-height: 44px;
  align-items: center;
  border-bottom: 1px solid var(--rule);
  text-decoration: none;
}

.row:hover {
  background: var(--select);
}

.begin {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 16px;
  margin-top: 18px;
}

.few {
  width: 64px;
}

.big {
  min-height: 48px;
  padding: 0 22px;
  font-size: 17px;
}
</style>
