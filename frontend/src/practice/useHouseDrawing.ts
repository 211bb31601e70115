// Where everything of a house stands in its drawing: along the way from the street to the car, across by conductor.
import { computed } from 'vue'

import type { Scene, Terminal } from '../api/types'

export interface Spot {
  x: number
  y: number
}
export interface Wire extends Record<'from' | 'to', Spot> {
  id: string
  conductor: string
}

const ACROSS = { wide: { start: 62, step: 50 }, tall: { start: 44, step: 86 } }
const ALONG = { wide: { start: 74, step: 172, side: 34 }, tall: { start: 58, step: 146, side: 30 } }
// Terminals on the side of a place where the street is (-1), where the car is (1); spikes stand out in the garden.
const SIDES: Record<string, number> = {
  supply: 1,
  near: 1,
  far: -1,
  plug: -1,
  main: -1,
  met: -1,
  service: -1,
  unit: 1,
  lead: 1,
}
const GARDEN: Record<string, number> = { rod: 1, 'spike.P': 2.5, 'spike.C': 4 }

export function useHouseDrawing(scene: () => Scene, circuit: () => string, tall: () => boolean) {
  /** The cable under test: a circuit's, or the part of one; its near end is where its terminals are. */
  const cable = computed(() => {
    const key = scene().terminals[circuit()] ? circuit() : scene().cables.at(-1)!.circuit
    return { circuit: key, start: scene().terminals[key]!.find((one) => one.point === 'near.L')!.place }
  })
  const terminals = computed(() => scene().terminals[cable.value.circuit] ?? [])
  const rows = computed(() => {
    const lines = ['L', 'L2', 'L3'].filter((row) => terminals.value.some((one) => one.point.endsWith(`.${row}`)))
    return [...lines, 'N', 'E', 'G']
  })
  const way = computed(() => (tall() ? 'tall' : 'wide'))
  const index = (place: string) => scene().places.findIndex((one) => one.key === place)

  function spot(place: string, side: number, row: string): Spot {
    const along = ALONG[way.value]
    const across = ACROSS[way.value]
    const a = along.start + index(place) * along.step + side * along.side
    const b = across.start + rows.value.indexOf(row) * across.step
    return tall() ? { x: b, y: a } : { x: a, y: b }
  }
  function spotOf(terminal: Terminal): Spot {
    const [where, conductor] = terminal.point.split('.') as [string, string?]
    if (terminal.point in GARDEN) return spot(terminal.place, GARDEN[terminal.point]!, 'G')
    if (where === 'service' || where === 'lead') return spot(terminal.place, SIDES[where]!, 'G')
    if (conductor === 'CP' || conductor === 'PP')
      return spot(terminal.place, 1, conductor === 'CP' ? rows.value[0]! : 'N')
    return spot(terminal.place, SIDES[where]!, conductor ?? 'E')
  }

  const lines = computed(() => rows.value.filter((row) => row.startsWith('L')))
  const places = computed(() =>
    scene().places.map((one) => {
      const from = spot(one.key, -1, rows.value[0]!)
      const to = spot(one.key, 1, 'E')
      const box = { x: from.x - 22, y: from.y - 22, width: to.x - from.x + 44, height: to.y - from.y + 44 }
      const name = tall()
        ? { name_x: box.x + box.width + 8, name_y: box.y + box.height / 2 + 5 }
        : { name_x: box.x + box.width / 2, name_y: box.y - 12 }
      return { ...one, ...box, ...name }
    }),
  )
  const first = computed(() => scene().places[1]!.key)
  const unit = computed(() => scene().cables.at(-1)!.end)

  function row(id: string, from: [string, number], to: [string, number], conductor: string): Wire {
    const on = conductor === 'L' ? rows.value[0]! : conductor
    return { id: `${id}.${conductor}`, conductor, from: spot(from[0], from[1], on), to: spot(to[0], to[1], on) }
  }
  const wires = computed<Wire[]>(() => {
    const all = [...lines.value, 'N']
    const street = all.map((one) => row('supply', ['supply', -1], ['supply', 1], one))
    const own = [earthIn()]
    const tails = all.map((one) => row('tails', ['supply', 1], [first.value, -1], one))
    const earthing = { ...row('earthing', ['supply', 1], [first.value, -1], 'E'), id: 'earthing' }
    const cables = scene().cables.flatMap((one) =>
      [...all, 'E'].map((conductor) => row(one.circuit, [one.start, 1], [one.end, -1], conductor)),
    )
    const plug = [...all, 'E'].map((one) => row('plug', [unit.value, 1], ['car', -1], one))
    const bond = { id: 'bond', conductor: 'E', from: spot(first.value, -1, 'E'), to: spot(first.value, -1, 'G') }
    const ground = { id: 'ground', conductor: 'E', from: spot(unit.value, 1, 'E'), to: spot(unit.value, 1, 'G') }
    return [
      ...[...street, ...own, ...tails, earthing, ...cables, ...plug],
      ...[...(scene().bonded ? [bond] : []), ...(scene().island ? [ground] : [])],
    ]
  })
  /** The earth from the street: a sheath of its own, the neutral's other half, or an electrode in the ground. */
  function earthIn(): Wire {
    const to = spot('supply', 1, 'E')
    const from = { tn_s: spot('supply', -1, 'E'), tn_c_s: spot('supply', 1, 'N'), tt: spot('supply', 1, 'G') }
    return { id: 'supply.E', conductor: 'E', from: from[scene().earthing as 'tt'], to }
  }

  /** What joins the two sides of a place: bars of a board, the unit's contactor; an island's earths stay apart. */
  const inside = computed(() =>
    scene().places.flatMap((one) => {
      if (one.kind === 'supply' || one.kind === 'car') return []
      // While a part of a cable is tested the cores are out of the device in the box.
      if (one.kind === 'box' && scene().cables.some((part) => part.circuit === circuit())) return []
      const earths = one.kind === 'unit' && scene().island ? [] : ['E']
      return [...lines.value, 'N', ...earths].map((conductor) => ({
        place: one.key,
        ...row(`in-${one.key}`, [one.key, -1], [one.key, 1], conductor),
      }))
    }),
  )
  /** Two conductors linked at the board where the cable begins. */
  function link(to: 'E' | 'N') {
    const from = spot(cable.value.start, 1, rows.value[0]!)
    const end = spot(cable.value.start, 1, to)
    const out = 26
    return tall()
      ? `M${from.x} ${from.y} C${from.x} ${from.y - out} ${end.x} ${end.y - out} ${end.x} ${end.y}`
      : `M${from.x} ${from.y} C${from.x - out} ${from.y} ${end.x - out} ${end.y} ${end.x} ${end.y}`
  }
  /** What lies beside the earth, by the garden. */
  const beside = computed(() => {
    const from = spot(unit.value, -1, 'E')
    const over = spot(unit.value, -1, 'G')
    const back = spot(first.value, -1, 'G')
    const to = spot(first.value, -1, 'E')
    return `M${from.x} ${from.y} L${over.x} ${over.y} L${back.x} ${back.y} L${to.x} ${to.y}`
  })
  const size = computed(() => {
    const end = spot('car', 1, 'G')
    return tall() ? { width: end.x + 96, height: end.y + 44 } : { width: end.x + 46, height: end.y + 104 }
  })
  return { terminals, rows, places, wires, inside, link, beside, size, spotOf, cable }
}
