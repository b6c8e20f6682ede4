<script setup lang="ts">
/** Every timer that runs, the next to ring first; what overlaps is drawn as lanes. */
import { computed } from 'vue'
import { linear } from '@/domain/chart'
import { clock, type Timer } from '@/domain/timers'

const props = defineProps<{ timers: Timer[]; now: number }>()
const emit = defineEmits<{ more: [id: string, minutes: number]; stop: [id: string] }>()
const left = (timer: Timer): number => timer.endsAt - props.now
const from = computed(() => Math.min(...props.timers.map((t) => t.startedAt)))
const to = computed(() => Math.max(...props.timers.map((t) => t.endsAt), props.now))
const place = computed(() => linear([from.value, to.value], [0, 100]))
</script>

<template>
  <section v-if="timers.length" class="timers" :aria-label="$t('run-timer-strip-timers')">
    <article
      v-for="timer in timers"
      :key="timer.id"
      class="timer"
      :class="{ up: left(timer) <= 0, look: timer.checkAt > 0 && now >= timer.checkAt }"
    >
      <p class="left" role="timer">{{ clock(left(timer)) }}</p>
      <p class="name">
        {{ timer.name
        }}<span v-if="timer.checkAt && now < timer.checkAt" class="note">
          {{ $t('run-timer-strip-check-in', { now: clock(timer.checkAt - now) }) }}</span
        >
      </p>
      <v-btn class="touch" :aria-label="$t('run-timer-strip-add-5-min-to', { name: timer.name })" @click="emit('more', timer.id, 5)">{{
        $t('run-timer-strip-5-more')
      }}</v-btn>
      <v-btn class="touch" :aria-label="$t('run-timer-strip-stop', { name: timer.name })" @click="emit('stop', timer.id)">{{
        $t('run-timer-strip-stop-2')
      }}</v-btn>
      <svg class="lane" viewBox="0 0 100 6" preserveAspectRatio="none" aria-hidden="true">
        <rect
          :x="place(timer.startedAt)"
          y="1"
          :width="Math.max(place(timer.endsAt) - place(timer.startedAt), 0)"
          height="4"
          class="whole"
        />
        <rect
          :x="place(timer.startedAt)"
          y="1"
          :width="Math.max(place(Math.min(now, timer.endsAt)) - place(timer.startedAt), 0)"
          height="4"
          class="gone"
        />
        <rect v-if="timer.checkAt" :x="place(timer.checkAt)" y="0" width=".7" height="6" class="mark" />
        <rect :x="place(now)" y="0" width=".5" height="6" class="mark" />
      </svg>
    </article>
  </section>
</template>

<style scoped>
.timers {
  display: flex;
  flex-direction: column;
  gap: 1px;
  border-bottom: 1px solid var(--rule);
  background: var(--rule);
}

.timer {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto auto;
  align-items: center;
  gap: 2px 10px;
  padding: 4px 14px 5px;
  background: var(--balance);
}

.timer p {
  margin: 0;
}

.left {
  min-width: 92px;
  font: 700 30px/1.1 var(--head);
}

.name {
  overflow: hidden;
  font-size: 16px;
  text-overflow: ellipsis;
}

.look {
  background: var(--select);
}

.up {
  background: var(--act-soft);
}

.up .left {
  color: var(--act);
}

.touch {
  min-width: 60px;
  min-height: 44px;
  padding: 0 10px;
  border: 1px solid var(--rule-strong);
  border-radius: 10px;
  background: var(--panel);
}

.lane {
  grid-column: 1 / -1;
  width: 100%;
  height: 6px;
}

.whole {
  fill: var(--smear);
}

.gone {
  fill: var(--act);
}

.mark {
  fill: var(--ink);
}
</style>
