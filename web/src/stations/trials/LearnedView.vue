<script setup lang="ts">
/**
 * What has this kitchen taught the forecasts, and from which trials? Each number stands as it was before and as it is now; a trial
 * that misleads is left out with one press.
 */
import { computed, onMounted } from 'vue'
import { api, settled } from '@/api/client'
import { useDo } from '@/composables/useDo'
import { useJob } from '@/composables/useJob'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

const session = useSession()
const work = useJob()
onMounted(() => {
  if (session.may('bakes.edit')) void work.start({ kind: 'learn' })
})
const told = computed(() => work.job.value?.learned ?? null)
const BLOCKS = [
  { id: 'oven', name: t('trials-learned-view-the-oven'), why: t('trials-learned-view-from-weight-before-and-after-color') },
  { id: 'hands', name: t('trials-learned-view-dough-feel'), why: t('trials-learned-view-from-how-you-described-the-dough') },
  { id: 'palate', name: t('trials-learned-view-palate'), why: t('trials-learned-view-from-your-scores-at-the-measured') },
  { id: 'measures', name: t('trials-learned-view-cups-and-spoons'), why: t('trials-learned-view-from-cups-and-spoons-that-you') },
  { id: 'habits', name: t('trials-learned-view-your-habits'), why: t('trials-learned-view-from-your-bake-log') },
]
const blocks = computed(() =>
  BLOCKS.map((b) => ({ ...b, own: (told.value?.learned ?? []).filter((one) => one.block === b.id) })).filter((b) => b.own.length),
)
const SWITCHED = ['hands', 'palate', 'measures']
const off = computed(() => session.kitchen?.lessons_off ?? [])
const change = useDo(
  async (body: { off?: string[]; forget?: boolean }, at) =>
    settled(api.PATCH('/api/kitchens/{kitchen_id}/learning', { params: { path: at }, body })),
  {
    then: (kitchen) => {
      session.changed(kitchen)
      void work.start({ kind: 'learn' })
    },
  },
)
const turn = (block: string, on: boolean | null): void =>
  void change.run({ off: on ? off.value.filter((id) => id !== block) : [...off.value, block] })
type One = NonNullable<typeof told.value>['learned'][number]
/** Both on one axis, from three deviations of the prior on either side. */
const reach = (one: One): number => 3 * one.prior_sd * (one.unit === '×' ? one.prior : 1)
const x = (one: One, value: number): number =>
  100 + (90 * Math.max(Math.min(value - one.prior, reach(one)), -reach(one))) / (reach(one) || 1)
const half = (one: One, sd: number): number => (90 * Math.min(session.limits.half_90_sds * sd, reach(one))) / (reach(one) || 1)
</script>

<template>
  <div class="page">
    <header>
      <h2>{{ $t('trials-learned-view-learned-from-your-bakes') }}</h2>
      <router-link class="quiet-button" to="/trials">{{ $t('trials-learned-view-back-to-results') }}</router-link>
      <v-btn v-if="session.may('bakes.edit') && !session.kitchen?.learns_from" class="quiet-button" @click="change.run({ forget: true })">{{
        $t('trials-learned-view-reset-learning')
      }}</v-btn>
      <v-btn v-else-if="session.may('bakes.edit')" class="quiet-button" @click="change.run({ forget: false })">{{
        $t('trials-learned-view-include-older-bakes-again')
      }}</v-btn>
    </header>
    <p v-if="work.underWay.value" class="note" role="status">{{ $t('trials-learned-view-learning-from-your-bakes') }}</p>
    <p v-if="work.trouble.value" role="alert" class="act">{{ work.trouble.value }}</p>
    <p v-if="!session.may('bakes.edit')" class="note">{{ $t('trials-learned-view-only-bakers-of-this-kitchen-can') }}</p>
    <template v-if="told">
      <p v-if="session.kitchen?.learns_from" class="note">
        {{
          $t('trials-learned-view-bakes-before-are-not-used-for', {
            to_locale_date_string: new Date(session.kitchen.learns_from).toLocaleDateString(),
          })
        }}
      </p>
      <p v-if="!told.learned.length" class="note">{{ $t('trials-learned-view-nothing-learned-yet-to-start-finish') }}</p>
      <p v-else class="note">{{ $t('trials-learned-view-calculated-from-bakes-pale-bar-starting', { runs: told.runs }) }}</p>
      <p v-for="odd in told.odd" :key="odd.run + odd.block" class="note">
        <router-link :to="`/trials/${odd.run}`">{{ told.names[odd.run] ?? odd.run }}</router-link>
        {{ $t('trials-learned-view-does-not-match-the-other-bakes') }}
      </p>
      <section v-for="block in blocks" :key="block.id">
        <h3>
          {{ block.name }} <span class="note">{{ block.why }}</span>
          <v-switch
            v-if="SWITCHED.includes(block.id)"
            class="used"
            hide-details
            density="compact"
            :label="$t('trials-learned-view-use-in-forecasts')"
            :model-value="!off.includes(block.id)"
            :disabled="!session.may('bakes.edit') || change.busy.value"
            @update:model-value="(on) => turn(block.id, on)"
          />
        </h3>
        <article v-for="one in block.own" :key="one.key">
          <svg viewBox="0 0 200 26" width="260" height="34" role="img" :aria-label="one.text">
            <rect :x="100 - half(one, one.prior_sd)" y="3" :width="2 * half(one, one.prior_sd)" height="8" rx="3" class="was" />
            <rect
              :x="x(one, one.posterior) - half(one, one.posterior_sd)"
              y="13"
              :width="2 * half(one, one.posterior_sd)"
              height="9"
              rx="3"
              class="is"
            />
            <line :x1="100" x2="100" y1="1" y2="25" class="zero" />
            <line :x1="x(one, one.posterior)" :x2="x(one, one.posterior)" y1="11" y2="24" class="at" />
          </svg>
          <div>
            <p>{{ one.text }}</p>
            <p class="note">
              <template v-for="(id, n) in one.trials.slice(0, 8)" :key="id"
                >{{ n ? ' · ' : '' }}<router-link :to="`/trials/${id}`">{{ told.names[id] ?? id }}</router-link></template
              >
            </p>
          </div>
        </article>
      </section>
    </template>
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  padding: 16px 24px 40px;
  overflow-y: auto;
}

header {
  display: flex;
  align-items: center;
  gap: 16px;
}

.quiet-button {
  text-decoration: none;
}

h3 {
  margin: 16px 0 4px;
  font-size: 17px;
}

h3 {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 12px;
}

.used {
  flex: 0 0 auto;
  font-size: 14px;
}

article {
  display: grid;
  grid-template-columns: 260px minmax(0, 1fr);
  align-items: center;
  gap: 18px;
  padding: 5px 0;
  border-top: 1px solid var(--rule);
}

article p {
  margin: 0;
}

.was {
  fill: var(--smear);
  opacity: 0.55;
}

.is {
  fill: var(--in);
  opacity: 0.75;
}

.zero {
  stroke: var(--rule-strong);
}

.at {
  stroke: var(--ink);
  stroke-width: 2;
}

@media (max-width: 700px) {
  article {
    grid-template-columns: minmax(0, 1fr);
    gap: 2px;
  }
}
</style>
