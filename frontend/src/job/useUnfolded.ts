// Whether the run is drawn with its tracks: by itself where it is edited and there is room, else as it was asked for.
import { useWindowSize } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'

// Less than this leaves no room for the work below the drawing.
const ROOM = { width: 1000, height: 700 }
const WIDE_PX = 760
// The parts of the design that the drawing is of.
const EDITED = ['', 'boards']

export function useUnfolded(hasRun: () => boolean) {
  const route = useRoute()
  const { width, height } = useWindowSize()
  const asked = ref<boolean>()
  // What was asked for holds on its stage.
  watch(
    () => route.name,
    () => (asked.value = undefined),
  )
  const byItself = computed(
    () =>
      route.name === 'design' &&
      EDITED.includes(String(route.params.part ?? '')) &&
      width.value >= ROOM.width &&
      height.value >= ROOM.height,
  )
  const unfolded = computed(() => hasRun() && (asked.value ?? byItself.value))
  /** Wide enough for the drawing to take the strip's place; on a phone its tracks stand below it. */
  const wide = computed(() => width.value >= WIDE_PX)
  const toggle = () => (asked.value = !unfolded.value)
  return { unfolded, wide, toggle }
}
