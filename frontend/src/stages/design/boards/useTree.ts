// The tree from the origin: boards, the groups of their ways, circuits, boxes on the way, and what each circuit feeds.
import { computed, inject, provide, ref, type InjectionKey, type Ref } from 'vue'

import type { Board, Circuit } from '../../../api/types'
import { useJob } from '../../../job/useJob'
import { useSought } from '../../../shared/fieldPlaces'

export interface TreeCircuit {
  circuit: Circuit
  index: number
  board?: TreeBoard
  pointIndex: number
}
export interface TreeGroup {
  group: Board['groups'][number]
  index: number
  circuits: TreeCircuit[]
}
export interface TreeBoard {
  board: Board
  index: number
  origin: boolean
  groups: TreeGroup[]
  circuits: TreeCircuit[]
}

export function useTree() {
  const store = useJob()

  const roots = computed<TreeBoard[]>(() => {
    const job = store.job!
    const fed = new Set(job.circuits.map((one) => one.feeds))
    // A tree that the server took has no loops; one that is being edited must not hang the page.
    function boardAt(index: number, origin: boolean, depth: number): TreeBoard {
      const board = job.boards[index]!
      const circuits = job.circuits
        .map((circuit, place) => ({ circuit, place }))
        .filter(({ circuit }) => circuit.from_board === board.id)
        .map(({ circuit, place }) => circuitAt(circuit, place, depth + 1))
      return {
        board,
        index,
        origin,
        groups: board.groups.map((group, place) => ({
          group,
          index: place,
          circuits: circuits.filter((one) => one.circuit.group === group.id),
        })),
        circuits: circuits.filter((one) => !board.groups.some((group) => group.id === one.circuit.group)),
      }
    }
    function circuitAt(circuit: Circuit, index: number, depth: number): TreeCircuit {
      const end = job.boards.findIndex((one) => one.id === circuit.feeds)
      return {
        circuit,
        index,
        board: end >= 0 && depth < 20 ? boardAt(end, false, depth) : undefined,
        pointIndex: job.charge_points.findIndex((one) => one.id === circuit.feeds),
      }
    }
    return job.boards.flatMap((board, index) => (fed.has(board.id) ? [] : [boardAt(index, true, 0)]))
  })
  return { roots }
}

const OPEN: InjectionKey<Ref<string>> = Symbol('the part of the tree that is open for editing')

/** One part of the tree is open at a time, by its path in the job. */
export function provideOpenPart(): Ref<string> {
  const open = ref('')
  provide(OPEN, open)
  // A field stands in the innermost numbered part of its path.
  useSought((path) => (open.value = /^.*\.\d+(?=\.|$)/.exec(path)?.[0] ?? open.value))
  return open
}
export function useOpenPart() {
  const open = inject(OPEN, ref(''))
  const toggle = (path: string) => (open.value = open.value === path ? '' : path)
  return { open, toggle }
}
