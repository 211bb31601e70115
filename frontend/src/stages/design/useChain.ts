// The circuits from the origin to the charge point that is looked at, with their place in the job's lists.
import { computed } from 'vue'

import type { Board, Circuit } from '../../api/types'
import { useJob } from '../../job/useJob'

export interface ChainLink {
  circuit: Circuit
  circuitIndex: number
  board: Board
  boardIndex: number
  final: boolean
}

export function useChain() {
  const store = useJob()
  const point = computed(() => store.job?.charge_points[store.pointIndex])

  const links = computed<ChainLink[]>(() => {
    const job = store.job
    const found: ChainLink[] = []
    let end = point.value?.id
    while (job && end && found.length < job.circuits.length) {
      const circuitIndex = job.circuits.findIndex((one) => one.feeds === end)
      const circuit = job.circuits[circuitIndex]
      const boardIndex = job.boards.findIndex((one) => one.id === circuit?.from_board)
      if (!circuit || boardIndex < 0) break
      found.unshift({ circuit, circuitIndex, board: job.boards[boardIndex]!, boardIndex, final: !found.length })
      end = circuit.from_board
    }
    return found
  })
  /** Where a link's circuit ends, in words. */
  const endOf = (index: number) => links.value[index + 1]?.board.name ?? point.value?.name ?? ''

  return { point, links, endOf }
}
