// What a display showed, in a few words; and the key of a test.
import type { PracticeEntry } from '../api/types'

export const keyOf = (one: object): string => {
  const { step, subject } = one as { step?: string; subject?: string }
  return `${step ?? ''} ${subject ?? ''}`
}

const DECIMALS: Record<string, number> = { Ω: 2, MΩ: 1, V: 1, kA: 2, ms: 1, '%': 1 }

/** The figure as a display has it; over the range with the sign for it. */
export function figureOf(entry: PracticeEntry): string {
  if (entry.value === null) return ''
  if (entry.outcome === 'over_range') return `>${entry.value}`
  const decimals = entry.value >= 100 ? 0 : (DECIMALS[entry.unit] ?? 0)
  return entry.value.toFixed(decimals)
}

export function displayWords(entry: PracticeEntry | undefined): string {
  if (!entry) return ''
  if (entry.outcome === 'could_not_test') return 'nothing'
  return entry.value === null ? 'seen' : `${figureOf(entry)} ${entry.unit}`
}
