<script setup lang="ts">
/** What would make the plan possible, or shorter, with one press each. */
import type { PlanDocument, Planned } from '@/api/types'

defineProps<{ helps: Planned['helps']; document: PlanDocument }>()
const emit = defineEmits<{ change: [over: Partial<PlanDocument>] }>()
</script>

<template>
  <ul class="helps">
    <li v-for="h in helps" :key="h.key">
      {{ h.text }}
      <v-btn v-if="h.key === 'people'" class="quiet-button tiny-button" @click="emit('change', { people: (document.people ?? 1) + 1 })">{{
        $t('plan-plan-helps-add-a-person')
      }}</v-btn>
      <v-btn
        v-else-if="h.key === 'tray'"
        class="quiet-button tiny-button"
        @click="
          emit('change', {
            ovens: document.ovens.map((o, n) => (n ? o : { ...o, trays: (o.trays ?? 2) + 1 })),
          })
        "
        >{{ $t('plan-plan-helps-add-a-tray') }}</v-btn
      >
      <v-btn
        v-else-if="h.key.startsWith('without:') && document.bakes.length > 1"
        class="quiet-button tiny-button"
        @click="emit('change', { bakes: document.bakes.filter((b) => b.id !== h.key.slice(8)), pins: [] })"
        >{{ $t('plan-plan-helps-leave-it-out') }}</v-btn
      >
    </li>
  </ul>
</template>

<style scoped>
.helps {
  margin: 0 0 8px;
  padding-left: 18px;
}

@media print {
  header a,
  header button,
  .foot,
  .helps {
    display: none;
  }
}
</style>
