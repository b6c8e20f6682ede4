/** Keys that work everywhere. A key typed into a field belongs to the field. */
import { useEventListener } from '@vueuse/core'
import { useRouter } from 'vue-router'
import { stationAddress, stations } from '@/components/frame/stations'
import { useBench } from '@/stores/bench'
import { useCommands } from './useCommands'
import { usePanels } from './usePanels'
import { useSettling } from './useSettling'

const CHORD_MS = 1200

export function useShortcuts(): void {
  const router = useRouter()
  const bench = useBench()
  const commands = useCommands()
  const panels = usePanels()
  const settling = useSettling()
  let goUntil = 0

  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    const typing = event.target instanceof HTMLElement && event.target.matches('input, textarea, select, [contenteditable]')
    const control = event.ctrlKey || event.metaKey
    if (control && event.key.toLowerCase() === 'k') {
      event.preventDefault()
      commands.open.value = !commands.open.value
    } else if (control && event.key.toLowerCase() === 'z' && !typing) {
      event.preventDefault()
      if (event.shiftKey) bench.goForward()
      else bench.goBack()
    } else if (!typing && !control && !event.altKey) {
      plain(event)
    }
  })

  function plain(event: KeyboardEvent): void {
    if (goUntil > event.timeStamp) {
      goUntil = 0
      const station = stations.find((s) => s.key === event.key)
      if (station) void router.push(stationAddress(station, bench.formulaId))
      return
    }
    if (event.key === 'g') goUntil = event.timeStamp + CHORD_MS
    else if (event.key === '?') commands.keys.value = !commands.keys.value
    else if (event.key === '/') focusFinder(event)
    else if (event.key === 's') settling.open()
    else if (event.key === 'w') settling.swap()
    else if (event.key === 'v') panels.toggle('versions')
    else if (event.key === '[' || event.key === ']') panels.leaf(event.key === '[' ? -1 : 1, bench.versions[0]?.number ?? 0)
  }

  function focusFinder(event: KeyboardEvent): void {
    const finder = document.querySelector<HTMLInputElement>('input[data-finder], [data-finder] input')
    if (!finder) return
    event.preventDefault()
    finder.focus()
  }
}
