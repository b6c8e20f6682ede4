<script setup lang="ts">
import { mdiDotsVertical } from '@mdi/js'
import { useFormulaActions } from '@/composables/useFormulaActions'

const actions = useFormulaActions()
</script>

<template>
  <v-menu location="bottom end">
    <template #activator="{ props: menu }">
      <v-btn v-bind="menu" class="more" :aria-label="$t('frame-formula-menu-more-actions')"
        ><v-icon :icon="mdiDotsVertical" size="20"
      /></v-btn>
    </template>
    <v-list>
      <v-list-item v-for="a in actions()" :key="a.key" :title="a.text" @click="a.run()" />
    </v-list>
  </v-menu>
</template>

<style scoped>
.more {
  display: grid;
  flex: none;
  place-items: center;
  width: 34px;
  height: 34px;
  border-radius: 8px;
}
</style>
