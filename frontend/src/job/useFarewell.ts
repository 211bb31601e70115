// The moments that may be the last of a page: it goes, its lid closes, its phone is put away.
import { useEventListener } from '@vueuse/core'

export function useFarewell(going: () => void, hidden: () => void): void {
  useEventListener(window, 'pagehide', going)
  useEventListener(document, 'visibilitychange', () => {
    if (document.hidden) hidden()
  })
}
