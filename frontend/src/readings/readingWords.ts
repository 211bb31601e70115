// A reading in a few words.
import type { Reading, Step } from '../api/types'

const OUTCOMES: Partial<Record<Reading['outcome'], string>> = {
  wrong: 'wrong',
  could_not_test: 'LIM',
  not_applicable: 'N/A',
}

export function readingWords(step: Step): string {
  const reading: Reading | null = step.reading
  if (!reading) return step.met ? 'by another' : step.required ? '' : 'if you can'
  if (reading.outcome === 'right') return step.kind === 'hold' ? 'signed' : 'right'
  if (reading.outcome === 'wrong' && reading.value !== null) return `wrong, ${figureWords(reading, step)}`
  return OUTCOMES[reading.outcome] ?? figureWords(reading, step)
}

export function figureWords(reading: Reading, step: Step): string {
  const value = reading.value ?? 0
  return reading.outcome === 'over_range' ? `>${value} ${step.unit}` : `${value.toFixed(step.decimals)} ${step.unit}`
}

export function bandWords(step: Step): string {
  if (step.expected_low === null) return ''
  if (step.expected_high === null) return `${step.expected_low.toFixed(0)} ${step.unit} or more`
  return `${step.expected_low.toFixed(step.decimals)} to ${step.expected_high.toFixed(step.decimals)} ${step.unit}`
}

export function limitWords(step: Step): string {
  const low =
    step.limit_low === null ? '' : `at least ${step.limit_low.toFixed(step.limit_low < 10 ? step.decimals : 0)}`
  const high = step.limit === null ? '' : `at most ${step.limit.toFixed(step.limit < 10 ? step.decimals : 0)}`
  return [low, high].filter(Boolean).join(', ') + (low || high ? ` ${step.unit}` : '')
}
