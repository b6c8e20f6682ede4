<script setup lang="ts">
import type { PrepTask } from '@/api/types'
import { figure, inWeight, weight } from '@/domain/format'
import { useSession } from '@/stores/session'

defineProps<{ gels: PrepTask['gels'] }>()
const session = useSession()
</script>

<template>
  <dl>
    <template v-for="g in gels" :key="g.ingredient">
      <dt :class="{ act: !g.within }">
        <b>{{ inWeight(g.grams, session.units) }} {{ g.ingredient }}</b
        >{{ ' '
        }}<span class="note">{{
          $t('prep-gel-list-usual', {
            percent: figure(g.percent, 1),
            low_g: weight(g.low_g, session.units),
            high_g: inWeight(g.high_g, session.units),
          })
        }}</span>
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
