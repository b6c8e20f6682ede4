/** Bring the formula of an address onto the bench, and keep what is typed when the page is left. */
import { useEventListener } from '@vueuse/core'
import { onBeforeUnmount, ref, watch, type Ref } from 'vue'
import { Refusal } from '@/api/client'
import { useBench } from '@/stores/bench'
import { t } from '@/messages'

export function useOpenFormula(id: () => number, onOpen: () => void = () => undefined): { missing: Ref<string> } {
  const bench = useBench()
  const missing = ref('')

  watch(
    id,
    async (wanted) => {
      missing.value = ''
      onOpen()
      try {
        // Another station of the same formula shows the same bench, with its undo.
        if (bench.formulaId !== wanted || !bench.document) {
          await bench.flush()
          await bench.open(wanted)
        }
      } catch (error) {
        missing.value = error instanceof Refusal ? error.sentence : t('frame-use-open-formula-the-formula-could-not-be-opened')
      }
    },
    { immediate: true },
  )

  useEventListener(window, 'pagehide', () => {
    bench.leave()
  })
  onBeforeUnmount(() => void bench.flush())
  return { missing }
}
