<script setup lang="ts">
/**
 * A number with its unit, typed in the kitchen's own units and given on in the core's (g, °C, mm, m). A comma is a point; an empty
 * field is nothing; what is no number, or a measure that cannot be, leaves it as it was.
 */
import { computed, ref, watch } from 'vue'
import { quantity, type QuantityKind } from '@/domain/quantities'
import { useSession } from '@/stores/session'

defineOptions({ inheritAttrs: false })
const props = withDefaults(
  defineProps<{
    value: number | null | undefined
    kind?: QuantityKind
    /** What it is of; units that depend on the kitchen are added to it. */
    label: string
    /** What stands there while nothing is typed. */
    usual?: number | string | null
    low?: number
    high?: number
    disabled?: boolean
    /** The unit is told elsewhere. */
    bare?: boolean
  }>(),
  { kind: 'number', usual: null, low: -Infinity, high: Infinity },
)
const emit = defineEmits<{ change: [value: number | null] }>()
const session = useSession()
const as = computed(() => quantity(props.kind, session.units))
const shown = computed(() => (props.value == null ? '' : as.value.text(props.value)))
const typed = ref(shown.value)
watch(shown, (text) => (typed.value = text))
const usualText = computed(() => (typeof props.usual === 'number' ? as.value.text(props.usual) : (props.usual ?? '')))
const name = computed(() => (as.value.chosen ? `${props.label}, ${as.value.unit}` : props.label))

function take(): void {
  if (typed.value.trim() === shown.value) return
  const read = as.value.read(typed.value)
  // What is counted has an end; a measure that lies outside was not meant.
  const value = read != null && as.value.whole ? Math.min(Math.max(read, props.low), props.high) : read
  if (value === undefined || (value !== null && (value < props.low || value > props.high))) typed.value = shown.value
  else emit('change', value)
}
</script>

<template>
  <v-text-field
    v-bind="$attrs"
    v-model="typed"
    class="quantity"
    :inputmode="as.whole ? 'numeric' : 'decimal'"
    :placeholder="usualText"
    :disabled="disabled"
    :aria-label="name"
    @change="take"
  /><template v-if="!bare && as.unit">{{ ' ' }}{{ as.unit }}</template>
</template>

<style scoped>
.quantity {
  display: inline-grid;
  width: var(--quantity-width, 64px);
}
</style>
