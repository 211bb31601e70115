// RCDs to choose from, and their words.
import type { Job } from '../api/types'

type Rcd = NonNullable<Job['boards'][number]['front_rcd']>

export function rcd(type: Rcd['type'], residual_ma: Rcd['residual_ma'] = 30, time_delayed = false): Rcd {
  return { type, residual_ma, time_delayed, switches_neutral: true }
}

export function rcdWords(one: Rcd): string {
  return `Type ${one.type}${one.time_delayed ? ' S' : ''}, ${one.residual_ma} mA${one.time_delayed ? ', time-delayed' : ''}`
}
