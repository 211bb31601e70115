// RCDs to choose from, and their words.
import type { Guard } from '../../api/types'

type Rcd = NonNullable<Guard['rcd']>

export function rcd(type: Rcd['type'], residual_ma: Rcd['residual_ma'] = 30, time_delayed = false): Rcd {
  return { type, residual_ma, time_delayed, switches_neutral: true }
}

const USUAL = [rcd('AC'), rcd('A'), rcd('F'), rcd('B'), rcd('A', 100, true), rcd('B', 100, true)]
export const sameRcd = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other)

/** The usual ones before other circuits, with the one that stands there. */
export function usualRcds(own: Rcd | null): Rcd[] {
  return own && !USUAL.some((one) => sameRcd(one, own)) ? [...USUAL, own] : USUAL
}

export function rcdWords(one: Rcd): string {
  const [mark, told] = one.time_delayed ? [' S', ', time-delayed'] : ['', '']
  return `Type ${one.type}${mark}, ${one.residual_ma} mA${told}`
}
