<script setup lang="ts">
/** Where the run is: its name, how far it has come, what has not been sent yet. */
import { computed } from 'vue'
import { useRun } from '@/stores/run'

const listed = defineModel<boolean>('listed', { required: true })
const left = defineModel<boolean>('left', { required: true })
const run = useRun()

const GROUPS = ['prep', 'weigh', 'mix', 'rest', 'shape', 'bake', 'cool'] as const
const groups = computed(() =>
  GROUPS.map((group) => {
    const own = run.steps.filter((s) => s.group === group)
    return { group, own, done: own.filter((s) => run.done.has(s.id)).length, here: run.step?.group === group }
  }).filter((row) => row.own.length),
)
</script>

<template>
  <header>
    <h2>{{ run.opened?.run.name }}</h2>
    <ol class="groups" :aria-label="$t('run-run-head-progress')">
      <li
        v-for="row in groups"
        :key="row.group"
        :class="{ here: row.here, over: row.done === row.own.length }"
        :aria-current="row.here ? 'step' : undefined"
      >
        {{ row.group }}
        <span v-if="row.here">{{ row.done + 1 > row.own.length ? row.own.length : row.done + 1 }}/{{ row.own.length }}</span>
      </li>
    </ol>
    <span v-if="run.offline || run.waiting.length" class="waiting" role="status">{{
      run.offline
        ? $t('run-run-head-offline-entries-saved-on-this-device', { waiting: run.waiting.length })
        : $t('run-run-head-sending-entries', { waiting: run.waiting.length })
    }}</span>
    <v-btn class="link note" @click="left = !left">{{
      left ? $t('run-run-head-move-buttons-right') : $t('run-run-head-move-buttons-left')
    }}</v-btn>
    <v-btn class="quiet-button touch" :aria-expanded="listed" @click="listed = !listed">{{ $t('run-run-head-all-steps') }}</v-btn>
  </header>
</template>

<style scoped src="./bench.css"></style>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 16px;
  padding: 6px 18px;
  border-bottom: 1px solid var(--rule);
}

h2 {
  font-size: 17px;
}

.groups {
  display: flex;
  flex: 1;
  flex-wrap: wrap;
  gap: 2px 14px;
  margin: 0;
  padding: 0;
  font-size: 14px;
  color: var(--ink-2);
  list-style: none;
}

.groups .here {
  border-bottom: 3px solid var(--act);
  color: var(--ink);
  font-weight: 700;
}

.groups .over {
  text-decoration: line-through;
}

.waiting {
  padding: 3px 9px;
  border-radius: 9px;
  background: var(--act-soft);
}

.link {
  min-height: 44px;
}

header .touch {
  min-height: 44px;
  font-size: 14px;
}

@media (max-width: 700px) {
  header {
    flex-wrap: nowrap;
    padding: 4px 12px;
  }

  h2 {
    flex: 1;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }

  .groups {
    flex: none;
  }

  .groups li:not(.here) {
    display: none;
  }

  .waiting {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }

  .link {
    display: none;
  }
}
</style>
