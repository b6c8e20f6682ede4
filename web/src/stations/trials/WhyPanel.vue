<script setup lang="ts">
/**
 * What brought it, and what next? Two lists, for a formula is a fact and a slip is a guess; each cause stands on its evidence. The
 * next key answers one of two questions, or takes the proposal to the bench.
 */
import { computed } from 'vue'
import type { Diagnosis, Proposal } from '@/api/types'
import { percent } from '@/domain/format'
import { t } from '@/messages'

const props = defineProps<{ diagnosis: Diagnosis; may: boolean }>()
const emit = defineEmits<{ answer: [cause: string, yes: boolean]; open: [proposal: Proposal] }>()
const causes = computed(() => props.diagnosis.making.slice(0, 4))
const questions = computed(() => (props.diagnosis.faults.length ? props.diagnosis.questions.slice(0, 2) : []))
const scopes: Record<string, string> = {
  run: t('trials-why-panel-this-bake-only'),
  habit: t('trials-why-panel-a-habit'),
  lot: t('trials-why-panel-a-pack'),
  oven: t('trials-why-panel-the-oven'),
}
const worst = computed(() => Math.max(...props.diagnosis.next.map((p) => p.before), 0.01))
</script>

<template>
  <div class="why">
    <p class="sentence">{{ diagnosis.text }}</p>
    <div class="two">
      <section :aria-label="$t('trials-why-panel-the-formula-as-written')">
        <h3>{{ $t('trials-why-panel-the-formula-as-written') }}</h3>
        <article v-for="f in diagnosis.formula" :key="f.cause" class="cause">
          <p class="name">
            <b>{{ f.words }}</b> <span class="said">{{ f.probability_text }}</span>
          </p>
          <p v-for="e in f.evidence" :key="e" class="note">{{ e }}</p>
        </article>
        <p v-if="!diagnosis.formula.length" class="note">{{ $t('trials-why-panel-no-likely-cause-in-the-formula') }}</p>
      </section>
      <section :aria-label="$t('trials-why-panel-in-how-it-was-made')">
        <h3>{{ $t('trials-why-panel-in-how-it-was-made') }}</h3>
        <article v-for="c in causes" :key="c.cause" class="cause">
          <p class="name">
            <b>{{ c.words }}</b> <span class="said">{{ c.probability_text }}</span><span class="note"> · {{ scopes[c.scope] }}</span>
          </p>
          <svg class="bar" viewBox="0 0 100 5" preserveAspectRatio="none" role="img" :aria-label="percent(c.probability)">
            <rect width="100" height="5" class="rail" />
            <rect :width="100 * c.probability" height="5" class="fill" />
          </svg>
          <p v-for="e in c.evidence" :key="e" class="note">{{ e }}</p>
          <p v-for="e in c.against" :key="e" class="note against">{{ $t('trials-why-panel-evidence-against', { value: e }) }}</p>
        </article>
        <p v-if="!causes.length" class="note">{{ $t('trials-why-panel-no-mistake-explains-these-faults') }}</p>
      </section>
    </div>
    <section v-if="questions.length && may" class="questions" :aria-label="$t('trials-why-panel-answer-to-narrow-it-down')">
      <h3>{{ $t('trials-why-panel-answer-to-narrow-it-down') }}</h3>
      <p v-for="q in questions" :key="q.cause" class="question">
        {{ q.text }}
        <v-btn class="touch" @click="emit('answer', q.cause, true)">{{ $t('trials-why-panel-yes') }}</v-btn>
        <v-btn class="touch" @click="emit('answer', q.cause, false)">{{ $t('trials-why-panel-no') }}</v-btn>
      </p>
      <p v-for="c in diagnosis.checks" :key="c.check" class="note">
        {{ $t('trials-why-panel-quick-test-without-baking', { text: c.text }) }}
      </p>
    </section>
    <section v-if="diagnosis.faults.length" :aria-label="$t('trials-why-panel-what-to-try-next')">
      <h3>{{ $t('trials-why-panel-what-to-try-next') }}</h3>
      <p v-if="diagnosis.next.length" class="note">{{ $t('trials-why-panel-pale-bar-trouble-expected-if-you') }}</p>
      <article v-for="p in diagnosis.next" :key="p.text" class="next">
        <div>
          <p class="name">
            <b>{{ p.text }}</b>
          </p>
          <p class="note">{{ p.edits.join(', ') }}</p>
        </div>
        <svg
          viewBox="0 0 120 12"
          width="160"
          height="16"
          role="img"
          :aria-label="$t('trials-why-panel-trouble-expected-of-now', { worst: percent(p.after / worst) })"
        >
          <rect y="3" :width="(120 * p.before) / worst" height="6" class="rail" />
          <rect y="3" :width="(120 * p.after) / worst" height="6" class="fill" />
        </svg>
        <v-btn v-if="p.document && may" class="act-button" @click="emit('open', p)">{{
          $t('trials-why-panel-open-changed-formula')
        }}</v-btn>
      </article>
    </section>
    <p class="note rests">{{ diagnosis.rests_on }}</p>
  </div>
</template>

<style scoped>
.sentence {
  margin: 6px 0 12px;
  font: 700 21px/1.3 var(--head);
}

.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.3fr);
  gap: 30px;
}

h3 {
  margin: 8px 0 4px;
  font-size: 16px;
}

.cause {
  padding: 6px 0 8px;
  border-top: 1px solid var(--rule);
}

p {
  margin: 0;
}

.name {
  font-size: 16px;
}

.said {
  padding: 1px 8px;
  border-radius: 8px;
  background: var(--rail);
  font-size: 13px;
}

.bar {
  width: 100%;
  height: 6px;
  margin: 3px 0;
}

.rail {
  fill: var(--rule);
}

.fill {
  fill: var(--act);
}

.against {
  font-style: italic;
}

.questions {
  margin-top: 12px;
  padding: 8px 14px;
  border: 1px solid var(--rule-strong);
  border-radius: 12px;
}

.question {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 3px 0;
  font-size: 16px;
}

.touch {
  min-width: 56px;
  min-height: 44px;
  border: 1px solid var(--rule-strong);
  border-radius: 10px;
  text-align: center;
}

.next {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 150px;
  align-items: center;
  gap: 16px;
  padding: 7px 0;
  border-top: 1px solid var(--rule);
}

.rests {
  margin-top: 12px;
}

@media (max-width: 700px) {
  .two,
  .next {
    grid-template-columns: minmax(0, 1fr);
    gap: 6px;
  }
}
</style>
