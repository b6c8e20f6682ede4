<script setup lang="ts">
import { mdiMagnify, mdiRedoVariant, mdiUndoVariant } from '@mdi/js'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import FormulaHead from './FormulaHead.vue'
import FormulaMenu from './FormulaMenu.vue'
import KitchenMenu from './KitchenMenu.vue'
import { useCommands } from '@/composables/useCommands'
import { useDo } from '@/composables/useDo'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'

const route = useRoute()
const bench = useBench()
const session = useSession()
const commands = useCommands()
const onBench = computed(() => /^\/formula\/\d+/.test(route.path) && bench.document !== null)
const unitsShown = computed(() => (session.units === 'us' ? 'oz · °F · in' : 'g · °C · mm'))

const switching = useDo(() => session.change({ units: session.units === 'us' ? 'metric' : 'us' }))
</script>

<template>
  <header class="head">
    <template v-if="onBench">
      <h1 class="visually-hidden">{{ bench.document?.name }}</h1>
      <FormulaHead />
    </template>
    <h1 v-else class="kitchen-name">{{ session.kitchen?.name }}</h1>
    <span class="spring" />
    <template v-if="onBench">
      <v-btn
        class="icon"
        :disabled="!bench.canUndo"
        :aria-label="$t('frame-head-strip-undo')"
        :title="$t('frame-head-strip-undo-ctrl-z')"
        @click="bench.goBack()"
      >
        <v-icon :icon="mdiUndoVariant" size="18" />
      </v-btn>
      <v-btn
        class="icon"
        :disabled="!bench.canRedo"
        :aria-label="$t('frame-head-strip-redo')"
        :title="$t('frame-head-strip-redo-ctrl-shift-z')"
        @click="bench.goForward()"
      >
        <v-icon :icon="mdiRedoVariant" size="18" />
      </v-btn>
    </template>
    <v-btn
      class="quiet-button"
      :aria-label="$t('frame-head-strip-units-change-units', { units_shown: unitsShown })"
      @click="switching.run(undefined)"
      >{{ unitsShown }}</v-btn
    >
    <v-btn class="find" :aria-label="$t('frame-head-strip-search-or-run-a-command')" @click="commands.open.value = true"
      ><v-icon class="glass" :icon="mdiMagnify" size="20" aria-hidden="true" /><span class="what">{{
        $t('frame-head-strip-search-or-command')
      }}</span
      ><kbd>{{ $t('frame-head-strip-ctrl-k') }}</kbd></v-btn
    >
    <FormulaMenu v-if="onBench" />
    <KitchenMenu />
  </header>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: 10px;
  min-width: 0;
  padding: 0 20px;
  border-bottom: 1px solid var(--rule);
}

.kitchen-name {
  font-size: 22px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}

.spring {
  flex: 1;
}

.icon {
  display: grid;
  place-items: center;
  width: 30px;
  height: 30px;
  border-radius: 8px;
}

.icon:hover:not([disabled]) {
  background: var(--panel);
}

.icon[disabled] {
  opacity: 0.35;
  cursor: default;
}

.find {
  display: flex;
  justify-content: space-between;
  align-items: center;
  width: 190px;
  min-height: 34px;
  padding: 0 12px;
  border: 1px solid var(--rule-strong);
  border-radius: 8px;
  background: var(--panel);
  color: var(--ink-2);
  font-size: 13px;
}

.glass {
  display: none;
}

kbd {
  font: inherit;
  font-size: 12px;
}

@media (max-width: 1100px) {
  .find {
    width: 150px;
    white-space: nowrap;
  }

  .find kbd {
    display: none;
  }
}

@media (max-width: 700px) {
  .head {
    gap: 6px;
    padding: 0 10px;
  }

  .head {
    flex-wrap: wrap;
    gap: 4px 6px;
    padding: 4px 10px;
  }

  .head :deep(.name),
  .kitchen-name {
    flex: 1 1 45%;
    min-width: 0;
    max-width: none;
    field-sizing: fixed;
    order: -2;
  }

  .spring {
    display: none;
  }

  .icon,
  .find,
  .head :deep(.more),
  .head :deep(.round) {
    order: -1;
  }

  .find {
    width: 40px;
    padding: 0;
    justify-content: center;
  }

  .find .what {
    display: none;
  }

  .find .glass {
    display: inline;
  }

  .icon + .icon {
    display: none;
  }
}
</style>
