<script setup lang="ts" generic="Item extends object">
/**
 * Rows of a list that may be long: a short one stands in the page whole, so that the browser's own search and a reader find
 * everything; of a long one only what is in sight.
 */
const props = withDefaults(
  defineProps<{
    items: Item[]
    itemHeight: number
    itemKey?: keyof Item & string
    /** As many rows as are drawn without a moment's wait. */
    whole?: number
  }>(),
  { itemKey: undefined, whole: 120 },
)
const keyOf = (item: Item, n: number): PropertyKey => (props.itemKey ? (item[props.itemKey] as PropertyKey) : n)
</script>

<template>
  <template v-if="items.length <= whole">
    <template v-for="(item, n) in items" :key="keyOf(item, n)"><slot :item="item" :item-ref="undefined" /></template>
  </template>
  <v-virtual-scroll v-else renderless :items="items" :item-key="itemKey ?? null" :item-height="itemHeight">
    <template #default="{ item, itemRef }"><slot :item="item" :item-ref="itemRef" /></template>
  </v-virtual-scroll>
</template>
