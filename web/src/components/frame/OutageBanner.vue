<script setup lang="ts">
import { useOutage } from '@/stores/outage'

const outage = useOutage()
</script>

<template>
  <div v-if="outage.away" class="banner" role="status">
    <span>
      No connection to the server. Your changes are saved on this device and will be sent when it is back.
      <span class="note">{{ outage.left > 0 ? `Trying again in ${outage.left} s.` : 'Looking …' }}</span>
    </span>
    <v-btn class="quiet-button" @click="outage.look()">Try again</v-btn>
  </div>
</template>

<style scoped>
.banner {
  position: fixed;
  top: 8px;
  left: 50%;
  z-index: 45;
  display: flex;
  align-items: center;
  gap: 14px;
  width: max-content;
  max-width: calc(100vw - 24px);
  padding: 8px 16px;
  transform: translateX(-50%);
  border: 1px solid var(--act);
  border-radius: 10px;
  background: var(--panel);
  box-shadow: 0 4px 18px rgb(0 0 0 / 18%);
}
</style>
