// The places of the run band that one can stand on: every section, node and guard, in the order of walking.
import { computed, type MaybeRefOrGetter, ref, toValue } from 'vue'

import type { GuardView, RunProfile } from '../api/types'
import type { useRunGeometry } from './useRunGeometry'
import type { NodeKind, Place } from './useStrip'
import { guardWords, nodeWords, sectionWords } from './figureWords'
import type { RailPlace } from './useGuardRail'

const NODE_PX = 30
const GUARD_PX = 56

export interface RunStep {
  key: string
  x: number
  width: number
  node: boolean
  guard?: boolean
  words: string
  /** Where one goes from there; `first` of a circuit's sections, and of every node. */
  place?: Place
  first?: boolean
}

// The cut-out's fuse follows the cut-out; what is inside the unit comes before the unit itself, which is the end.
function orderOf(guard: GuardView): number {
  if (guard.stands === 'cut_out') return -1
  return guard.stands === 'unit' ? guard.at_m - 1e-6 : guard.at_m
}

export function useRunSteps(
  profile: MaybeRefOrGetter<RunProfile>,
  place: ReturnType<typeof useRunGeometry>,
  rail: MaybeRefOrGetter<RailPlace[]>,
) {
  const chosen = ref<number>()

  const steps = computed<RunStep[]>(() => {
    const now = toValue(profile)
    const sections = place.sections.value.map((one) => ({
      key: `s${one.index}`,
      x: one.x1,
      width: one.x2 - one.x1,
      node: false,
      words: sectionWords(now.sections[one.index]!),
      place: { key: now.sections[one.index]!.circuit, kind: 'route' as const },
      first: now.sections[one.index]!.place === 0,
      at: now.sections[one.index]!.from_m + 1e-6,
    }))
    const nodes = now.nodes.map((node, index) => {
      const x =
        node.kind === 'cut_out'
          ? place.cutOutX.value
          : node.kind === 'charge_point'
            ? place.endX.value
            : node.at_m
              ? place.along(node.at_m)
              : place.boardX.value
      return {
        key: `n${index}`,
        x: x - NODE_PX / 2,
        width: NODE_PX,
        node: true,
        words: nodeWords(node),
        place: node.id ? { key: node.id, kind: node.kind as NodeKind } : undefined,
        first: true,
        at: node.kind === 'cut_out' ? -1 : node.at_m,
      }
    })
    const guards = toValue(rail).map(({ guard, x }, index) => ({
      key: `g${guard.field}`,
      x: x - GUARD_PX / 2,
      width: GUARD_PX,
      node: true,
      guard: true,
      words: guardWords(guard),
      at: orderOf(guard) + index * 1e-8,
    }))
    return [...sections, ...nodes, ...guards].sort((one, other) => one.at - other.at)
  })
  const told = computed(() => (chosen.value === undefined ? '' : (steps.value[chosen.value]?.words ?? '')))

  function onKey(event: KeyboardEvent): void {
    const last = steps.value.length - 1
    const now = chosen.value
    const next = {
      ArrowRight: now === undefined ? 0 : Math.min(last, now + 1),
      ArrowLeft: now === undefined ? last : Math.max(0, now - 1),
      Home: 0,
      End: last,
    }[event.key]
    if (event.key === 'Escape') chosen.value = undefined
    if (next === undefined) return
    event.preventDefault()
    chosen.value = next
  }

  return { steps, chosen, told, onKey }
}
