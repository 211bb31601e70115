// What each field is called on screen and where it stands, remembered as it is shown; and how to be led to one.
import { useLocalStorage } from '@vueuse/core'
import { nextTick, onMounted, ref, watch } from 'vue'

import { router } from '../router'

interface Place {
  name: string
  /** The page below the job's own address. */
  page: string
}

const places = useLocalStorage<Record<string, Place>>('fulmen-field-places', {})
/** The field that somebody asked to be led to, until it is there. */
const sought = ref('')

/** The same field of every circuit or section has one name. */
const kindOf = (path: string) => path.replace(/\.\d+(?=\.|$)/g, '.*')
const page = () => router.currentRoute.value.path.split('/').slice(3).join('/')

export const nameOnScreen = (path: string): string | undefined => places.value[kindOf(path)]?.name

/** A field that is shown: `root` is found and focused when it is sought. */
export function usePlace(path: () => string, name: () => string, root: () => HTMLElement | null): void {
  onMounted(() => {
    // What is typed into it is the job's, and is taken back by the job's own undo.
    root()?.setAttribute('data-job-field', '')
    const [kind, place] = [kindOf(path()), { name: name(), page: page() }]
    const known = places.value[kind]
    if (known?.name !== place.name || known.page !== place.page) places.value = { ...places.value, [kind]: place }
  })
  watch(
    sought,
    async () => {
      if (!sought.value || sought.value !== path()) return
      await nextTick()
      const field = root()?.querySelector<HTMLElement>('input, textarea, button, [tabindex]')
      if (!field) return
      sought.value = ''
      field.scrollIntoView({ block: 'center' })
      field.focus()
    },
    { immediate: true, flush: 'post' },
  )
}

/** What hides fields until it is opened opens when one of them is sought, and is asked again when `of` changes. */
export function useSought(open: (path: string) => void, of: () => unknown = () => undefined): void {
  watch([sought, of], ([path]) => path && open(path), { immediate: true })
}

export const isPlaceKnown = (path: string) => kindOf(path) in places.value

/** Lead to a field: to its page, and there to itself. */
export async function leadTo(jobId: number, path: string): Promise<void> {
  const place = places.value[kindOf(path)]
  // By force: where another page was asked for and is on its way, this one still is the present one, and overtakes it.
  if (place) await router.push({ path: `/jobs/${jobId}/${place.page}`, force: true })
  await seek(path)
}

/** Ask for a field, or for what else is found by name (a check, an inspection), on the page that is shown. */
export async function seek(path: string): Promise<void> {
  sought.value = ''
  await nextTick()
  sought.value = path
}

/** It is there: nobody else need look for it. */
export function foundSought(): void {
  sought.value = ''
}
