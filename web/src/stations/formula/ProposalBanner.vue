<script setup lang="ts">
/** What a trial proposes for the dough on the bench: its ghost lies beside the core until it is taken or left. */
import { useSettle } from '@/stores/settle'

const settle = useSettle()
</script>

<template>
  <section v-if="settle.proposed" class="proposal" :aria-label="$t('formula-proposal-banner-suggested-after-a-bake')">
    <p>
      <b>{{ settle.proposed.text }}</b>{{ ' ' }}
      <span class="note">{{ settle.proposed.edits.join(', ') }}</span>
      <span v-for="c in settle.proposed.conflicts" :key="c.what" class="act">
        {{ $t('formula-proposal-banner-you-have-changed-since-that-bake', { what: c.what, present: c.present, proposed: c.proposed }) }}
      </span>
    </p>
    <v-btn class="act-button" @click="settle.answerProposal(true)">{{ $t('formula-proposal-banner-apply') }}</v-btn>
    <v-btn class="quiet-button" @click="settle.answerProposal(false)">{{ $t('formula-proposal-banner-discard') }}</v-btn>
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
