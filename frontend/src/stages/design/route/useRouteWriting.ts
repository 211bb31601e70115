// Writing a circuit's route by the core: shorthand, split, join, other surroundings, another cable.
import { computed, type MaybeRefOrGetter, ref, toValue } from 'vue'

import { answer, api, asProblem } from '../../../api/client'
import type { Cable, Section } from '../../../api/types'
import { type FieldChange, useJob } from '../../../job/useJob'
import { withSections } from './withSections'

export type RouteAct =
  | { act: 'write'; text: string }
  | { act: 'add' }
  | { act: 'split'; index: number; at_m: number }
  | { act: 'join'; index: number }
  | { act: 'surround'; index: number; surroundings: Section['surroundings'] }
  | { act: 'cable'; index: number; cable: Cable }

const WORDS: Record<RouteAct['act'], string> = {
  write: 'the route, written',
  add: 'a section added',
  split: 'a section split',
  join: 'two sections joined',
  surround: 'other surroundings',
  cable: 'another cable for a section',
}

export function useRouteWriting(circuitIndex: MaybeRefOrGetter<number>) {
  const store = useJob()
  // What could not be done, and at which section it was asked for.
  const failed = ref<{ text: string; index?: number }>({ text: '' })
  const path = computed(() => `circuits.${toValue(circuitIndex)}.route`)
  const circuit = computed(() => store.job!.circuits[toValue(circuitIndex)]!)
  const route = computed(() => circuit.value.route)

  // One act at a time, in the order they were pressed: each starts from the route that the one before it left.
  let before: Promise<unknown> = Promise.resolve()
  function write(act: RouteAct): Promise<boolean> {
    const done = before.then(() => writeOnce(act))
    before = done
    return done
  }

  /** Ask the core for the route after an act; true where it could be done. An edit meanwhile makes it ask again. */
  async function writeOnce(act: RouteAct): Promise<boolean> {
    failed.value = { text: '' }
    try {
      let asked, found
      do {
        asked = route.value
        const body = { job: store.judged!, circuit: circuit.value.id, ...act }
        found = await answer<{ route: Section[] }>(api.POST('/api/v1/route', { body }))
      } while (asked !== route.value)
      store.changeAll(following(act, found.route), WORDS[act.act])
      return true
    } catch (error) {
      failed.value = { text: asProblem(error).detail, index: 'index' in act ? act.index : undefined }
      return false
    }
  }
  /** A section that was split, or joined with the next: what is kept by the others' places follows them. */
  function following(act: RouteAct, written: Section[]): FieldChange[] {
    const from = places()
    if (act.act === 'split') from.splice(act.index, 0, act.index)
    else if (act.act === 'join') from.splice(act.index + 1, 1)
    else return [{ field: path.value, value: written }]
    return withSections(store.job!, toValue(circuitIndex), from, written)
  }
  const places = () => route.value.map((_, place) => place)
  const inOrder = (from: number[]) => withSections(store.job!, toValue(circuitIndex), from)
  function remove(gone: number): void {
    store.apply(`section ${gone + 1} taken out`, inOrder(places().filter((place) => place !== gone)))
  }
  /** Move a section to another place in the order of walking. */
  function move(from: number, to: number): void {
    if (to < 0 || to >= route.value.length || to === from) return
    const moved = places()
    moved.splice(to, 0, ...moved.splice(from, 1))
    store.changeAll(inOrder(moved), `section ${from + 1} moved`)
  }

  return { path, circuit, route, failed, write, remove, move }
}
