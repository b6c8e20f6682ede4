<script setup lang="ts">
/** Allergens, and what may be said of the food; pressed, a claim says why it holds, fails or wants a certificate. */
import { computed, ref } from 'vue'
import type { Analysis } from '@/api/types'
import { useSettling } from '@/composables/useSettling'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

const props = defineProps<{ allergens: Analysis['allergens']; claims: Analysis['claims'] }>()
const bench = useBench()
const session = useSession()
const settling = useSettling()
const open = ref('')
const region: Record<string, string> = { us: t('frame-claim-strip-united-states-list'), eu: t('frame-claim-strip-european-list') }
const marks = { holds: '✓', unsure: '?', fails: '✕', empty: '' } as const
const words = {
  holds: 'holds',
  unsure: t('frame-claim-strip-needs-certified-packs'),
  fails: t('frame-claim-strip-not-allowed'),
  empty: '',
} as const
const order = { holds: 0, unsure: 1, fails: 2, empty: 3 } as const
const sorted = computed(() => [...props.claims].filter((c) => c.verdict !== 'empty').sort((a, b) => order[a.verdict] - order[b.verdict]))
const exclusion = computed(() => session.words?.exclusions.find((e) => e.claim === open.value))
const shown = computed(() => sorted.value.find((c) => c.key === open.value))

function press(key: string): void {
  open.value = open.value === key ? '' : key
  const line = shown.value?.grounds[0]?.line
  if (line) bench.selected = line
}
</script>

<template>
  <section class="strip" :aria-label="$t('frame-claim-strip-allergens-and-claims')">
    <div class="chips" :aria-label="$t('frame-claim-strip-allergens')">
      <span
        v-for="a in allergens"
        :key="a.name"
        class="chip"
        :class="{ traces: a.traces }"
        :title="a.regions.map((r) => region[r]).join(', ')"
        >{{ a.traces ? $t('frame-claim-strip-traces') + ' ' : '' }}{{ a.name }}</span
      >
      <span v-if="!allergens.length" class="note">{{ $t('frame-claim-strip-no-listed-allergens-in-these-ingredients') }}</span>
    </div>
    <div v-if="sorted.length" class="chips claims" :aria-label="$t('frame-claim-strip-claims')">
      <v-btn
        v-for="c in sorted"
        :key="c.key"
        class="chip claim"
        :class="[c.verdict, { on: c.key === open }]"
        :aria-expanded="c.key === open"
        :aria-label="`${c.name}: ${words[c.verdict]}`"
        @click="press(c.key)"
      >
        <span aria-hidden="true">{{ marks[c.verdict] }}</span> {{ c.name.toLowerCase() }}
      </v-btn>
    </div>
    <p v-if="shown" class="why" role="status">
      {{ shown.text }} <span class="note">{{ shown.basis }}</span>
      <v-btn
        v-if="exclusion && shown.verdict === 'fails' && bench.mayEdit"
        class="quiet-button tiny-button"
        @click="settling.without(exclusion.id)"
        >{{ $t('frame-claim-strip-remove', { name: exclusion.name }) }}
      </v-btn>
    </p>
  </section>
</template>

<style scoped>
.strip {
  padding-top: 6px;
}

.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}

.claims {
  margin-top: 8px;
}

.chip {
  padding: 1px 8px;
  border: 1px solid var(--rule-strong);
  border-radius: 6px;
  background: var(--panel);
  font-size: 12px;
}

.traces {
  border-style: dashed;
}

.claim.holds {
  border-color: var(--in);
  background: var(--in-soft);
}

.claim.fails {
  color: var(--ink-2);
  background: none;
}

.claim.on {
  box-shadow: inset 0 0 0 1px var(--ink);
}

.why {
  margin: 8px 0 0;
  font-size: 13px;
}

.why .note {
  display: block;
}
</style>
