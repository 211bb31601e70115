// Units of one make and model: what is entered for the one that has its own facts goes to those that are like it.
import type { Job } from '../api/types'
import type { FieldChange } from '../job/useUndo'
import { withValue } from './paths'

type Point = Job['charge_points'][number]

// The facts of a kind, as the core has them (a test holds both against each other).
export const KIND_FACTS = [
  'phases',
  'max_current_a',
  'tethered',
  'socket',
  'lead_length_m',
  'lead_csa_mm2',
  'device_min_a',
  'device_max_a',
  'open_pen_inside',
  'open_pen_device',
  'open_pen_opens_live',
  'rdc_dd_inside',
  'rcd_inside_seen',
  'rcd_inside',
  'upstream_rcd_asked',
  'upstream_rcd',
  'terminal_max_mm2',
  'takes_armour',
  'flex_tail',
  'flex_csa_mm2',
  'flex_length_m',
  'flex_rating_a',
  'current_clamp',
  'smart',
  'feeds_back',
  'data_ways',
  'ip_code',
] as const satisfies (keyof Point)[]

/** Some changes, with those that they bring to the units that are like the changed one. */
export function withLikes(job: Job | undefined, changes: FieldChange[]): FieldChange[] {
  if (!job) return changes
  const then = changes.reduce((document, one) => withValue(document, one.field, one.value), job)
  const brought = then.charge_points.flatMap((point, place) => {
    const other = then.charge_points.find((one) => one.id === point.like && !one.like)
    if (!other) return []
    return KIND_FACTS.filter((fact) => JSON.stringify(point[fact]) !== JSON.stringify(other[fact])).map((fact) => ({
      field: `charge_points.${place}.${fact}`,
      value: other[fact] as unknown,
    }))
  })
  return [...changes, ...brought]
}
