<script setup lang="ts">
/**
 * When does work begin, and what is done at any minute so that all is ready? The eye falls on the sentence at the top, then on the
 * lanes; dragging a block pins it, and everything else is planned around it.
 */
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, settled } from '@/api/client'
import type { PlanDocument } from '@/api/types'
import JobProgress from '@/components/frame/JobProgress.vue'
import { useDo } from '@/composables/useDo'
import { useLatest } from '@/composables/useLatest'
import { download } from '@/domain/download'
import { useSession } from '@/stores/session'
import PlanClock from './PlanClock.vue'
import PlanHelps from './PlanHelps.vue'
import PlanLanes from './PlanLanes.vue'
import PlanSetting from './PlanSetting.vue'
import PlanTask from './PlanTask.vue'
import PlanWeek from './PlanWeek.vue'
import { days, written } from './times'
import { usePlan } from './usePlan'

const props = defineProps<{ planId: number }>()
const route = useRoute()
const router = useRouter()
const session = useSession()
const one = usePlan(() => props.planId)
const selected = ref('')
const task = computed(() => one.planned.value?.tasks.find((t) => t.id === selected.value) ?? null)
onMounted(() => {
  if (route.query.go) {
    void one.go()
    void router.replace({ query: {} })
  }
})
const trying = useLatest(async (asked: { task: string; start_min: number }) =>
  settled(
    api.POST('/api/kitchens/{kitchen_id}/plans/{plan_id}/move', {
      params: { path: { kitchen_id: session.kitchen?.id ?? 0, plan_id: props.planId } },
      body: asked,
    }),
  ),
)
const conflicts = computed(() => trying.answer.value?.conflicts.map((c) => c.text) ?? null)
const change = (over: Partial<PlanDocument>): void => {
  if (one.plan.value) void one.save({ ...one.plan.value.document, ...over })
}
function pin(id: string, minute: number): void {
  trying.clear()
  const plan = one.plan.value
  const begins = one.planned.value?.begins
  if (!plan || !begins) return
  const pins = (plan.document.pins ?? []).filter((p) => p.task !== id)
  change({ pins: [...pins, { task: id, start: written(begins, minute), end: '', expected: '' }], happened: [] })
}
const unpin = (id: string): void => change({ pins: (one.plan.value?.document.pins ?? []).filter((p) => p.task !== id) })
const underWay = computed(() => Boolean(one.plan.value?.document.happened?.length))
const filing = useDo((style: string, at) =>
  settled(
    api.GET('/api/kitchens/{kitchen_id}/plans/{plan_id}/files/{style}', { params: { path: { ...at, plan_id: props.planId, style } } }),
  ),
)
const TYPES: Record<string, string> = { ics: 'text/calendar', csv: 'text/csv', bakes: 'text/csv', json: 'application/json' }
async function save(style: string): Promise<void> {
  const file = await filing.run(style)
  if (!file) return
  download(file.name, file.text, TYPES[style])
}
const deleting = useDo(
  (id: number, at) => settled(api.DELETE('/api/kitchens/{kitchen_id}/plans/{plan_id}', { params: { path: { ...at, plan_id: id } } })),
  { then: () => router.push('/plan') },
)
const feedAddress = computed(() => (one.plan.value?.feed ? `${window.location.origin}${one.plan.value.feed}` : ''))
/** Of a plan over several days the days can be seen side by side. */
const glance = ref<'lanes' | 'days'>('lanes')
const many = computed(() => one.planned.value !== null && days(one.planned.value.begins, one.planned.value.horizon).length > 1)
watch(
  () => props.planId,
  () => (selected.value = ''),
)
</script>

<template>
  <div class="page">
    <p v-if="one.missing.value" role="alert">{{ one.missing.value }}</p>
    <template v-if="one.plan.value">
      <header>
        <h2>{{ one.plan.value.name }}</h2>
        <v-btn v-if="session.may('plans.edit')" class="act-button" :disabled="one.work.underWay.value" @click="one.go()">{{
          one.planned.value ? $t('plan-plan-view-plan-again') : $t('plan-plan-view-plan')
        }}</v-btn>
        <router-link class="quiet-button" :to="`/plan/${planId}/shopping`">{{ $t('plan-plan-view-shopping-list') }}</router-link>
        <template v-if="one.planned.value && !one.plan.value.stale">
          <v-btn class="quiet-button" @click="save('ics')">{{ $t('plan-plan-view-download-calendar') }}</v-btn>
          <v-btn class="quiet-button" @click="save('csv')">{{ $t('plan-plan-view-csv') }}</v-btn>
        </template>
        <v-btn class="quiet-button" :title="$t('plan-plan-view-csv-list-of-bakes-and-deadlines')" @click="save('bakes')">{{
          $t('plan-plan-view-download-bake-list')
        }}</v-btn>
        <v-btn class="quiet-button" @click="save('json')">{{ $t('plan-plan-view-json') }}</v-btn>
        <router-link class="quiet-button" to="/plan">{{ $t('plan-plan-view-all-plans') }}</router-link>
      </header>
      <p class="sentence" role="status">
        <template v-if="one.planned.value">
          {{ one.planned.value.text }}<span v-if="one.work.underWay.value" class="note"> {{ $t('plan-plan-view-still-improving') }}</span>
          <span v-else-if="one.plan.value.changed.length && !one.plan.value.stale" class="act">
            {{ $t('plan-plan-view-changed-since-it-was-planned-plan', { changed: one.plan.value.changed.join(', ') }) }}</span
          >
          <span v-else-if="one.plan.value.stale && !one.work.job.value" class="note">
            {{ $t('plan-plan-view-outdated-plan-again-after-your-last') }}</span
          >
        </template>
        <template v-else-if="one.work.underWay.value">{{ $t('plan-plan-view-looking-for-a-first-plan') }}</template>
        <template v-else>{{ $t('plan-plan-view-not-planned-yet-press-plan') }}</template>
      </p>
      <JobProgress
        v-if="one.work.underWay.value && one.work.job.value"
        :job="one.work.job.value"
        :what="$t('plan-plan-view-hundredths-of-its-time')"
        @stop="one.work.stop()"
      />
      <p v-if="one.work.trouble.value" role="alert" class="act">{{ one.work.trouble.value }}</p>
      <PlanHelps
        v-if="one.planned.value?.helps.length"
        :helps="one.planned.value.helps"
        :document="one.plan.value.document"
        @change="change"
      />
      <div class="body">
        <PlanSetting
          :document="one.plan.value.document"
          :planned="one.planned.value"
          :may-edit="session.may('plans.edit')"
          :busy="one.busy.value"
          @change="change"
        />
        <section class="day">
          <p v-if="one.planned.value && many" class="glance" role="radiogroup" :aria-label="$t('plan-plan-view-view')">
            <v-btn
              v-for="g in ['lanes', 'days'] as const"
              :key="g"
              class="quiet-button tiny-button"
              role="radio"
              :aria-checked="glance === g"
              :class="{ on: glance === g }"
              @click="glance = g"
              >{{ g === 'lanes' ? $t('plan-plan-view-as-lanes') : $t('plan-plan-view-all-plans') }}</v-btn
            >
          </p>
          <PlanWeek
            v-if="one.planned.value && many && glance === 'days'"
            :planned="one.planned.value"
            :selected="selected"
            @select="selected = $event"
          />
          <PlanLanes
            v-else-if="one.planned.value"
            :planned="one.planned.value"
            :people="one.plan.value.document.people ?? 1"
            :selected="selected"
            :may-move="session.may('plans.edit')"
            :conflicts="conflicts"
            @select="selected = $event"
            @drag="(id, minute) => trying.ask({ task: id, start_min: minute })"
            @drop="pin"
          />
          <PlanTask
            v-if="task"
            :task="task"
            :may-edit="session.may('plans.edit')"
            :under-way="underWay"
            :stale="one.plan.value.stale"
            @pin="pin(task.id, task.start_min)"
            @unpin="unpin(task.id)"
            @slip="one.slip(task.id, $event)"
            @afresh="change({ happened: [], pins: [] })"
          />
          <p v-else-if="one.planned.value" class="note">{{ $t('plan-plan-view-tap-a-block-to-see-its') }}</p>
          <ul v-if="one.planned.value?.broken.length" class="act">
            <li v-for="b in one.planned.value.broken" :key="b">{{ b }}</li>
          </ul>
          <p v-if="one.planned.value?.tight.length" class="note">
            {{ $t('plan-plan-view-least-time-to-spare', { tight: one.planned.value.tight.map((t) => t.text).join('; ') }) }}
          </p>
          <p v-if="one.planned.value" class="note">
            {{ one.planned.value.care.charAt(0).toUpperCase() + one.planned.value.care.slice(1) }}.
          </p>
          <PlanClock v-if="one.planned.value" :planned="one.planned.value" />
          <p v-if="session.may('plans.edit')" class="foot">
            <template v-if="feedAddress">
              <span class="note">{{ $t('plan-plan-view-calendar-link-anyone-with-it-can') }} </span><code>{{ feedAddress }}</code>
              <v-btn class="quiet-button tiny-button" @click="one.feed(false)">{{ $t('plan-plan-view-stop-sharing') }}</v-btn>
            </template>
            <v-btn v-else class="quiet-button tiny-button" @click="one.feed(true)">{{ $t('plan-plan-view-create-a-calendar-link') }}</v-btn>
            <v-btn class="quiet-button tiny-button" @click="deleting.run(planId)">{{ $t('plan-plan-view-delete-this-plan') }}</v-btn>
          </p>
        </section>
      </div>
    </template>
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  padding: 14px 20px 40px;
  overflow-y: auto;
}

header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}

h2 {
  flex: 1;
}

header a {
  text-decoration: none;
}

.sentence {
  margin: 4px 0 8px;
  font-size: 18px;
}

.body {
  display: grid;
  grid-template-columns: 236px minmax(0, 1fr);
  gap: 18px;
}

.day {
  min-width: 0;
}

.glance {
  display: flex;
  gap: 6px;
  margin: 0 0 6px;
}

.on {
  border-color: var(--ink);
  box-shadow: inset 0 0 0 1px var(--ink);
}

.foot {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  margin-top: 16px;
}

code {
  font-size: 12px;
  overflow-wrap: anywhere;
}

@media (max-width: 800px) {
  .page {
    padding: 10px 12px 40px;
  }
  .body {
    grid-template-columns: minmax(0, 1fr);
  }
  .day {
    order: -1;
  }
}

@media print {
  header a,
  header button,
  .foot,
  .helps {
    display: none;
  }
}
</style>
