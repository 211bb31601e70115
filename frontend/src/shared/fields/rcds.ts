// RCDs to choose from, and their words.
import type { Guard } from '../../api/types'

export type Rcd = NonNullable<Guard['rcd']>

/** A mark as it is read or ordered; whether the neutral opens is told by its poles, and not known until then. */
export function rcd(
  type: Rcd['type'],
  residual_ma: Rcd['residual_ma'] = 30,
  time_delayed = false,
  switches_neutral: Rcd['switches_neutral'] = null,
): Rcd {
  return { type, residual_ma, time_delayed, switches_neutral }
}

const USUAL = [rcd('AC'), rcd('A'), rcd('F'), rcd('B'), rcd('A', 100, true), rcd('B', 100, true)]
const marked = (one: unknown) => {
  const { type, residual_ma, time_delayed } = one as Rcd
  return JSON.stringify([type, residual_ma, time_delayed])
}

/** Whether two answers are the same mark, whatever is known of the neutral. */
export function sameRcd(one: unknown, other: unknown): boolean {
  const marks = [one, other].every((each) => typeof each === 'object' && each !== null)
  return marks ? marked(one) === marked(other) : one === other
}

/** The usual ones before other circuits, with the one that stands there; what is known of the neutral stays. */
export function usualRcds(own: Rcd | null, neutral: Rcd['switches_neutral'] = null): Rcd[] {
  const switches_neutral = own?.switches_neutral ?? neutral
  const usual = USUAL.map((one) => ({ ...one, switches_neutral }))
  return own && !usual.some((one) => sameRcd(one, own)) ? [...usual, own] : usual
}

export function rcdWords(one: Rcd): string {
  const [mark, told] = one.time_delayed ? [' S', ', time-delayed'] : ['', '']
  const [type, current] = [one.type ?? 'not read', one.residual_ma === null ? 'mA not read' : `${one.residual_ma} mA`]
  return `Type ${type}${mark}, ${current}${told}`
}
