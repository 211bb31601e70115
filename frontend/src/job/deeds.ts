// A deed: fields that were changed together, what each was and is, in words; and whether it still stands.
import type { Job } from '../api/types'
import { nameOnScreen } from '../shared/fieldPlaces'
import { valueAt } from '../shared/paths'
import { valueWords } from '../shared/valueWords'

export interface Part {
  field: string
  was: unknown
  is: unknown
}

/** `words` say what was done, `back` what is so again once it is taken back; no parts: it is only followed. */
export interface Deed {
  words: string
  back: string
  parts: Part[]
  /** What stood at the places of lists that its fields lie in: another entry there is another thing. */
  places: string
  /** The test whose reading it is. */
  step?: string
}

/** What is not there and what is empty are one. */
export const same = (one: unknown, other: unknown) => JSON.stringify(one ?? null) === JSON.stringify(other ?? null)

// What a screen changes as a whole and shows no field for.
const WHOLE: Record<string, string> = { inspections: 'an inspection', 'supply.incoming_metal': 'metal that comes in' }

/** A field's name as the screen shows it, with its value. */
export function saidOf(parts: readonly Part[], side: 'was' | 'is'): string {
  const named = parts.find((one) => nameOnScreen(one.field))
  if (named) return `${nameOnScreen(named.field)}: ${valueWords(named[side])}`
  return parts.map((one) => WHOLE[one.field]).find(Boolean) ?? 'a change'
}

/** Of each list on the way to a field, the entry's own name, else how many there are; its own lists come with it. */
export function placesOf(job: Job | undefined, parts: readonly Part[]): string {
  const own = (path: string) => parts.some((one) => `${path}.`.startsWith(`${one.field}.`))
  const within = parts.flatMap(({ field }) => {
    const names = field.split('.')
    return names.flatMap((name, depth) => {
      const path = names.slice(0, depth).join('.')
      if (!/^\d+$/.test(name) || own(path)) return []
      const list = valueAt(job, path) as { id?: string }[] | undefined
      return [list?.[Number(name)]?.id ?? list?.length ?? 0]
    })
  })
  return [...new Set(within)].join()
}

/** Whether its fields hold what it left them at, and are still the same things' fields. */
export function stands(job: Job | undefined, deed: Deed, side: 'was' | 'is'): boolean {
  const last = new Map(deed.parts.map((one) => [one.field, one[side]]))
  if (side === 'was') for (const one of [...deed.parts].reverse()) last.set(one.field, one.was)
  return (
    placesOf(job, deed.parts) === deed.places && [...last].every(([field, value]) => same(valueAt(job, field), value))
  )
}
