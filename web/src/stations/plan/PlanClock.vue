<script setup lang="ts">
/** What hands do, by the clock. */
import { computed } from 'vue'
import type { Planned } from '@/api/types'
import { dayOf } from './times'

const props = defineProps<{ planned: Planned }>()
const clockList = computed(() => props.planned.tasks.filter((t) => t.hands.length))
</script>

<template>
  <div>
    <h3 v-if="clockList.length">{{ $t('plan-plan-clock-schedule') }}</h3>
    <ol class="clock">
      <li v-for="t in clockList" :key="t.id" :class="{ done: t.done }">
        <span class="at">{{ dayOf(planned.begins, t.start_min) }} {{ t.start.slice(11, 16) }}</span>
        <span
          >{{ t.text
          }}<span v-if="t.check && t.surely" class="note">
            {{ $t('plan-plan-clock-check-from-out-by-at-the', { check: t.check.slice(11, 16), surely: t.surely.slice(11, 16) }) }}</span
          ></span
        >
      </li>
    </ol>
  </div>
</template>

<style scoped>
.clock {
  margin: 0;
  padding: 0;
  list-style: none;
}

.clock li {
  display: grid;
  grid-template-columns: 84px minmax(0, 1fr);
  padding: 5px 4px;
  border-top: 1px solid var(--rule);
}

.clock .at {
  font-variant-numeric: tabular-nums;
}

.clock .done {
  color: var(--ink-2);
  text-decoration: line-through;
}

@media (max-width: 800px) {
  .clock li {
    min-height: 44px;
    font-size: 17px;
  }
}
</style>
