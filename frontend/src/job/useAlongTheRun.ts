// The strip's places in the present stage: where a tap on a node leads, and where you are.
import { useRoute } from 'vue-router'

import { router } from '../router'
import { seek } from '../shared/fieldPlaces'
import type { NodeKind, Place } from '../run/useStrip'
import { useJob } from './useJob'

// Which stop of the walk a place is looked at from.
const STOP: Record<NodeKind, string> = {
  cut_out: 'cut_out',
  meter: 'meter',
  board: 'board',
  route: 'route',
  charge_point: 'charge_point',
}
// Tests speak of the origin, where the cut-out is.
const ORIGIN = 'origin'

/** The node where a test is done. */
export const nodeOfPlace = (place: string) => (place === ORIGIN ? 'cut_out' : place)

export function useAlongTheRun() {
  const store = useJob()
  const route = useRoute()

  function toTest(node: Place): void {
    const here = (store.steps ?? []).filter((one) => one.stage === route.name && node.key === nodeOfPlace(one.place))
    const step = here.find((one) => one.required && !one.met && one.reading === null) ?? here[0]
    if (step) void router.push({ query: { step: `${step.step}/${step.subject}` } })
  }

  async function toDesign(node: Place): Promise<void> {
    const isRoute = node.kind === 'route' || node.kind === 'charge_point'
    await router.push({ name: 'design', params: { id: store.id, part: isRoute ? '' : 'boards' } })
    const circuit = store.job!.circuits.findIndex((one) => one.id === node.key)
    if (node.kind === 'route' && circuit >= 0) await seek(`circuits.${circuit}.route.0.length_m`)
  }

  function go(node: Place): void {
    if (node.kind === 'charge_point') store.point = node.key
    if (route.name === 'dead' || route.name === 'live') return toTest(node)
    if (route.name === 'design') return void toDesign(node)
    void router.push({ name: 'survey', params: { id: store.id, part: STOP[node.kind] } }).then(() => scrollTo(0, 0))
  }
  return { go }
}
