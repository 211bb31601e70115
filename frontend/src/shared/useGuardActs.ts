// Putting guards, groups, boxes and circuits into the tree.
import type { Board, Circuit, Guard } from '../api/types'
import { useJob } from '../job/useJob'
import { valueAt } from './paths'

export type GuardKind = Guard['kind']

/** What a new guard starts with: nothing that has to be read off it. */
export function blankGuard(id: string, kind: GuardKind): Guard {
  return {
    id,
    kind,
    rating_a: null,
    poles: null,
    voltage_v: null,
    standard: '',
    location: '',
    rcd: null,
    open_pen: null,
    carries_by_maker: 'not_seen',
    both_ways: 'not_seen',
    fitted_with_this_job: false,
  }
}

export function useGuardActs() {
  const store = useJob()

  function ids(): Set<string> {
    const job = store.job!
    const held = (guards: Guard[]) => guards.map((one) => one.id)
    return new Set([
      'origin',
      ...job.charge_points.map((one) => one.id),
      ...job.supply.tails.map((one) => one.id),
      ...job.maker_cables.map((one) => one.id),
      ...job.boards.flatMap((one) => [one.id, ...held(one.incomer)]),
      ...job.boards.flatMap((one) => one.groups.flatMap((group) => [group.id, ...held(group.guards)])),
      ...job.circuits.flatMap((one) => [one.id, ...one.boxes.flatMap((box) => [box.id, ...held(box.guards)])]),
    ])
  }
  function freeId(wanted: string): string {
    const taken = ids()
    let name = wanted
    for (let number = 2; taken.has(name); number++) name = `${wanted}-${number}`
    return name
  }
  const listAt = (path: string) => (valueAt(store.job, path) as Guard[] | undefined) ?? []

  function add(path: string, kind: GuardKind, first = false): void {
    const guard = { ...blankGuard(freeId(kind.replaceAll('_', '-')), kind), fitted_with_this_job: !first }
    store.change(path, first ? [guard, ...listAt(path)] : [...listAt(path), guard], 'a device added')
  }
  function addGroup(boardIndex: number): void {
    const path = `boards.${boardIndex}.groups`
    const groups = valueAt(store.job, path) as Board['groups']
    const group = { id: freeId('group'), name: 'Group', guards: [], feeds_others: 'not_seen' as const, others: '' }
    store.change(path, [...groups, group], 'a group added')
  }
  /** A circuit for loads of its own, with the usual device for sockets; what it feeds is still to be said. */
  function addCircuit(board: string): void {
    const like = store.job!.circuits[0]!
    const circuit: Circuit = {
      ...like,
      id: freeId('circuit'),
      name: 'New circuit',
      way: '',
      from_board: board,
      group: '',
      feeds: '',
      loads: [],
      phases: 1,
      load_limit_a: null,
      fitted_with_this_job: true,
      looked_at: 'not_seen',
      device: {
        kind: 'breaker',
        curve: 'B',
        rating_a: 20,
        breaking_capacity_ka: 6,
        both_ways: 'not_seen',
        energy_class: null,
        poles: null,
        voltage_v: null,
        rcd: { type: 'A', residual_ma: 30, time_delayed: false, switches_neutral: true },
        maker_zs_ohm: null,
        maker_opens_s: null,
        maker_energy_a2s: null,
        maker_source: '',
      },
      ring: null,
      cable: { record: 'twin-and-earth', csa_mm2: 4, protective: 'core', separate_csa_mm2: null },
      slack_m: 0,
      route: [],
      boxes: [],
    }
    store.change('circuits', [...store.job!.circuits, circuit], 'a circuit added')
  }
  function addBox(circuitIndex: number): void {
    const path = `circuits.${circuitIndex}.boxes`
    const boxes = valueAt(store.job, path) as Circuit['boxes']
    const guard = { ...blankGuard(freeId('rccb'), 'rccb'), fitted_with_this_job: true }
    const box = {
      id: freeId('box'),
      name: 'Box',
      location: '',
      after_section: null,
      guards: [guard],
      fitted_with_this_job: true,
    }
    store.change(path, [...boxes, box], 'a box added')
  }
  return { add, addGroup, addCircuit, addBox, freeId }
}
