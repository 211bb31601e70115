// A reading as people write it: 0.09, .09, >999, LIM, N/A.
import type { Reading } from '../api/types'
import { typedNumber } from '../shared/format'

export interface Written {
  outcome: Reading['outcome']
  value: number | null
}

/** What was written, or null while it means nothing yet. */
export function asWritten(text: string): Written | null {
  const tidy = text.trim()
  const over = tidy.startsWith('>')
  const number = typedNumber(over ? tidy.slice(1) : tidy)
  if (typeof number === 'number') return { outcome: over ? 'over_range' : 'measured', value: number }
  if (/^lim\.?$/i.test(tidy)) return { outcome: 'could_not_test', value: null }
  if (/^n\/?a\.?$/i.test(tidy)) return { outcome: 'not_applicable', value: null }
  return null
}
