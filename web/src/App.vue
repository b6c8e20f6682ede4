<script setup lang="ts">
import { computed, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useTheme } from 'vuetify'
import CommandBox from '@/components/frame/CommandBox.vue'
import HeadStrip from '@/components/frame/HeadStrip.vue'
import OutageBanner from '@/components/frame/OutageBanner.vue'
import KeysSheet from '@/components/frame/KeysSheet.vue'
import StationRail from '@/components/frame/StationRail.vue'
import ToastStack from '@/components/frame/ToastStack.vue'
import HatchDefs from '@/components/core/HatchDefs.vue'
import { usePanels } from '@/composables/usePanels'
import { useShortcuts } from '@/composables/useShortcuts'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'

const bench = useBench()
const panels = usePanels()
const route = useRoute()
const session = useSession()
const theme = useTheme()
const framed = computed(() => session.me !== null && !route.meta.open)

watch(
  () => session.theme,
  (now) => {
    theme.change(now)
  },
  { immediate: true },
)
useShortcuts()
function toAdd(): void {
  window.document.querySelector<HTMLInputElement>('input[data-finder]')?.focus()
}
</script>

<template>
  <v-app>
    <HatchDefs />
    <div v-if="framed" class="frame">
      <nav class="skips" :aria-label="$t('frame-app-skip')">
        <a class="skip" href="#work">{{ $t('frame-app-skip-to-content') }}</a>
        <a
          v-if="route.name === 'bench' && bench.mayEdit && panels.open.value === 'lines'"
          class="skip"
          href="#add-ingredient"
          @click.prevent="toAdd"
          >{{ $t('frame-app-add-an-ingredient') }}</a
        >
      </nav>
      <StationRail />
      <HeadStrip />
      <main id="work" class="work" tabindex="-1"><router-view /></main>
      <CommandBox />
      <KeysSheet />
    </div>
    <router-view v-else />
    <OutageBanner />
    <ToastStack />
  </v-app>
</template>

<style scoped>
.frame {
  display: grid;
  grid-template: 56px 1fr / 72px 1fr;
  height: 100vh;
  height: 100dvh;
}

.work {
  min-width: 0;
  min-height: 0;
  overflow: hidden;
  outline: none;
}

.skips {
  position: fixed;
}

.skip {
  position: fixed;
  top: -60px;
  left: 8px;
  z-index: 40;
  padding: 8px 14px;
  border-radius: 8px;
  background: var(--panel);
}

.skip:focus {
  top: 8px;
}

/* On a phone the stations lie at the foot, where a thumb reaches them. */
@media (max-width: 700px) {
  .frame {
    grid-template: auto minmax(0, 1fr) 58px / minmax(0, 1fr);
  }
}

@media print {
  .frame {
    display: block;
    height: auto;
  }

  .frame > :not(.work) {
    display: none;
  }

  .work {
    overflow: visible;
  }
}
</style>
