<script setup lang="ts">
/** Settle, and for what is out one remedy each: checked against all else before it is offered. */
import { refDebounced } from '@vueuse/core'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { api, settled } from '@/api/client'
import type { FormulaDocument, LineDocument, Mend } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { useSettling } from '@/composables/useSettling'
import { withLine, withLines } from '@/domain/edits'
import { isOutside } from '@/domain/states'
import { useBench } from '@/stores/bench'

const RESTED_MS = 350
const bench = useBench()
const router = useRouter()
const settling = useSettling()
const rested = refDebounced(
  computed(() => bench.document),
  RESTED_MS,
)
const out = computed(
  () =>
    !!bench.analysis &&
    (bench.analysis.brackets.some((b) => isOutside(b.state)) ||
      bench.analysis.warnings.some((w) => w.severity === 'act') ||
      bench.analysis.handling?.fits === false),
)
const asked = useAsk(
  () => ['remedies', bench.formulaId, rested.value],
  async (at) => {
    const document = rested.value as FormulaDocument
    const mends = await settled(
      api.POST('/api/kitchens/{kitchen_id}/remedies', { params: { path: at }, body: { document, formula_id: bench.formulaId } }),
    )
    return { document, mends }
  },
  { keep: true, when: () => out.value && rested.value !== null },
)
/** What mends an older dough is not offered for this one; an answer that is kept is a copy, so it is compared by what it holds. */
const isPresent = computed(() => JSON.stringify(asked.answer.value?.document) === JSON.stringify(bench.document))
const mends = computed<readonly Mend[]>(() => (out.value && asked.answer.value && isPresent.value ? asked.answer.value.mends : []))

function take(mend: Mend): void {
  if (mend.station) {
    void router.push(`/formula/${bench.formulaId}/${mend.station}`)
    return
  }
  const { pieces } = mend
  if (pieces != null) bench.edit((doc) => ({ ...doc, form: { ...doc.form, pieces } }))
  if (mend.grams == null) return
  const change = { grams: mend.grams, entered: `${mend.grams} g` }
  bench.edit((doc) =>
    (doc.lines ?? []).some((line) => line.id === mend.line)
      ? withLine(doc, mend.line, change)
      : withLines(doc, [{ id: mend.line, ingredient: mend.ingredient, ...change } as LineDocument]),
  )
}
</script>

<template>
  <section class="mends" :aria-label="$t('frame-mend-list-balance-and-quick-fixes')">
    <v-btn v-if="bench.mayEdit" class="settle" :class="{ 'act-button': out, 'quiet-button': !out }" @click="settling.open()">{{
      $t('frame-mend-list-balance-formula')
    }}</v-btn>
    <ul v-if="mends.length" class="list" :aria-label="$t('frame-mend-list-quick-fixes')">
      <li v-for="mend in mends" :key="mend.line + mend.text" :data-mends="mend.keys.join(' ')">
        <v-btn v-if="bench.mayEdit" class="quiet-button fix" @click="take(mend)">{{ mend.text }}</v-btn>
        <b v-else>{{ mend.text }}</b>
        <span class="note">{{ mend.whole && mends.length === 1 ? $t('frame-mend-list-fixes-everything') : mend.causes.join(' · ') }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.mends {
  padding: 8px 0;
  border-bottom: 1px solid var(--rule);
}

.settle {
  width: 100%;
  text-align: center;
}

.list {
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
}

.list li + li {
  margin-top: 6px;
}

.fix {
  max-width: 100%;
  border-color: var(--act);
  color: var(--act);
  font-size: 13px;
  font-weight: 650;
  white-space: normal;
  text-align: left;
}

.note {
  display: block;
  padding: 2px 2px 0;
}
</style>
