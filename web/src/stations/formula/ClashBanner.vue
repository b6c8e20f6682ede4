<script setup lang="ts">
import { useBench } from '@/stores/bench'

const bench = useBench()
</script>

<template>
  <section v-if="bench.clash" class="clash" role="alert">
    <p>
      <b>{{ bench.clash.by || 'Somebody' }} saved this formula in between.</b> Nothing is lost: yours is here, theirs is on the shelf.
    </p>
    <p v-if="bench.clash.differences.length" class="note">From yours to theirs: {{ bench.clash.differences.join(' · ') }}</p>
    <div class="actions">
      <v-btn class="act-button" @click="bench.keepMine()">Keep mine</v-btn>
      <v-btn class="quiet-button" @click="bench.takeTheirs()">Take theirs</v-btn>
    </div>
  </section>
  <section v-else-if="bench.refusal || bench.saveRefusal" class="clash" role="alert">
    <p>{{ (bench.refusal ?? bench.saveRefusal)?.sentence }}</p>
  </section>
</template>

<style scoped>
.clash {
  padding: 12px 16px;
  border: 1px solid var(--act);
  border-radius: 10px;
  background: var(--act-soft);
}

p {
  margin: 0 0 4px;
}

.actions {
  display: flex;
  gap: 10px;
  margin-top: 8px;
}
</style>
