<script setup lang="ts">
import type { PrepTask } from '@/api/types'
import { figure } from '@/domain/format'

defineProps<{ gels: PrepTask['gels'] }>()
</script>

<template>
  <dl>
    <template v-for="g in gels" :key="g.ingredient">
      <dt :class="{ act: !g.within }">
        <b>{{ figure(g.grams, 1) }} g {{ g.ingredient }}</b
        >{{ ' ' }}<span class="note">{{ figure(g.percent, 1) }} %; usual {{ figure(g.low_g, 1) }}–{{ figure(g.high_g, 1) }} g</span>
      </dt>
      <dd class="note">{{ g.how }}</dd>
    </template>
  </dl>
</template>

<style scoped>
dl {
  margin: 0;
}

dd {
  margin: 0 0 5px;
}
</style>
