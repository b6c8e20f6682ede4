<script setup lang="ts">
/** A formula on the shelf: its core, its figures, and what is wrong with it. */
import CoreThumb from '@/components/core/CoreThumb.vue'
import type { components } from '@/api/generated/schema'
import { ago, figure } from '@/domain/format'
import { useSession } from '@/stores/session'

defineProps<{ item: components['schemas']['ShelfOut']; formName: string; archived: boolean }>()
const emit = defineEmits<{ copy: []; archive: [] }>()
const session = useSession()
</script>

<template>
  <div role="listitem" class="card">
    <router-link :to="`/formula/${item.id}`" class="face">
      <CoreThumb :strata="item.thumb.strata" :width="44" :height="116" />
      <span class="words">
        <span class="name">{{ item.name }}</span>
        <span class="note"
          >{{ formName }} · {{ item.thumb.pieces }} {{ $t('formula-shelf-card-value', { pieces: item.thumb.pieces }) }}</span
        >
        <span class="figures">
          <span
            ><b class="figure">{{ figure(item.thumb.net_carbs, 1) }}</b
            >{{ ' ' }}<span class="note">{{ $t('formula-shelf-card-g-net', { convention: item.thumb.convention }) }}</span></span
          >
          <span
            ><b class="figure">{{ figure(item.thumb.protein, 1) }}</b
            >{{ ' ' }}<span class="note">{{ $t('formula-shelf-card-g-protein') }}</span></span
          >
        </span>
        <span class="note foot">
          {{ item.versions ? `v${item.versions}` : $t('formula-shelf-card-draft') }} · {{ ago(item.touched_at) }}
          <span v-if="item.thumb.outside" class="act"> {{ $t('formula-shelf-card-outside', { outside: item.thumb.outside }) }}</span>
          <span v-if="item.thumb.problems" class="act"> {{ $t('formula-shelf-card-not-read', { problems: item.thumb.problems }) }}</span>
        </span>
      </span>
    </router-link>
    <span v-if="session.may('formulas.edit')" class="actions">
      <v-btn class="note" @click="emit('copy')">{{ $t('formula-shelf-card-copy') }}</v-btn>
      <v-btn class="note" @click="emit('archive')">{{
        archived ? $t('formula-shelf-card-restore') : $t('formula-shelf-card-archive')
      }}</v-btn>
    </span>
  </div>
</template>

<style scoped>
.card {
  position: relative;
  min-height: 144px;
  border: 1px solid var(--rule);
  border-radius: 12px;
  background: var(--panel);
  transition: border-color 0.15s;
}

.card:hover {
  border-color: var(--rule-strong);
}

.face {
  display: flex;
  gap: 18px;
  padding: 13px 18px;
  text-decoration: none;
}

.words {
  display: flex;
  flex-direction: column;
  min-width: 0;
  flex: 1;
}

.name {
  font: 700 18px/1.25 var(--head);
  letter-spacing: -0.01em;
}

.figures {
  display: flex;
  gap: 18px;
  margin: 10px 0 auto;
}

.figures b {
  font-size: 20px;
}

.actions {
  position: absolute;
  right: 14px;
  bottom: 12px;
  display: flex;
  gap: 12px;
  opacity: 0;
  transition: opacity 0.15s;
}

.card:hover .actions,
.card:focus-within .actions {
  opacity: 1;
}

.actions button:hover {
  color: var(--act);
}

@media (hover: none), (max-width: 700px) {
  .actions {
    opacity: 1;
  }
}
</style>
