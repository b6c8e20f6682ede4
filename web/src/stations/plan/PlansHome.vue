<script setup lang="ts">
/**
 * Which day is to be planned, or what is to be ready when? The eye falls on the days to come; ticking formulas and a time makes a
 * plan of them.
 */
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, settled } from '@/api/client'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { useSession } from '@/stores/session'
import { inDays } from './times'
import { t } from '@/messages'

const router = useRouter()
const session = useSession()
const offset = ref(0)
const page = useAsk(
  () => ['plans', offset.value],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/plans', { params: { path: at, query: { offset: offset.value } } })),
  { keep: true },
)
const wanted = ref('')
const shelf = useAsk(
  () => [t('plan-plans-home-shelf-for-plans'), wanted.value],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/formulas', { params: { path: at, query: { search: wanted.value } } })),
  { keep: true },
)
const ovens = useAsk(
  () => [t('plan-plans-home-ovens-for-plans')],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/ovens', { params: { path: at } })),
)
interface Chosen {
  id: number
  name: string
  due?: string
  batches?: number
  fresh_h?: number | null
}
const chosen = ref<Chosen[]>([])
/** A list from a file, each bake with its own time: what names no formula of the kitchen is told. */
const chooser = ref<HTMLInputElement>()
const unknown = ref<string[]>([])
const reading = useDo(
  (text: string, at) => settled(api.POST('/api/kitchens/{kitchen_id}/plans/read', { params: { path: at }, body: { text } })),
  {
    here: true,
    then: (bakes) => {
      chosen.value = bakes.filter((b) => b.formula_id).map((b) => ({ ...b, id: b.formula_id }))
      unknown.value = bakes.filter((b) => !b.formula_id).map((b) => b.name)
      const first = bakes.map((b) => b.due).sort()[0]
      if (first && first.slice(0, 16) < start.value) start.value = `${first.slice(0, 10)}T00:00`
    },
  },
)
async function read(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) await reading.run(await file.text())
  input.value = ''
}
const due = ref(inDays(1, 18))
const start = ref(inDays(1, 7))
const tick = (id: number, name: string): void => {
  chosen.value = chosen.value.some((c) => c.id === id) ? chosen.value.filter((c) => c.id !== id) : [...chosen.value, { id, name }]
}
const creating = useDo(
  (name: string, at) =>
    settled(
      api.POST('/api/kitchens/{kitchen_id}/plans', {
        params: { path: at },
        body: {
          name,
          start: start.value,
          zone: '',
          people: 1,
          ovens: (ovens.answer.value?.length ? ovens.answer.value : [{ name: 'oven', key: '' }]).slice(0, 1).map((o) => ({
            name: o.name,
            key: o.key,
            trays: session.limits.oven_trays,
            share_k: session.limits.oven_shared_k,
          })),
          has: {},
          closed: [],
          pins: [],
          happened: [],
          bakes: chosen.value.map((c, n) => ({
            formula_id: c.id,
            id: String(n + 1),
            due: c.due ?? due.value,
            batches: c.batches ?? 1,
            fresh_h: c.fresh_h ?? null,
            oven: '',
            priority: 1,
          })),
        },
      }),
    ),
  { here: true, then: (plan) => router.push(`/plan/${plan.id}?go=1`) },
)
const rows = computed(() => page.answer.value?.rows ?? [])
</script>

<template>
  <div class="page">
    <header>
      <h2>{{ $t('plan-plans-home-plan') }}</h2>
    </header>
    <div class="two">
      <section>
        <h3>{{ $t('plan-plans-home-plans') }}</h3>
        <ul v-if="rows.length" class="days">
          <li v-for="row in rows" :key="row.id">
            <router-link :to="`/plan/${row.id}`">
              <span class="on">{{
                new Date(row.on).toLocaleDateString(undefined, { weekday: 'short', day: 'numeric', month: 'short' })
              }}</span>
              <b>{{ row.name }}</b>
              <span class="note">{{ row.bakes }} {{ $t('plan-plans-home-value', { bakes: row.bakes }) }}</span>
            </router-link>
          </li>
        </ul>
        <p v-else-if="page.answer.value" class="note">{{ $t('plan-plans-home-no-plans-yet-choose-formulas-to') }}</p>
        <p v-if="page.missing.value" role="alert">
          {{ page.trouble.value }} <v-btn class="quiet-button" @click="page.again()">{{ $t('plan-plans-home-try-again') }}</v-btn>
        </p>
        <p v-if="page.answer.value && page.answer.value.total > offset + rows.length" class="note">
          <v-btn class="quiet-button" @click="offset += rows.length">{{ $t('plan-plans-home-past-plans') }}</v-btn>
        </p>
      </section>
      <section v-if="session.may('plans.edit')" class="plain-fields">
        <h3>{{ $t('plan-plans-home-new-plan') }}</h3>
        <label class="when">{{ $t('plan-plans-home-ready-by') }}<input v-model="due" type="datetime-local" /></label>
        <label class="when">{{ $t('plan-plans-home-work-begins-no-earlier-than') }}<input v-model="start" type="datetime-local" /></label>
        <v-text-field
          v-model="wanted"
          class="field"
          :placeholder="$t('plan-plans-home-find-a-formula')"
          :aria-label="$t('plan-plans-home-find-a-formula-2')"
        />
        <ul class="formulas">
          <li v-for="f in shelf.answer.value?.items ?? []" :key="f.id">
            <v-checkbox-btn :model-value="chosen.some((c) => c.id === f.id)" :label="f.name" @update:model-value="tick(f.id, f.name)" />
          </li>
        </ul>
        <p class="list">
          <v-btn class="quiet-button tiny-button" :disabled="reading.busy.value" @click="chooser?.click()">{{
            $t('plan-plans-home-from-a-list-csv')
          }}</v-btn>
          <input
            ref="chooser"
            type="file"
            accept=".csv,.tsv,text/csv,text/plain"
            hidden
            :aria-label="$t('plan-plans-home-a-list-of-bakes')"
            @change="read"
          />
          <span class="note">{{ $t('plan-plans-home-formula-ready-batches-fresh-h') }}</span>
        </p>
        <ul v-if="chosen.some((c) => c.due)" class="told">
          <li v-for="(c, n) in chosen" :key="n">
            {{ c.name }}<span class="note"> · {{ (c.due ?? due).slice(0, 16).replace('T', ' ') }} · {{ c.batches ?? 1 }}×</span>
          </li>
        </ul>
        <p v-if="unknown.length" class="act" role="alert">
          {{ $t('plan-plans-home-no-formula-with-this-name-check', { unknown: unknown.join(', ') }) }}
        </p>
        <p v-if="reading.trouble.value" class="act" role="alert">{{ reading.trouble.value }}</p>
        <p v-if="creating.trouble.value" role="alert" class="act">{{ creating.trouble.value }}</p>
        <v-btn
          class="act-button"
          :disabled="!chosen.length || creating.busy.value"
          @click="creating.run(chosen.length === 1 ? (chosen[0]?.name ?? $t('plan-plans-home-plan')) : $t('plan-plans-home-new-plan'))"
          >{{ $t('plan-plans-home-plan-2', { shown: chosen.length || '', count: chosen.length }) }}</v-btn
        >
      </section>
    </div>
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  padding: 16px 24px 40px;
  overflow-y: auto;
}

.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 380px);
  gap: 40px;
}

.list {
  display: flex;
  gap: 8px;
  align-items: center;
}

.told {
  margin: 4px 0 10px;
  padding: 0;
  list-style: none;
}

.days,
.formulas {
  margin: 6px 0 14px;
  padding: 0;
  list-style: none;
}

.days a {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr) auto;
  gap: 12px;
  padding: 9px 8px;
  border-top: 1px solid var(--rule);
  color: inherit;
  text-decoration: none;
}

.days a:hover {
  background: var(--select);
}

.when {
  display: grid;
  gap: 2px;
  margin-bottom: 8px;
  color: var(--ink-2);
  font-size: 13px;
}

.formulas {
  max-height: 300px;
  overflow-y: auto;
}

@media (max-width: 800px) {
  .page {
    padding: 10px 12px 40px;
  }

  .two {
    grid-template-columns: minmax(0, 1fr);
    gap: 10px;
  }
}
</style>
