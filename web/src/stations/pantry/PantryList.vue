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
import { t } from '@/messages'

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
  ['', t('pantry-pantry-list-any-allergen')],
  ['nut:', t('pantry-pantry-list-without-tree-nuts')],
  ['milk', t('pantry-pantry-list-without-milk')],
  ['egg', t('pantry-pantry-list-without-egg')],
  ['coconut', t('pantry-pantry-list-without-coconut')],
  ['pulse', t('pantry-pantry-list-without-legumes')],
  ['sesame', t('pantry-pantry-list-without-sesame')],
  ['grain:', t('pantry-pantry-list-without-grain')],
  ['soy', t('pantry-pantry-list-without-soy')],
  ['nightshade', t('pantry-pantry-list-without-nightshades')],
] as const

function open(row: PantryRow | undefined): void {
  if (row) void router.push(row.lot_id == null ? `/pantry/ingredients/${row.ingredient}` : `/pantry/packs/${row.lot_id}`)
}
</script>

<template>
  <div class="page">
    <PantryBar :title="$t('pantry-pantry-list-pantry')" />
    <div class="tools">
      <v-text-field
        v-model="search"
        class="field find"
        data-finder
        type="search"
        :placeholder="$t('pantry-pantry-list-search-ingredients-and-packs')"
        :aria-label="$t('pantry-pantry-list-search-the-pantry')"
        maxlength="100"
        @keydown.enter="open(packs[0] ?? references[0])"
      />
      <v-select
        v-model="role"
        class="field pick"
        :aria-label="$t('pantry-pantry-list-role')"
        :items="[
          { value: '', title: $t('pantry-pantry-list-all-roles') },
          ...(session.words?.roles ?? []).map((r) => ({ value: r.id, title: r.name.toLowerCase() })),
        ]"
      />
      <v-select
        v-model="without"
        class="field pick"
        :aria-label="$t('pantry-pantry-list-without')"
        :items="[...facets.map(([value, word]) => ({ value: value, title: word }))]"
      />
      <v-checkbox v-model="own" :label="$t('pantry-pantry-list-packs-only')" />
      <v-checkbox v-model="archived" :label="$t('pantry-pantry-list-archived')" />
      <span class="spring" />
      <span v-if="marked.keys.value.length" class="marked">
        <router-link class="act-button" :to="{ path: '/pantry/compare', query: { keys: marked.keys.value } }">{{
          $t('pantry-pantry-list-compare', { keys: marked.keys.value.length })
        }}</router-link>
        <v-btn class="note" @click="marked.clear()">{{ $t('pantry-pantry-list-none') }}</v-btn>
      </span>
      <span v-else class="note">{{ $t('pantry-pantry-list-select-up-to-six-to-compare') }}</span>
    </div>
    <div v-if="found.trouble.value && !found.items.value.length" class="page-blank" role="alert">
      <p class="figure">{{ $t('pantry-pantry-list-the-pantry-could-not-be-loaded') }}</p>
      <v-btn class="quiet-button" @click="found.again()">{{ $t('pantry-pantry-list-try-again') }}</v-btn>
    </div>
    <div v-else-if="found.waiting.value" class="page-sheet" :aria-label="$t('pantry-pantry-list-loading')">
      <div v-for="n in 9" :key="n" class="skeleton row" />
    </div>
    <div v-else-if="!found.total.value" class="page-blank">
      <p class="figure">{{ archived ? $t('pantry-pantry-list-the-archive-is-empty') : $t('pantry-pantry-list-no-results') }}</p>
      <p class="note">
        {{ own ? $t('pantry-pantry-list-a-pack-is-what-you-bought') : $t('pantry-pantry-list-type-part-of-the-name-or') }}
      </p>
    </div>
    <div v-else class="page-sheet">
      <PantryRows v-if="packs.length" :rows="packs" :title="$t('pantry-pantry-list-your-packs', { packs: found.last.value?.packs ?? 0 })" />
      <PantryRows
        v-if="references.length"
        :rows="references"
        :title="$t('pantry-pantry-list-reference', { references: found.last.value?.references ?? 0 })"
      />
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
