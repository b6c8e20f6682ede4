<script setup lang="ts">
import { useOutage } from '@/stores/outage'

const outage = useOutage()
</script>

<template>
  <div v-if="outage.away" class="banner" role="status">
    <span>
      {{ $t('frame-outage-banner-no-connection-to-the-server-your') }}
      <span class="note">{{
        outage.left > 0 ? $t('frame-outage-banner-trying-again-in-s', { left: outage.left }) : $t('frame-outage-banner-looking')
      }}</span>
    </span>
    <v-btn class="quiet-button" @click="outage.look()">{{ $t('frame-outage-banner-try-again') }}</v-btn>
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
