<script setup lang="ts">
/** What a trial proposes for the dough on the bench: its ghost lies beside the core until it is taken or left. */
import { useSettle } from '@/stores/settle'

const settle = useSettle()
</script>

<template>
  <section v-if="settle.proposed" class="proposal" aria-label="Suggested after a bake">
    <p>
      <b>{{ settle.proposed.text }}</b>{{ ' ' }}
      <span class="note">{{ settle.proposed.edits.join(', ') }}</span>
      <span v-for="c in settle.proposed.conflicts" :key="c.what" class="act">
        You have changed {{ c.what }} since that bake: {{ c.present }} would become {{ c.proposed }}.
      </span>
    </p>
    <v-btn class="act-button" @click="settle.answerProposal(true)">Apply</v-btn>
    <v-btn class="quiet-button" @click="settle.answerProposal(false)">Discard</v-btn>
  </section>
</template>

<style scoped>
.proposal {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  padding: 8px 14px;
  border: 1px solid var(--act);
  border-radius: 12px;
  background: var(--act-soft);
}

p {
  flex: 1;
  margin: 0;
}
</style>
