<script setup lang="ts">
/** The head of the station: where one is in it, and what can be done from everywhere. */
import { useSession } from '@/stores/session'

defineProps<{ title: string }>()
const session = useSession()
</script>

<template>
  <div class="bar">
    <h2>{{ title }}</h2>
    <slot />
    <span class="spring" />
    <router-link class="quiet-button" to="/pantry" active-class="" exact-active-class="on">{{
      $t('pantry-pantry-bar-ingredients-and-packs')
    }}</router-link>
    <router-link class="quiet-button" to="/pantry/stock" active-class="on">{{ $t('pantry-pantry-bar-stock') }}</router-link>
    <router-link v-if="session.may('packs.edit')" class="quiet-button" to="/pantry/import" active-class="on">{{
      $t('pantry-pantry-bar-import')
    }}</router-link>
    <router-link v-if="session.may('packs.edit')" class="act-button" to="/pantry/packs/new">{{
      $t('pantry-pantry-bar-new-pack')
    }}</router-link>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 14px 24px 10px;
}

@media (max-width: 700px) {
  .bar {
    flex-wrap: wrap;
    padding: 10px 12px;
  }
}

h2 {
  margin-right: 6px;
  font-size: 20px;
  white-space: nowrap;
}

.spring {
  flex: 1;
}

a {
  text-decoration: none;
}

.on {
  border-color: var(--act);
  box-shadow: inset 0 0 0 1px var(--act);
}
</style>
