<script setup lang="ts">
/**
 * What has still to be bought? The eye falls on what is not ticked yet, by the shop's sections; a press ticks it off, for everybody
 * who shops with this list.
 */
import { computed, ref, watch } from 'vue'
import { api, settled } from '@/api/client'
import type { ShoppingRow } from '@/api/types'
import { useAsk } from '@/composables/useAsk'
import { useDo } from '@/composables/useDo'
import { download } from '@/domain/download'
import { useSession } from '@/stores/session'
import { useToasts } from '@/stores/toasts'
import { t } from '@/messages'

const props = defineProps<{ planId: number }>()
const session = useSession()
const toasts = useToasts()
const list = useAsk(
  () => ['shopping', props.planId],
  (at) => settled(api.GET('/api/kitchens/{kitchen_id}/plans/{plan_id}/shopping', { params: { path: { ...at, plan_id: props.planId } } })),
  { keep: true },
)
const ticked = ref<string[]>([])
watch(
  () => list.answer.value?.ticked,
  (told) => (ticked.value = told ?? []),
  { immediate: true },
)
const ticking = useDo((body: { ingredient: string; done: boolean }, at) =>
  settled(api.POST('/api/kitchens/{kitchen_id}/plans/{plan_id}/tick', { params: { path: { ...at, plan_id: props.planId } }, body })),
)
function tick(row: ShoppingRow): void {
  const done = !ticked.value.includes(row.ingredient)
  ticked.value = done ? [...ticked.value, row.ingredient] : ticked.value.filter((one) => one !== row.ingredient)
  void ticking.run({ ingredient: row.ingredient, done })
}
const reserving = useDo((on: boolean, at) =>
  settled(
    api.POST('/api/kitchens/{kitchen_id}/plans/{plan_id}/reserve', { params: { path: { ...at, plan_id: props.planId } }, body: { on } }),
  ),
)
async function reserve(on: boolean): Promise<void> {
  if (await reserving.run(on)) await list.again()
}
const buy = computed(() => (list.answer.value?.rows ?? []).filter((r) => r.short_g > 0))
const there = computed(() => (list.answer.value?.rows ?? []).filter((r) => r.short_g <= 0))
const sections = computed(() => {
  const told = new Map<string, ShoppingRow[]>()
  for (const row of buy.value) told.set(row.section, [...(told.get(row.section) ?? []), row])
  return [...told]
})
const text = computed(() => sections.value.map(([name, rows]) => `${name}\n${rows.map((r) => `- ${r.text}`).join('\n')}`).join('\n\n'))
async function copy(): Promise<void> {
  try {
    await navigator.clipboard.writeText(text.value)
    toasts.show(t('plan-shopping-view-list-copied'))
  } catch {
    toasts.show(t('plan-shopping-view-copying-is-blocked-in-this-browser'), { tone: 'act' })
  }
}
function save(): void {
  const cell = (value: string | number): string =>
    `"${String(value)
      .replace(/"/g, '""')
      .replace(/^([=+\-@])/, "'$1")}"`
  const rows = buy.value.map((r) => [r.section, r.name, r.short_g, r.packs ?? '', r.pack_g ?? '', r.bakes.join('; ')].map(cell).join(','))
  download('shopping.csv', ['section,what,grams,packs,pack_g,for', ...rows].join('\n'), 'text/csv')
}
</script>

<template>
  <div class="page">
    <header>
      <h2>{{ $t('plan-shopping-view-shopping-list') }}</h2>
      <v-btn class="quiet-button" :disabled="!buy.length" @click="copy">{{ $t('plan-shopping-view-copy') }}</v-btn>
      <v-btn class="quiet-button" :disabled="!buy.length" @click="save">{{ $t('plan-shopping-view-csv') }}</v-btn>
      <v-btn
        v-if="session.may('plans.edit') && list.answer.value"
        class="quiet-button"
        :disabled="reserving.busy.value"
        @click="reserve(!list.answer.value.reserved)"
        >{{ list.answer.value.reserved ? $t('plan-shopping-view-release-reserved-stock') : $t('plan-shopping-view-reserve-stock') }}</v-btn
      >
      <router-link class="quiet-button" :to="`/plan/${planId}`">{{ $t('plan-shopping-view-back-to-plan') }}</router-link>
    </header>
    <p v-if="list.missing.value" role="alert">{{ list.trouble.value }}</p>
    <template v-if="list.answer.value">
      <p class="note">
        {{ $t('plan-shopping-view-to-buy-in-the-cart', { buy: buy.length, ticked: ticked.length })
        }}<template v-if="list.answer.value.price">
          {{
            $t('plan-shopping-view-about-priced-items-only', {
              price: list.answer.value.price?.toFixed(2),
              currency: list.answer.value.currency,
            })
          }}</template
        >
      </p>
      <section v-for="[name, rows] in sections" :key="name">
        <h3>{{ name.charAt(0).toUpperCase() + name.slice(1) }}</h3>
        <ul>
          <li v-for="row in rows" :key="row.ingredient" :class="{ done: ticked.includes(row.ingredient) }">
            <span
              ><v-checkbox-btn
                :model-value="ticked.includes(row.ingredient)"
                :aria-label="row.text"
                :disabled="!session.may('plans.edit')"
                @update:model-value="tick(row)"
            /></span>
            <span class="what"
              ><b>{{ row.name }}</b
              >{{ ' '
              }}<span class="note"
                >{{ row.bakes.join(', ')
                }}<template v-if="row.by">{{ $t('plan-shopping-view-by', { by: row.by.slice(0, 10) }) }}</template></span
              ></span
            >
            <span class="much"
              >{{ row.packs && row.pack_g ? `${row.packs} × ${row.pack_g} g` : `${Math.ceil(row.short_g)} g`
              }}<span v-if="row.packs" class="note"> {{ $t('plan-shopping-view-for-g', { short_g: Math.ceil(row.short_g) }) }}</span></span
            >
          </li>
        </ul>
      </section>
      <details v-if="there.length">
        <summary>{{ $t('plan-shopping-view-already-in-stock', { there: there.length }) }}</summary>
        <p class="note">
          {{
            there
              .map((r) =>
                $t('plan-shopping-view-g-of-g', { name: r.name, needed_g: Math.ceil(r.needed_g), on_hand_g: Math.round(r.on_hand_g) }),
              )
              .join(' · ')
          }}
        </p>
      </details>
      <p v-if="!buy.length" class="note">{{ $t('plan-shopping-view-you-have-everything') }}</p>
    </template>
  </div>
</template>

<style scoped>
.page {
  max-width: 820px;
  height: 100%;
  padding: 14px 20px 40px;
  overflow-y: auto;
}

header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}

h2 {
  flex: 1;
}

a {
  text-decoration: none;
}

h3 {
  margin: 14px 0 2px;
  text-transform: none;
}

ul {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: 44px minmax(0, 1fr) auto;
  align-items: center;
  min-height: 44px;
  border-top: 1px solid var(--rule);
}

.done .what,
.done .much {
  color: var(--ink-2);
  text-decoration: line-through;
}

.much {
  font-variant-numeric: tabular-nums;
}
</style>
