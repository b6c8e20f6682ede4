<script setup lang="ts">
/**
 * How the dough comes into its targets. The eye falls on the edits and their ghost over the core; the next keystroke
 * ticks an edit off, takes them all, or looks at the next way.
 */
import { computed } from 'vue'
import JobProgress from '@/components/frame/JobProgress.vue'
import { usePanels } from '@/composables/usePanels'
import { useSession } from '@/stores/session'
import { useBench } from '@/stores/bench'
import { useSettle } from '@/stores/settle'
import SettleWay from './SettleWay.vue'
import SettleWish from './SettleWish.vue'

const bench = useBench()
const settle = useSettle()
const panels = usePanels()
const session = useSession()
const ways = computed(() => settle.answer?.ways ?? [])
const count = (edits: number): string => `${edits} ${edits === 1 ? 'change' : 'changes'}`
</script>

<template>
  <section class="settle" :aria-label="$t('formula-settle-panel-balance')">
    <div class="panel-head">
      <h3>{{ $t('formula-settle-panel-balance') }}</h3>
      <v-btn class="note" @click="panels.open.value = 'lines'">{{ $t('formula-settle-panel-back-to-ingredients') }}</v-btn>
    </div>
    <SettleWish />
    <details v-if="session.words" class="keeps">
      <summary class="note">{{ $t('formula-settle-panel-what-a-balance-keeps-by-itself') }}</summary>
      <p class="note">
        {{ $t('formula-settle-panel-every-option-keeps-if-that-is', { balance_keeps: session.words.balance_keeps.join(', ') }) }}
      </p>
    </details>
    <p class="go">
      <v-btn :class="settle.fresh ? 'quiet-button' : 'act-button'" :disabled="!bench.mayEdit || settle.underWay" @click="settle.start()">
        {{ settle.answer ? $t('formula-settle-panel-balance-again') : $t('formula-settle-panel-balance-formula') }}
      </v-btn>
      <JobProgress v-if="settle.underWay && settle.job" :job="settle.job" what="%" @stop="settle.stop()" />
    </p>
    <p v-if="settle.trouble" class="act" role="alert">{{ settle.trouble }}</p>
    <template v-if="settle.answer">
      <p class="text" aria-live="polite">{{ settle.answer.nearest || settle.answer.text }}</p>
      <p v-if="settle.answer.status === 'fits'" class="note">{{ $t('formula-settle-panel-set-a-target-exclude-an-ingredient') }}</p>
      <p v-if="!settle.fresh" class="about">{{ $t('formula-settle-panel-the-formula-has-changed-balance-again') }}</p>
      <template v-if="settle.answer.clash.length">
        <p class="note">{{ $t('formula-settle-panel-these-targets-conflict-change-any-one') }}</p>
        <ul class="clash">
          <li v-for="limit in settle.answer.clash" :key="`${limit.kind}${limit.key}`">
            <span>{{ limit.text }}</span>
            <v-btn v-if="limit.enough" class="quiet-button tiny-button" @click="settle.relax(limit)">{{ limit.price }}</v-btn>
            <span v-else class="note">{{ limit.price }}</span>
          </li>
        </ul>
      </template>
      <p v-for="move in settle.answer.moves" :key="move" class="note">{{ $t('formula-settle-panel-for-example', { move }) }}</p>
      <div v-if="ways.length > 1" class="ways" role="group" :aria-label="$t('formula-settle-panel-options')">
        <v-btn
          v-for="(w, i) in ways"
          :key="i"
          class="quiet-button"
          :class="{ on: i === settle.number }"
          :aria-pressed="i === settle.number"
          @click="settle.choose(i)"
        >
          {{ w.name }} <span class="note">{{ count(w.changes.length + w.shape.length) }}</span>
        </v-btn>
      </div>
      <SettleWay v-if="settle.way" :way="settle.way" />
      <p v-if="settle.answer.surer" class="note">{{ settle.answer.surer }}</p>
      <p v-if="settle.answer.status === 'begin'">
        <router-link class="quiet-button link" :to="`/formula/begin?form=${bench.document?.form.kind ?? ''}`">{{
          $t('formula-settle-panel-start-over')
        }}</router-link>
      </p>
    </template>
  </section>
</template>

<style scoped>
.go {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 14px;
  margin: 12px 0;
}

.text {
  margin: 4px 0 8px;
  font-size: 17px;
}

.clash {
  margin: 4px 0 12px;
  padding: 0;
  list-style: none;
}

.clash li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  max-width: 520px;
  padding: 4px 0;
  border-bottom: 1px solid var(--rule);
}

.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 6px 0 12px;
}

.on {
  border-color: var(--ink);
  box-shadow: inset 0 0 0 1px var(--ink);
}

.link {
  text-decoration: none;
}
</style>
