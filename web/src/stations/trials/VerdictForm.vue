<script setup lang="ts">
/** What was it like? Three large words, its colour, a photo, the faults as pictures, scores, and whether it is made again. */
import { computed, reactive, ref, watch } from 'vue'
import type { Verdict } from '@/api/types'
import { useSession } from '@/stores/session'
import CrustPhotos from './CrustPhotos.vue'
import FaultPicture from './FaultPicture.vue'
import { chipWords, emptyVerdict, verdictFrom } from './verdicts'
import { t } from '@/messages'

const props = defineProps<{ runId: number; form: string; before: Verdict | null; busy: boolean; trouble: string }>()
const emit = defineEmits<{ save: [verdict: Verdict] }>()
const session = useSession()
const verdict = reactive(emptyVerdict())
watch(
  () => props.before,
  (known) => Object.assign(verdict, verdictFrom(known)),
  { immediate: true },
)

const GROUPS = [
  { id: 'dough', name: t('trials-verdict-form-the-dough') },
  { id: 'out', name: t('trials-verdict-form-out-of-the-oven') },
  { id: 'crumb', name: 'inside' },
  { id: 'taste', name: 'eaten' },
]
const faults = computed(() => {
  const { form } = props
  const own = (session.words?.faults ?? []).filter((f) => !f.forms.length || f.forms.includes(form))
  return GROUPS.map((group) => ({ ...group, own: own.filter((f) => f.group === group.id) })).filter((g) => g.own.length)
})
const has = (id: string): boolean => verdict.faults.some((f) => f.id === id)
function toggle(id: string): void {
  verdict.faults = has(id) ? verdict.faults.filter((f) => f.id !== id) : [...verdict.faults, { id, where: '' }]
}
const chips = [-2, -1, 0, 1, 2] as const
/** The three scores that are asked first; more can be said. */
const more = ref(false)
const axes = computed(() => {
  const every = session.words?.textures ?? []
  return more.value ? every : every.slice(0, 3)
})
</script>

<template>
  <form class="ask" @submit.prevent="emit('save', verdict)">
    <fieldset>
      <legend>{{ $t('trials-verdict-form-how-was-it') }}</legend>
      <div class="row">
        <v-btn
          v-for="word in ['good', 'so-so', 'bad']"
          :key="word"
          class="word"
          :class="{ chosen: verdict.liked === word }"
          :aria-pressed="verdict.liked === word"
          @click="verdict.liked = word as Verdict['liked']"
          >{{ word }}</v-btn
        >
        <label class="eaten"
          >{{ $t('trials-verdict-form-eaten') }}
          <v-text-field
            class="field few"
            inputmode="decimal"
            :aria-label="$t('trials-verdict-form-hours-after-baking')"
            :model-value="verdict.hours_after === null ? '' : String(verdict.hours_after)"
            @update:model-value="(v: string) => (verdict.hours_after = v.trim() && Number.isFinite(Number(v)) ? Number(v) : null)"
          />
          {{ $t('trials-verdict-form-hours-after-baking-2') }}</label
        >
      </div>
    </fieldset>
    <fieldset>
      <legend>{{ $t('trials-verdict-form-color') }}</legend>
      <div class="row">
        <v-btn
          v-for="(chip, n) in chips"
          :key="chip"
          class="chip"
          :class="{ chosen: verdict.colour === chip }"
          :aria-pressed="verdict.colour === chip"
          :aria-label="chipWords[n]"
          @click="verdict.colour = verdict.colour === chip ? null : chip"
          ><span :class="`crust c${n}`" /><small>{{ chipWords[n] }}</small></v-btn
        >
      </div>
    </fieldset>
    <fieldset>
      <legend>{{ $t('trials-verdict-form-or-add-a-photo') }}</legend>
      <CrustPhotos :run-id="runId" @read="(l) => (verdict.lightness = l)" />
    </fieldset>
    <fieldset v-for="group in faults" :key="group.id">
      <legend>{{ $t('trials-verdict-form-what-went-wrong', { name: group.name }) }}</legend>
      <div class="row">
        <v-btn
          v-for="f in group.own"
          :key="f.id"
          class="fault"
          :class="{ chosen: has(f.id) }"
          :aria-pressed="has(f.id)"
          @click="toggle(f.id)"
          ><FaultPicture :picture="f.picture" /><span>{{ f.name }}</span></v-btn
        >
      </div>
    </fieldset>
    <fieldset>
      <legend>{{ $t('trials-verdict-form-0-to-10-if-you-like') }}</legend>
      <label v-for="axis in axes" :key="axis.id" class="score"
        ><span>{{ axis.name }}</span>
        <v-slider
          :model-value="verdict.scores[axis.id] ?? 5"
          :min="0"
          :max="10"
          :step="0.5"
          :aria-label="axis.name"
          hide-details
          @update:model-value="(v: number) => (verdict.scores = { ...verdict.scores, [axis.id]: v })"
        />
        <b>{{ verdict.scores[axis.id] ?? '–' }}</b></label
      >
      <v-btn class="quiet-button" @click="more = !more">{{
        more ? $t('trials-verdict-form-fewer') : $t('trials-verdict-form-more')
      }}</v-btn>
    </fieldset>
    <fieldset>
      <legend>{{ $t('trials-verdict-form-again') }}</legend>
      <div class="row">
        <v-btn
          v-for="word in ['keep', 'again', 'drop']"
          :key="word"
          class="word"
          :class="{ chosen: verdict.again === word }"
          :aria-pressed="verdict.again === word"
          @click="verdict.again = word as Verdict['again']"
          >{{
            word === 'keep'
              ? $t('trials-verdict-form-keep-as-is')
              : word === 'again'
                ? $t('trials-verdict-form-try-again')
                : $t('trials-verdict-form-stop-making-it')
          }}</v-btn
        >
      </div>
    </fieldset>
    <v-textarea
      v-model="verdict.note"
      class="field"
      rows="2"
      :placeholder="$t('trials-verdict-form-a-note')"
      :aria-label="$t('trials-verdict-form-a-note')"
      maxlength="5000"
    />
    <p v-if="trouble" role="alert" class="act">{{ trouble }}</p>
    <v-btn type="submit" class="act-button huge" :disabled="busy">{{ $t('trials-verdict-form-save-rating') }}</v-btn>
  </form>
</template>

<style scoped>
.quiet-button {
  text-decoration: none;
}

.ask {
  max-width: 900px;
}

fieldset {
  margin: 0 0 12px;
  padding: 0;
  border: 0;
}

legend {
  margin-bottom: 5px;
  font-weight: 650;
}

.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}

.word,
.fault,
.chip {
  min-height: 48px;
  padding: 4px 16px;
  border: 1px solid var(--rule-strong);
  border-radius: 12px;
  background: var(--panel);
  font-size: 17px;
}

.fault {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 4px 12px 4px 6px;
  font-size: 15px;
}

.chip {
  display: flex;
  flex-direction: column;
  align-items: center;
  width: 92px;
  padding: 5px;
}

.chosen {
  border: 3px solid var(--act);
  background: var(--select);
}

.eaten {
  display: flex;
  align-items: center;
  gap: 6px;
  margin-left: 10px;
}

.few {
  width: 58px;
}

.crust {
  display: block;
  width: 100%;
  height: 26px;
  border-radius: 6px;
}

.score {
  display: grid;
  grid-template-columns: 110px minmax(0, 380px) 40px;
  align-items: center;
  gap: 10px;
  min-height: 44px;
}

.huge {
  min-height: 56px;
  margin-top: 10px;
  padding: 0 30px;
  font-size: 19px;
}

.verdict {
  font-size: 16px;
}

.liked {
  padding: 3px 12px;
  border-radius: 10px;
  background: var(--rail);
  font-weight: 700;
}

@media (max-width: 700px) {
  .chip {
    width: 64px;
  }
}

.c0 {
  background: #efe2c4;
}

.c1 {
  background: #e3c68c;
}

.c2 {
  background: #c8913f;
}

.c3 {
  background: #8a5424;
}

.c4 {
  background: #3d2413;
}
</style>
