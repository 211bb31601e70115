// Numbers and times as the trade writes them. No arithmetic of the trade happens here.
import type { Finding, Verdict } from '../api/types'

export function fixed(value: number, decimals: number): string {
  return value.toFixed(decimals)
}

/** A quantity with its unit; a unit that is a word has its plural: 24 pieces, 28 m. */
export function counted(quantity: number, unit: string): string {
  return `${quantity} ${quantity !== 1 && /^[a-z]{3,}$/.test(unit) ? `${unit}s` : unit}`
}

/** A comma where thousands are parted could as well part decimals: 1,000 is asked about, 0,125 and 1,25 are not. */
export const mayBeAThousand = (text: string) => /^>?\s*[1-9]\d{0,2},\d{3}$/.test(text)

/** What a person typed as a number: a comma is a point, nothing is null, anything else stays as typed. */
export function typedNumber(text: string): number | string | null {
  if (mayBeAThousand(text.trim())) return text.trim()
  const tidy = text.trim().replace(',', '.')
  if (tidy === '') return null
  return /^[-+]?(\d+\.?\d*|\.\d+)$/.test(tidy) ? Number(tidy) : text.trim()
}

const VERDICT_WORDS = {
  meets: 'Meets',
  falls_short: 'Falls short',
  needs: 'Needs a fact',
  your_call: 'Your call',
} as const

export function verdictWords(finding: Pick<Finding, 'verdict'> & Partial<Pick<Finding, 'waits_for'>>): string {
  return finding.waits_for === 'reading' ? 'Needs a reading' : VERDICT_WORDS[finding.verdict]
}

/** A verdict that is settled, in a count: what was your call is decided by then. */
export const settledWords = (verdict: Verdict) => (verdict === 'meets' ? 'meets' : 'decided')

/** What taking a remedy leaves to be done. */
export const afterRemedy = (verdict: Verdict) => (verdict === 'your_call' ? ' · your call, say why' : '')

export function dayAndTime(iso: string): string {
  return new Date(iso).toLocaleString('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
  })
}

/** This moment by the clock on the wall, for a paper that shows it. */
export function hereAndNow(): string {
  const now = new Date()
  const two = (part: number) => String(part).padStart(2, '0')
  const ahead = -now.getTimezoneOffset()
  const zone = `${ahead < 0 ? '-' : '+'}${two(Math.trunc(Math.abs(ahead) / 60))}:${two(Math.abs(ahead) % 60)}`
  return `${today()}T${two(now.getHours())}:${two(now.getMinutes())}:00${zone}`
}

export function today(): string {
  const now = new Date()
  return [now.getFullYear(), now.getMonth() + 1, now.getDate()].map((part) => String(part).padStart(2, '0')).join('-')
}
