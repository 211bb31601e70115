// Where the strip's nodes lie, and what each is: from the run's profile, or from the job while no route is known.
// Drawing only: what opens and how far it is come from the core.
import { computed, type MaybeRefOrGetter, toValue } from 'vue'

import type { GuardView, Job, RunProfile } from '../api/types'

export type NodeKind = 'cut_out' | 'meter' | 'board' | 'route' | 'charge_point'
/** A place of the run that one can go to: its id, and what it is. */
export interface Place {
  key: string
  kind: NodeKind
}
export interface StripNode extends Place {
  name: string
  x: number
  width: number
  /** What opens there. */
  opens: string
}

const NARROW_PX = 700
const HALF_PX = 22
const CHARACTER_PX = 7

export function useStrip(
  job: MaybeRefOrGetter<Job>,
  profile: MaybeRefOrGetter<RunProfile | undefined>,
  guards: MaybeRefOrGetter<readonly GuardView[]>,
  point: MaybeRefOrGetter<string>,
  width: MaybeRefOrGetter<number>,
) {
  const narrow = computed(() => toValue(width) < NARROW_PX)
  const boardX = computed(() => (narrow.value ? 136 : 216))
  // Beside the unit its car, and what unfolds the run.
  const endX = computed(() => Math.max(boardX.value + 120, toValue(width) - (narrow.value ? 78 : 200)))

  const along = (at_m: number) => {
    const length = toValue(profile)?.length_m || 1
    return boardX.value + (at_m / length) * (endX.value - boardX.value)
  }
  const opensAt = (fits: (one: GuardView) => boolean) =>
    toValue(guards)
      .filter(fits)
      .map((one) => one.short)
      .join(', ')

  const nodes = computed<StripNode[]>(() => {
    const at = (kind: NodeKind, key: string, name: string, x: number, opens = ''): StripNode => ({
      key,
      kind,
      name,
      x,
      width: 2 * HALF_PX,
      opens,
    })
    const document = toValue(job)
    const drawn = toValue(profile)
    const unit = document.charge_points.find((one) => one.id === toValue(point)) ?? document.charge_points[0]
    const boards = drawn
      ? drawn.nodes
          .filter((one) => one.kind === 'board')
          .map((one, place) => {
            const way = opensAt((guard) => guard.stands === 'way' && Math.abs(guard.at_m - one.at_m) < 1e-6)
            return at('board', one.id, place ? one.name : 'Board', along(one.at_m), way)
          })
      : document.boards.slice(0, 1).map((one) => at('board', one.id, 'Board', boardX.value))
    const ends = unit ? [at('charge_point', unit.id, narrow.value ? 'Charge pt' : 'Charge point', endX.value)] : []
    return [
      at(
        'cut_out',
        'cut_out',
        'Cut-out',
        narrow.value ? 26 : 36,
        opensAt((one) => one.stands === 'cut_out'),
      ),
      at('meter', 'meter', 'Meter', narrow.value ? 80 : 126),
      ...boards,
      ...ends,
    ]
  })

  /** The way between two boards, or to the unit: what it is laid in, as far as there is room to say it. */
  const routes = computed<StripNode[]>(() => {
    const drawn = toValue(profile)
    if (!drawn) return []
    return drawn.chain.map((link) => {
      const [x1, x2] = [along(link.from_m) + HALF_PX, along(link.to_m) - HALF_PX]
      const all = drawn.sections.filter((one) => one.circuit === link.circuit)
      const name = [
        all.map((one) => `${one.name} ${one.length_m} m`).join(' · '),
        `${all.length} sections, ${Math.round((link.to_m - link.from_m) * 10) / 10} m`,
      ].find((words) => words.length * CHARACTER_PX < x2 - x1)
      return {
        key: link.circuit,
        kind: 'route',
        name: name ?? '',

        x: x1,
        width: Math.max(0, x2 - x1),
        opens: '',
      }
    })
  })

  /** A name goes where it has room beside its neighbours. */
  const named = (place: number) => {
    const [before, one, after] = [nodes.value[place - 1], nodes.value[place]!, nodes.value[place + 1]]
    const half = (one.name.length * CHARACTER_PX) / 2
    return (!before || one.x - before.x > half + 24) && (!after || after.x - one.x > half + 24)
  }
  const opened = (place: number) => {
    const [one, after] = [nodes.value[place]!, nodes.value[place + 1]]
    return one.opens.length * CHARACTER_PX < (after?.x ?? endX.value) - one.x - 2 * HALF_PX ? one.opens : ''
  }
  return { nodes, routes, endX, narrow, named, opened }
}
