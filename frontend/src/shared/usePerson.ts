// Who works at this browser: asked once, offered again wherever a name is kept.
import { ref, watch } from 'vue'

const KEY = 'fulmen-person'

interface Person {
  name: string
  position: string
  company: string
  address: string
  registration: string
  instrument: string
}

const blank: Person = { name: '', position: '', company: '', address: '', registration: '', instrument: '' }
const kept: Person = { ...blank, ...(JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Person>) }
const person = {
  name: ref(kept.name),
  position: ref(kept.position),
  company: ref(kept.company),
  address: ref(kept.address),
  registration: ref(kept.registration),
  instrument: ref(kept.instrument),
}

watch(Object.values(person), () => {
  const now = Object.fromEntries(Object.entries(person).map(([field, value]) => [field, value.value]))
  localStorage.setItem(KEY, JSON.stringify(now))
})

export function usePerson() {
  return person
}
