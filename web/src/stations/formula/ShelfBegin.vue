<script setup lang="ts">
/** What stands on a shelf that is empty yet: formulas of the house to copy, and the other ways to begin. */
import { useRouter } from 'vue-router'
import { api, settled } from '@/api/client'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { t } from '@/messages'

defineProps<{ formName: (id: string) => string }>()
const emit = defineEmits<{ start: [paste: boolean]; choose: [] }>()
const router = useRouter()
const house = useAsk(
  () => [t('formula-shelf-begin-house-formulas')],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/house-formulas', { params: { path: at } })),
)
const copying = useDo(
  (name: string, at) => settled(api.POST('/api/kitchens/{kitchen_id}/house-formulas', { params: { path: at }, body: { name } })),
  { then: (made) => router.push(`/formula/${made.id}`) },
)
</script>

<template>
  <section class="begin" :aria-label="$t('formula-shelf-begin-begin')">
    <h3>{{ $t('formula-shelf-begin-your-kitchen-has-no-formulas-yet') }}</h3>
    <p>{{ $t('formula-shelf-begin-copy-a-starter-formula-paste-a') }}</p>
    <p class="choices">
      <v-btn class="act-button" @click="emit('start', true)">{{ $t('formula-shelf-begin-paste-a-recipe') }}</v-btn>
      <v-btn class="quiet-button" @click="router.push('/formula/begin')">{{ $t('formula-shelf-begin-start-from-a-shape') }}</v-btn>
      <v-btn class="quiet-button" @click="emit('start', false)">{{ $t('formula-shelf-begin-start-with-a-blank-formula') }}</v-btn>
      <v-btn class="quiet-button" @click="emit('choose')">{{ $t('formula-shelf-begin-import-a-file') }}</v-btn>
    </p>
    <ul class="house">
      <li v-for="h in house.answer.value" :key="h.name">
        <v-btn class="house-button" :disabled="copying.busy.value" @click="copying.run(h.name)">
          <b>{{ h.name }}</b>
          <span class="note">{{ formName(h.form) }} · {{ h.pieces }} {{ $t('formula-shelf-begin-value', { pieces: h.pieces }) }}</span>
        </v-btn>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.begin {
  max-width: 760px;
  margin: 5vh auto 0;
}

.begin h3 {
  font-size: 22px;
}

.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}

.house {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 10px;
  margin: 18px 0 0;
  padding: 0;
  list-style: none;
}

.house-button {
  display: grid;
  width: 100%;
  padding: 10px 14px;
  border: 1px solid var(--rule-strong);
  border-radius: 10px;
  background: var(--panel);
  text-align: left;
}
</style>
