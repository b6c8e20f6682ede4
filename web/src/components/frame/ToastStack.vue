<script setup lang="ts">
import { useToasts, type Toast } from '@/stores/toasts'

const store = useToasts()

function act(toast: Toast): void {
  toast.action?.run()
  store.close(toast.id)
}
</script>

<template>
  <div class="stack" role="status" aria-live="polite">
    <div v-for="toast in store.toasts" :key="toast.id" class="toast" :class="toast.tone">
      <span>{{ toast.text }}</span>
      <v-btn v-if="toast.action" class="do" @click="act(toast)">{{ toast.action.label }}</v-btn>
      <v-btn class="close" :aria-label="$t('frame-toast-stack-dismiss')" @click="store.close(toast.id)">×</v-btn>
    </div>
  </div>
</template>

<style scoped>
.stack {
  position: fixed;
  bottom: 18px;
  left: 50%;
  z-index: 50;
  display: grid;
  gap: 8px;
  transform: translateX(-50%);
}

.toast {
  display: flex;
  align-items: center;
  gap: 16px;
  max-width: 620px;
  padding: 10px 16px;
  border-radius: 10px;
  background: var(--ink);
  color: var(--ground);
  box-shadow: var(--shadow);
}

.toast.act {
  border-left: 5px solid var(--act);
}

.do {
  font-weight: 650;
  text-decoration: underline;
  text-underline-offset: 3px;
}

.close {
  padding: 0 4px;
  font-size: 18px;
  line-height: 1;
}

@media print {
  .stack {
    display: none;
  }
}
</style>
