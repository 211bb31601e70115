// Who works at this browser: asked once, offered again wherever a name is kept.
import { toRefs, useLocalStorage } from '@vueuse/core'

interface Person {
  name: string
  position: string
  company: string
  address: string
  registration: string
  instrument: string
}

const blank: Person = { name: '', position: '', company: '', address: '', registration: '', instrument: '' }
const person = toRefs(useLocalStorage<Person>('fulmen-person', blank, { mergeDefaults: true }))

export function usePerson() {
  return person
}
