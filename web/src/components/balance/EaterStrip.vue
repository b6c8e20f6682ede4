<script setup lang="ts">
/** How many pieces fit into somebody's day, and what stops the next one. */
import { ref } from 'vue'
import type { Analysis } from '@/api/types'
import { figure, percent } from '@/domain/format'

defineProps<{ eaters: Analysis['eaters'] }>()
const open = ref('')
</script>

<template>
  <section class="eaters" :aria-label="$t('frame-eater-strip-daily-limits')">
    <template v-for="e in eaters" :key="e.eater">
      <v-btn class="eater" :aria-expanded="open === e.eater" @click="open = open === e.eater ? '' : e.eater">
        <span>{{ e.eater }}</span><span v-if="e.budgets.length"
          ><b class="figure">{{ e.pieces >= 99 ? $t('frame-eater-strip-any') : e.pieces }}</b
          >{{ ' ' }}<span class="note">{{ $t('frame-eater-strip-value', { pieces: e.pieces }) }} · {{ e.limit.toLowerCase() }}</span></span
        >
      </v-btn>
      <div v-if="open === e.eater" class="more">
        <p>{{ e.text }}</p>
        <div v-for="b in e.budgets" :key="b.key" class="budget">
          <span>{{ b.name.toLowerCase() }}</span>
          <span class="bar"><i :style="{ width: `${Math.min(100 * b.share_of_piece, 100)}%` }" /></span>
          <span class="note" :title="percent(b.share_of_piece)">{{
            $t('frame-eater-strip-of', { amount: figure(b.a_piece.value, b.unit === 'g' ? 1 : 0), a_day: b.a_day, unit: b.unit })
          }}</span>
        </div>
      </div>
    </template>
  </section>
</template>

<style scoped>
.eaters {
  padding: 4px 0 8px;
  border-bottom: 1px solid var(--rule);
}

.eater {
  display: flex;
  justify-content: space-between;
  width: 100%;
  padding: 3px 0;
  text-align: left;
}

.more {
  padding: 2px 0 6px;
  font-size: 12px;
}

.more p {
  margin: 0 0 4px;
}

.budget {
  display: grid;
  grid-template-columns: 70px 60px 1fr;
  align-items: center;
  gap: 8px;
}

.bar {
  height: 7px;
  border-radius: 3px;
  background: var(--in-soft);
}

.bar i {
  display: block;
  height: 7px;
  border-radius: 3px;
  background: var(--role-binder);
}
</style>
