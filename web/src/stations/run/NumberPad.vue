<script setup lang="ts">
/** A number typed with a floured knuckle: keys of a thumb's width, a comma or a dot, wiped at once. */
const model = defineModel<string>({ required: true })
defineProps<{ unit: string; label: string }>()
const keys = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0', '⌫'] as const
function press(key: (typeof keys)[number]): void {
  if (key === '⌫') model.value = model.value.slice(0, -1)
  else if (key !== '.' || !/[.,]/.test(model.value)) model.value = `${model.value}${key}`.slice(0, 8)
}
</script>

<template>
  <div class="pad">
    <label class="shown"
      ><span class="visually-hidden">{{ label }}</span
      ><input v-model="model" inputmode="decimal" maxlength="8" autocomplete="off" /><span>{{ unit }}</span></label
    >
    <v-btn
      v-for="key in keys"
      :key="key"
      class="key"
      :aria-label="key === '⌫' ? $t('run-number-pad-delete-last-digit') : key"
      @click="press(key)"
      >{{ key }}</v-btn
    >
  </div>
</template>

<style scoped>
.pad {
  display: grid;
  grid-template-columns: repeat(3, minmax(64px, 92px));
  gap: 6px;
}

.shown {
  display: flex;
  grid-column: 1 / -1;
  align-items: baseline;
  gap: 6px;
  padding: 2px 10px;
  border: 1px solid var(--rule-strong);
  border-radius: 10px;
  background: var(--panel);
  font-size: 22px;
}

.shown input {
  width: 100%;
  min-width: 0;
  border: 0;
  outline: none;
  background: transparent;
  font: 700 28px/1.3 var(--head);
  text-align: right;
}

.shown:focus-within {
  border-color: var(--focus);
}

@media (max-width: 700px) {
  .pad {
    grid-template-columns: repeat(3, minmax(64px, 116px));
    gap: 5px;
  }

  .key.key {
    min-height: 46px;
  }
}

.key {
  min-height: 52px;
  border: 1px solid var(--rule);
  border-radius: 10px;
  background: var(--panel);
  font-size: 22px;
  text-align: center;
}
</style>
