<script setup lang="ts">
/** One thing to be done: what it comes to, what can be set, and the matter drawn. */
import { computed } from 'vue'
import type { PrepTask } from '@/api/types'
import { useBench } from '@/stores/bench'
import BurstChart from './BurstChart.vue'
import CoolingChart from './CoolingChart.vue'
import FatList from './FatList.vue'
import GelList from './GelList.vue'
import PremixTable from './PremixTable.vue'
import PrepInputs from './PrepInputs.vue'
import VegetableChain from './VegetableChain.vue'
import WaterThermometer from './WaterThermometer.vue'
import YeastChart from './YeastChart.vue'

const props = defineProps<{ task: PrepTask; number: number }>()
const emit = defineEmits<{ weighing: [] }>()
const bench = useBench()
const wide = computed(() => ['vegetable', 'premix', 'mix'].includes(props.task.kind))
const point = (): void => {
  if (props.task.lines[0]) bench.selected = props.task.lines[0]
}
</script>

<template>
  <li class="card" :class="{ wide }" :data-task="task.kind">
    <div class="words">
      <h3>
        <span class="number">{{ number }}</span>{{ ' ' }}<v-btn v-if="task.lines.length" @click="point">{{ task.title }}</v-btn
        ><span v-else>{{ task.title }}</span
        >{{ ' ' }}<span class="note confidence">{{ task.confidence }}</span>
      </h3>
      <p class="answer" aria-live="polite">{{ task.text }}</p>
      <PrepInputs v-if="task.inputs.length" :inputs="task.inputs" />
      <ul v-if="task.steps.length" class="steps">
        <li v-for="s in task.steps" :key="s">{{ s }}</li>
      </ul>
      <p v-for="c in task.cautions" :key="c" class="caution note">{{ c }}</p>
      <router-link v-if="task.kind === 'mix'" class="note" :to="{ path: `/formula/${bench.formulaId}`, hash: '#handling' }">{{
        $t('prep-prep-task-view-thickening-over-time')
      }}</router-link>
    </div>
    <VegetableChain v-if="task.vegetable" :drying="task.vegetable" @weighing="emit('weighing')" />
    <PremixTable v-else-if="task.premix" :premix="task.premix" @weighing="emit('weighing')" />
    <WaterThermometer v-else-if="task.water" :water="task.water" />
    <BurstChart v-else-if="task.bursts" :plan="task.bursts" />
    <CoolingChart v-else-if="task.cooling" :cooling="task.cooling" />
    <YeastChart v-else-if="task.yeast" :waking="task.yeast" />
    <GelList v-else-if="task.gels.length" :gels="task.gels" />
    <FatList v-else-if="task.fats.length" :fats="task.fats" />
  </li>
</template>

<style scoped>
.card {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 270px;
  gap: 18px;
  padding: 12px 16px 14px;
  border: 1px solid var(--rule);
  border-radius: 10px;
  background: var(--panel);
}

.card.wide {
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}

.words {
  display: flex;
  flex-direction: column;
  gap: 6px;
  min-width: 0;
}

h3 {
  display: flex;
  align-items: baseline;
  gap: 8px;
  font-size: 17px;
}

h3 button:hover {
  text-decoration: underline;
  text-decoration-color: var(--rule-strong);
  text-underline-offset: 4px;
}

.number {
  min-width: 22px;
  padding: 0 6px;
  border: 1px solid var(--rule-strong);
  border-radius: 999px;
  font-size: 13px;
  text-align: center;
}

.confidence {
  margin-left: auto;
  font-family: var(--text);
  font-weight: 400;
  letter-spacing: 0;
}

.answer {
  margin: 0;
  font-size: 15px;
  line-height: 1.4;
}

.steps {
  margin: 0;
  padding: 0 0 0 16px;
  font-size: 13px;
  line-height: 1.4;
}

.caution {
  margin: 0;
  padding-left: 9px;
  border-left: 3px double var(--rule-strong);
}

@media (max-width: 1140px) {
  .card {
    grid-template-columns: minmax(0, 1fr) 220px;
  }
}

@media (max-width: 900px) {
  .card {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
