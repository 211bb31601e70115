// Dragging an item of a list by its handle, by mouse or thumb; where it would land is told while it moves.
import { ref } from 'vue'

export function useDragOrder(items: () => HTMLElement[], drop: (from: number, to: number) => void) {
  const from = ref<number>()
  const over = ref<number>()

  function start(event: PointerEvent, index: number): void {
    ;(event.target as HTMLElement).setPointerCapture(event.pointerId)
    from.value = index
    over.value = index
  }
  function move(event: PointerEvent): void {
    if (from.value === undefined) return
    const found = items().findIndex((item) => {
      const box = item.getBoundingClientRect()
      return event.clientY >= box.top && event.clientY <= box.bottom
    })
    if (found >= 0) over.value = found
  }
  function end(): void {
    if (from.value !== undefined && over.value !== undefined && from.value !== over.value) drop(from.value, over.value)
    from.value = undefined
    over.value = undefined
  }

  return { from, over, start, move, end }
}
