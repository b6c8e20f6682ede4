<script setup lang="ts">
/**
 * The Pantry decides which flour, cheese, fibre or egg, and which bought pack of it. The eye falls on the
 * bars of what 100 g are made of; the next letter narrows the list, Enter opens, Space marks for comparing.
 */
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, settled } from '@/api/client'
import type { PantryRow } from '@/api/types'
import MoreRows from '@/components/frame/MoreRows.vue'
import { useCompareList } from '@/composables/useCompareList'
import { usePages } from '@/composables/usePages'
import { useSession } from '@/stores/session'
import PantryBar from './PantryBar.vue'
import PantryRows from './PantryRows.vue'

const PAGE = 60
const route = useRoute()
const router = useRouter()
const session = useSession()
const marked = useCompareList()
const search = ref(String(route.query.search ?? ''))
const settledSearch = refDebounced(search, 120)
const role = ref(String(route.query.role ?? ''))
const without = ref(String(route.query.without ?? ''))
const own = ref(route.query.own === 'true')
const archived = ref(false)
watch([settledSearch, role, without, own], ([s, r, w, o]) => {
  void router.replace({ query: { ...(s && { search: s }), ...(r && { role: r }), ...(w && { without: w }), ...(o && { own: 'true' }) } })
})

const found = usePages(
  () => ['pantry', settledSearch.value, role.value, without.value, own.value, archived.value],
  async (at, offset) => {
    const page = await settled(
      api.GET('/api/kitchens/{kitchen_id}/pantry', {
        params: {
          path: at,
          query: {
            search: settledSearch.value,
            role: role.value,
            without: without.value,
            own: own.value,
            archived: archived.value,
            offset,
            limit: PAGE,
          },
        },
      }),
    )
    return { ...page, total: page.packs + page.references }
  },
)
const packs = computed(() => found.items.value.filter((r) => r.lot_id != null))
const references = computed(() => found.items.value.filter((r) => r.lot_id == null))

const facets = [
  ['', 'any allergen'],
  ['nut:', 'without tree nuts'],
  ['milk', 'without milk'],
  ['egg', 'without egg'],
  ['coconut', 'without coconut'],
  ['pulse', 'without legumes'],
  ['sesame', 'without sesame'],
  ['grain:', 'without grain'],
  ['soy', 'without soy'],
  ['nightshade', 'without nightshades'],
] as const

function open(row: PantryRow | undefined): void {
  if (row) void router.push(row.lot_id == null ? `/pantry/ingredients/${row.ingredient}` : `/pantry/packs/${row.lot_id}`)
}
</script>

<template>
  <div class="page">
    <PantryBar title="Pantry" />
    <div class="tools">
      <v-text-field
        v-model="search"
        class="field find"
        data-finder
        type="search"
        placeholder="Search ingredients and packs"
        aria-label="Search the pantry"
        maxlength="100"
        @keydown.enter="open(packs[0] ?? references[0])"
      />
      <v-select
        v-model="role"
        class="field pick"
        aria-label="Role"
        :items="[
          { value: '', title: 'all roles' },
          ...(session.words?.roles ?? []).map((r) => ({ value: r.id, title: r.name.toLowerCase() })),
        ]"
      />
      <v-select
        v-model="without"
        class="field pick"
        aria-label="Without"
        :items="[...facets.map(([value, word]) => ({ value: value, title: word }))]"
      />
      <v-checkbox v-model="own" label="packs only" />
      <v-checkbox v-model="archived" label="archived" />
      <span class="spring" />
      <span v-if="marked.keys.value.length" class="marked">
        <router-link class="act-button" :to="{ path: '/pantry/compare', query: { keys: marked.keys.value } }"
          >Compare {{ marked.keys.value.length }}</router-link
        >
        <v-btn class="note" @click="marked.clear()">none</v-btn>
      </span>
      <span v-else class="note">Select up to six to compare</span>
    </div>
    <div v-if="found.trouble.value && !found.items.value.length" class="page-blank" role="alert">
      <p class="figure">The pantry could not be loaded. Try again.</p>
      <v-btn class="quiet-button" @click="found.again()">Try again</v-btn>
    </div>
    <div v-else-if="found.waiting.value" class="page-sheet" aria-label="Loading"><div v-for="n in 9" :key="n" class="skeleton row" /></div>
    <div v-else-if="!found.total.value" class="page-blank">
      <p class="figure">{{ archived ? 'The archive is empty.' : 'No results.' }}</p>
      <p class="note">
        {{
          own
            ? 'A pack is what you bought: its label, price and date. Start with “New pack”, or import a file.'
            : 'Type part of the name, or remove a filter.'
        }}
      </p>
    </div>
    <div v-else class="page-sheet">
      <PantryRows v-if="packs.length" :rows="packs" :title="`Your packs · ${found.last.value?.packs ?? 0}`" />
      <PantryRows v-if="references.length" :rows="references" :title="`Reference · ${found.last.value?.references ?? 0}`" />
      <MoreRows :left="found.left.value" :busy="found.busy.value" @more="found.more" />
    </div>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 0 24px 10px;
}

.find {
  max-width: 260px;
}

.pick {
  width: auto;
}

.tools label {
  display: flex;
  align-items: center;
  gap: 5px;
  white-space: nowrap;
}

.tools input[type='checkbox'] {
  accent-color: var(--act);
}

.spring {
  flex: 1;
}

.marked {
  display: flex;
  gap: 10px;
  align-items: center;
}

.marked a {
  text-decoration: none;
}

.row {
  height: 30px;
  margin-top: 8px;
}

@media (max-width: 700px) {
  .tools {
    flex-wrap: wrap;
  }

  .find {
    flex: 1 1 100%;
    max-width: none;
  }

  .pick {
    flex: 1 1 40%;
  }
}
</style>
