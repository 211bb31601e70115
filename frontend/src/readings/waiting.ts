// Readings that were taken here and have not arrived: shown with their steps; nobody has judged them yet.
import type { Step } from '../api/types'
import type { Entry } from '../device/entries'

export type ShownStep = Step & { waits?: boolean }

export function withWaiting(steps: readonly Step[], entries: readonly Entry[]): ShownStep[] {
  const readings = entries.flatMap((one) => (one.reading ? [one.reading] : []))
  if (!readings.length) return [...steps]
  return steps.map((step) => {
    const own = readings.filter((one) => one.step === step.step && one.subject === step.subject)
    const before = step.reading ? [...step.earlier, step.reading] : step.earlier
    if (!own.length) return step
    return { ...step, reading: own.at(-1)!, earlier: [...before, ...own.slice(0, -1)], waits: true }
  })
}
