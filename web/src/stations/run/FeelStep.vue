<script setup lang="ts">
/**
 * Is it ready to be shaped? The baker presses the dough and then the word that it feels like; the answer is one sentence in minutes
 * or grams. Pressed again after waiting, it is asked anew.
 */
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { api, settled } from '@/api/client'
import type { FeelAdvice, RunStep } from '@/api/types'
import { useDo } from '@/composables/useDo'
import { momentAt } from '@/domain/runs'
import { startWord } from '@/domain/timers'
import { useRun } from '@/stores/run'
import { useSession } from '@/stores/session'
import HandTest from './HandTest.vue'
import { t } from '@/messages'

const props = defineProps<{ step: RunStep }>()
const run = useRun()
const session = useSession()
const advice = ref<FeelAdvice | null>(null)
const felt = ref('')
const answered = useTemplateRef('answered')
watch(
  () => props.step.id,
  () => {
    advice.value = null
    felt.value = ''
  },
)
const wanted = computed(() => [run.opened?.plan.wanted_low ?? '', run.opened?.plan.wanted_high ?? ''])
const feeling = useDo(
  (word: string) => {
    const mixed = momentAt(run.entries, 'mixed')
    return settled(
      api.POST('/api/kitchens/{kitchen_id}/runs/{run_id}/feel', {
        params: { path: run.place() },
        body: { felt: word, minute: mixed === null ? null : (Date.now() - mixed) / 60_000, temperature_c: null },
      }),
    )
  },
  { here: true },
)
async function press(word: string): Promise<void> {
  felt.value = word
  await run.write({ kind: 'felt', word })
  advice.value = run.offline ? null : await feeling.run(word)
  await nextTick()
  answered.value?.scrollIntoView({ block: 'nearest' })
}
async function follow(way: FeelAdvice['ways'][number]): Promise<void> {
  if (way.kind === 'wait' && way.minutes) {
    await run.write({ kind: 'timer', what: 'feel-wait', value: way.minutes, word: startWord(t('run-feel-step-check-again'), null) })
  } else if (way.kind === 'add' && way.grams) {
    const before = run.weights.get(way.line) ?? 0
    await run.write({ kind: 'weighed', what: way.line, value: before + way.grams, word: way.text })
  }
  felt.value = ''
  advice.value = null
}
/** Asked and kept with the run: a dry kitchen wants more water, and the log tells why. */
const dryAir = computed(() => run.entries.filter((e) => e.kind === 'note' && e.what === 'dry-air').at(-1)?.word === 'on')
async function setDryAir(on: boolean): Promise<void> {
  await run.write({ kind: 'note', what: 'dry-air', word: on ? 'on' : 'off' })
  if (felt.value && !run.offline) advice.value = await feeling.run(felt.value)
}
const melted = computed(() => run.opened?.plan.steps.some((s) => s.id === 'melt') ?? false)
const bursts = computed(() => run.entries.filter((e) => e.kind === 'note' && e.what === 'burst').length)
</script>

<template>
  <div class="feel">
    <p class="wanted">
      {{ $t('run-feel-step-wanted') }}
      <b>{{ wanted[0] === wanted[1] ? wanted[0] : $t('run-feel-step-to', { from: wanted[0], to: wanted[1] }) }}</b>
    </p>
    <div class="words" role="group" :aria-label="$t('run-feel-step-how-does-the-dough-feel')">
      <v-btn
        v-for="word in session.words?.feels"
        :key="word"
        class="word"
        :class="{ chosen: felt === word }"
        :aria-pressed="felt === word"
        @click="press(word)"
      >
        <HandTest :feel="word" /><span>{{ word }}</span>
      </v-btn>
    </div>
    <section v-if="advice" ref="answered" class="answer" :class="{ fits: advice.fits }" role="status">
      <p>{{ advice.text }}</p>
      <v-btn v-for="way in advice.ways" :key="way.text" class="way" @click="follow(way)">{{ way.text }}</v-btn>
    </section>
    <p v-else-if="felt && run.offline" class="note">{{ $t('run-feel-step-saved-you-are-offline-so-no') }}</p>
    <p class="besides">
      <v-btn class="way" :class="{ chosen: dryAir }" :aria-pressed="dryAir" @click="setDryAir(!dryAir)">{{
        $t('run-feel-step-the-air-is-dry-today')
      }}</v-btn>
      <v-btn v-if="melted" class="way" @click="run.write({ kind: 'note', what: 'burst', word: '15 s' })">{{
        $t('run-feel-step-log-15-s-in-the-microwave', { bursts: bursts ? ' ' + $t('run-feel-step-so-far', { bursts }) : '' })
      }}</v-btn>
      <span v-if="bursts > (run.opened?.plan.pieces ?? 1)" class="act">{{ $t('run-feel-step-you-have-warmed-pieces-more-than') }}</span>
    </p>
    <p v-if="feeling.trouble.value" class="act" role="alert">{{ feeling.trouble.value }}</p>
  </div>
</template>

<style scoped>
.wanted {
  margin: 0 0 8px;
  font-size: 20px;
}

.words {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(108px, 1fr));
  gap: 8px;
  max-width: 640px;
}

.word {
  display: flex;
  flex-direction: column;
  align-items: center;
  min-height: 92px;
  padding: 8px 4px;
  border: 1px solid var(--rule-strong);
  border-radius: 12px;
  background: var(--panel);
  font-size: 17px;
  text-align: center;
}

.word.chosen {
  border: 3px solid var(--act);
}

.besides {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 12px;
}

.way.chosen {
  border-color: var(--act);
  box-shadow: inset 0 0 0 2px var(--act);
}

.answer {
  margin-top: 12px;
  padding: 10px 14px;
  border-radius: 12px;
  background: var(--act-soft);
  font-size: 21px;
}

.answer.fits {
  background: var(--in-soft);
}

.answer p {
  margin: 0 0 8px;
}

.way {
  min-height: 48px;
  margin: 0 8px 4px 0;
  padding: 8px 16px;
  border: 1px solid var(--rule-strong);
  border-radius: 10px;
  background: var(--panel);
  font-size: 18px;
}
</style>
