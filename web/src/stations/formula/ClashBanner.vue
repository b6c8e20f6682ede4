<script setup lang="ts">
import { computed } from 'vue'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

const bench = useBench()
const session = useSession()
const who = computed(() =>
  bench.clash?.by && bench.clash.by === session.me?.email
    ? t('formula-clash-banner-your-other-tab')
    : bench.clash?.by || t('formula-clash-banner-somebody'),
)
</script>

<template>
  <section v-if="bench.clash" class="clash" role="alert">
    <p>
      <b>{{ $t('formula-clash-banner-saved-this-formula-while-you-were', { who }) }}</b>
      {{ $t('formula-clash-banner-nothing-is-lost-your-version-is') }}
    </p>
    <p v-if="bench.clash.differences.length" class="note">
      {{ $t('formula-clash-banner-differences-yours-theirs', { differences: bench.clash.differences.join(' · ') }) }}
    </p>
    <div class="actions">
      <v-btn class="act-button" @click="bench.keepMine()">{{ $t('formula-clash-banner-keep-mine') }}</v-btn>
      <v-btn class="quiet-button" @click="bench.takeTheirs()">{{ $t('formula-clash-banner-use-theirs') }}</v-btn>
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
