// What was done to the job's document, newest last: taken back, and done again, at one press; it outlives a reload.
import { useEventListener } from '@vueuse/core'
import { type Ref, ref } from 'vue'

import type { Job } from '../api/types'
import { isTypedIn } from '../shared/keys'
import { valueAt } from '../shared/paths'
import { type Deed, type Part, placesOf, saidOf, same, stands } from './deeds'

const MOST_KEPT = 60

export interface FieldChange {
  field: string
  value?: unknown
}

/** What the bar says; it goes away by itself. `deed` is what was done, taken back or done again. */
export interface Told {
  kind: 'done' | 'undone' | 'redone' | 'stays'
  words: string
  deed?: Deed
}

const keyOf = (id: number) => `fulmen-done-${id}`

/** `enact` makes changes; it is called for what is taken back and for what is done again. */
export function useUndo(id: Ref<number>, job: Ref<Job | undefined>, enact: (changes: FieldChange[]) => void) {
  const past = ref<Deed[]>([])
  const undone = ref<Deed[]>([])
  const told = ref<Told>()
  // Typing into one field is one deed, until it is left.
  let typing: { at: Element; deed: Deed } | undefined

  /** Remember changes before they are made. `words` where no field of the screen has a name for them. */
  function remember(changes: FieldChange[], words = ''): void {
    const parts = changes.map(({ field, value }) => ({ field, was: valueAt(job.value, field), is: value }))
    if (parts.every(({ was, is }) => same(was, is))) return
    const deed = { words: words || saidOf(parts, 'is'), back: words || saidOf(parts, 'was'), parts, places: '' }
    const at = document.activeElement
    const goesOn = typing && typing.at === at && typing.deed === past.value.at(-1) && sameFields(typing.deed, deed)
    if (goesOn) deed.parts = parts.map((one, index) => ({ ...one, was: typing!.deed.parts[index]!.was }))
    if (goesOn) deed.back = typing!.deed.back
    const before = goesOn ? past.value.slice(0, -1) : past.value
    deed.places = placesOf(job.value, deed.parts)
    past.value = [...before, deed].slice(-MOST_KEPT)
    undone.value = []
    typing = isTypedIn(at) ? { at, deed: past.value.at(-1)! } : undefined
    told.value = words ? { kind: 'done', words, deed } : undefined
  }

  /** An act that is only followed by another, such as a signature: it stays, and says so when it is met. */
  function follow(words: string, step = ''): void {
    past.value = [...past.value, { words, back: words, parts: [], places: '', step }].slice(-MOST_KEPT)
    undone.value = []
  }

  /** Take back what was done last; what somebody else changed since stays as it is. */
  function undo(): void {
    const deed = past.value.at(-1)
    if (!deed) return
    past.value = past.value.slice(0, -1)
    if (!deed.parts.length || !stands(job.value, deed, 'is')) return void (told.value = stays(deed))
    enact([...deed.parts].reverse().map(({ field, was }) => ({ field, value: was })))
    undone.value = [...undone.value, deed]
    told.value = { kind: 'undone', words: deed.back, deed }
  }

  /** Do again what was taken back last. */
  function redo(): void {
    const deed = undone.value.at(-1)
    if (!deed) return
    undone.value = undone.value.slice(0, -1)
    if (!stands(job.value, deed, 'was')) return void (told.value = stays(deed))
    enact(deed.parts.map(({ field, is }) => ({ field, value: is })))
    past.value = [...past.value, deed]
    told.value = { kind: 'redone', words: deed.words, deed }
  }

  /** What was done to this job in this window, also before a reload. */
  function recall(): void {
    const kept = sessionStorage.getItem(keyOf(id.value))
    const known = kept ? (JSON.parse(kept) as { past: Deed[]; undone: Deed[] }) : { past: [], undone: [] }
    ;[past.value, undone.value, told.value, typing] = [known.past, known.undone, undefined, undefined]
  }

  function keep(): void {
    if (!id.value) return
    try {
      sessionStorage.setItem(keyOf(id.value), JSON.stringify({ past: past.value, undone: undone.value }))
    } catch {
      // A window that is full keeps none: what was done can be taken back until it is left, and the job is unharmed.
      sessionStorage.removeItem(keyOf(id.value))
    }
  }
  useEventListener(window, 'pagehide', keep)

  return { past, undone, told, remember, follow, undo, redo, recall, keep }
}

const stays = (deed: Deed): Told => ({ kind: 'stays', words: deed.words, deed })

const sameFields = (one: { parts: Part[] }, other: { parts: Part[] }) =>
  one.parts.map((part) => part.field).join() === other.parts.map((part) => part.field).join()
