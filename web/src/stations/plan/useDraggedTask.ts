/** A task that is dragged along the day, or nudged by the arrow keys; a short pull is a press. */
import { ref, type ComputedRef } from 'vue'
import type { PlannedTask } from '@/api/types'

interface DragEvents {
  select: (id: string) => void
  drag: (id: string, minute: number) => void
  drop: (id: string, minute: number) => void
}

export function useDraggedTask(props: { mayMove: boolean }, perMinute: ComputedRef<number>, events: DragEvents) {
  const dragged = ref<{ task: PlannedTask; at: number; by: number } | null>(null)
  function grab(event: PointerEvent, task: PlannedTask): void {
    events.select(task.id)
    if (!props.mayMove || task.done) return
    ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
    dragged.value = { task, at: event.clientX, by: 0 }
  }
  function move(event: PointerEvent): void {
    const held = dragged.value
    if (!held) return
    const by = Math.round((event.clientX - held.at) / perMinute.value)
    if (by === held.by) return
    dragged.value = { ...held, by }
    if (by) events.drag(held.task.id, held.task.start_min + by)
  }
  function release(): void {
    const held = dragged.value
    dragged.value = null
    if (held && Math.abs(held.by) >= 2) events.drop(held.task.id, held.task.start_min + held.by)
  }
  function nudge(event: KeyboardEvent, task: PlannedTask): void {
    if (event.key === 'Enter' || event.key === ' ') events.select(task.id)
    else if (props.mayMove && !task.done && (event.key === 'ArrowLeft' || event.key === 'ArrowRight')) {
      events.drop(task.id, task.start_min + (event.key === 'ArrowLeft' ? -5 : 5))
    } else return
    event.preventDefault()
  }
  const shift = (task: PlannedTask): string =>
    dragged.value?.task.id === task.id && dragged.value.by ? `translate(${dragged.value.by * perMinute.value} 0)` : ''
  return { dragged, grab, move, release, nudge, shift }
}
