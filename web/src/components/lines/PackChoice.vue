<script setup lang="ts">
/** From which pack a line is taken: the reference, or one of the kitchen's, the next to use up first. */
import { computed } from 'vue'
import { api, settled } from '@/api/client'
import type { LineDocument } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { day, money } from '@/domain/format'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

const props = defineProps<{ line: LineDocument }>()
defineEmits<{ pick: [lot: string] }>()
const bench = useBench()
const session = useSession()
const packs = useAsk(
  () => [t('frame-pack-choice-packs-of'), props.line.ingredient],
  (at) =>
    settled(
      api.GET('/api/kitchens/{kitchen_id}/pantry', {
        params: { path: at, query: { ingredient: props.line.ingredient, own: true, limit: 12 } },
      }),
    ),
)
const items = computed(() => packs.answer.value?.items ?? [])
</script>

<template>
  <div class="choice" role="radiogroup" :aria-label="$t('frame-pack-choice-taken-from')">
    <v-btn role="radio" :aria-checked="!line.lot" :class="{ on: !line.lot }" :disabled="!bench.mayEdit" @click="$emit('pick', '')">{{
      $t('frame-pack-choice-reference-values-no-pack')
    }}</v-btn>
    <v-btn
      v-for="p in items"
      :key="p.key"
      role="radio"
      :aria-checked="line.lot === p.key"
      :class="{ on: line.lot === p.key }"
      :disabled="!bench.mayEdit"
      @click="$emit('pick', p.key)"
    >
      {{ p.name }}
      <span class="note">{{
        [
          p.price_100g == null ? '' : `${money(p.price_100g)} ${session.kitchen?.currency} / 100 g`,
          p.use_by ? $t('frame-pack-choice-by', { use_by: day(p.use_by) }) : '',
        ]
          .filter(Boolean)
          .join(' · ')
      }}</span>
    </v-btn>
    <router-link v-if="session.may('packs.edit')" class="note" :to="`/pantry/packs/new?ingredient=${line.ingredient}`">{{
      $t('frame-pack-choice-add-a-pack')
    }}</router-link>
  </div>
</template>

<style scoped>
.choice {
  display: grid;
  gap: 2px;
  margin-top: 8px;
}

button {
  padding: 4px 8px;
  border-radius: 7px;
  font-size: 13px;
  text-align: left;
}

button:hover:not([disabled]) {
  background: var(--ground);
}

button.on {
  background: var(--select);
  font-weight: 650;
}

a {
  padding: 2px 8px;
}
</style>
