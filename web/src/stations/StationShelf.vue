<script setup lang="ts">
/** Which formula a station is asked for: the shelf as a list. */
import { computed, ref } from 'vue'
import { api, settled } from '@/api/client'
import { useAsk } from '@/composables/useAsk'
import { stationAddress, stations } from '@/components/frame/stations'
import { t } from '@/messages'

const props = defineProps<{ station: string }>()
const here = computed(() => stations.find((s) => s.id === props.station))
const address = (id: number): string => (here.value ? stationAddress(here.value, id) : '/formula')
const search = ref('')
const shelf = useAsk(
  () => [t('frame-station-shelf-formulas-of-a-station'), search.value],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/formulas', { params: { path: at, query: { search: search.value, limit: 100 } } })),
  { keep: true },
)
</script>

<template>
  <div class="page">
    <h2>{{ $t('frame-station-shelf-choose-a-formula', { word: here?.word }) }}</h2>
    <p class="note">{{ $t('frame-station-shelf-this-step-covers', { decides: here?.decides }) }}</p>
    <v-text-field
      v-model="search"
      class="field"
      data-finder
      type="search"
      :placeholder="$t('frame-station-shelf-find-a-formula')"
      :aria-label="$t('frame-station-shelf-find-a-formula')"
      maxlength="100"
    />
    <router-link v-for="f in shelf.answer.value?.items" :key="f.id" :to="address(f.id)" class="row"
      ><b>{{ f.name }}</b
      >{{ ' '
      }}<span class="note">{{ f.thumb.pieces }} {{ $t('frame-station-shelf-value', { pieces: f.thumb.pieces }) }}</span></router-link
    >
    <p v-if="shelf.missing.value" role="alert">
      {{ shelf.trouble.value }} <v-btn class="quiet-button" @click="shelf.again()">{{ $t('frame-station-shelf-try-again') }}</v-btn>
    </p>
    <p v-else-if="shelf.answer.value && !shelf.answer.value.items.length" class="note">{{ $t('frame-station-shelf-no-formula-found') }}</p>
  </div>
</template>

<style scoped>
.page {
  width: 460px;
  max-width: calc(100% - 30px);
  height: 100%;
  margin: 0 auto;
  padding: 26px 0;
  overflow-y: auto;
}

h2 {
  margin-bottom: 8px;
}

.row {
  display: flex;
  justify-content: space-between;
  padding: 9px 4px;
  border-bottom: 1px solid var(--rule);
  text-decoration: none;
}

.row:hover {
  background: var(--select);
}
</style>
