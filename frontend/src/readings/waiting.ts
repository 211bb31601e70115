// Readings that were taken here and have not arrived: shown with their steps; nobody has judged them yet.
import type { Reading, Step } from '../api/types'
import type { Entry } from '../device/entries'

export type ShownStep = Step & { waits?: boolean }

export function withWaiting(steps: readonly Step[], entries: readonly Entry[]): ShownStep[] {
  const readings = entries.flatMap((one) => (one.reading ? [one.reading] : []))
  if (!readings.length) return [...steps]
  return steps.map((step) => {
    const known = [...step.earlier, ...step.taken_back, ...(step.reading ? [step.reading] : [])]
    // What has arrived while it still waits for its answer here stands with its step already.
    const isThere = (one: Reading) =>
      known.some((each) => Date.parse(each.taken_at) === Date.parse(one.taken_at) && each.outcome === one.outcome)
    const own = readings.filter((one) => one.step === step.step && one.subject === step.subject && !isThere(one))
    if (!own.length) return step
    return { ...own.reduce(after, step), waits: true }
  })
}

/** A step once another reading of it was taken, or one was taken back. */
function after(step: Step, own: Reading): Step {
  const before = step.reading ? [...step.earlier, step.reading] : step.earlier
  if (own.outcome !== 'taken_back') return { ...step, reading: own, earlier: before }
  const isIt = (one: Reading) => one.taken_by === own.follows?.taken_by && one.taken_at === own.follows.taken_at
  const left = before.filter((one) => !isIt(one))
  const taken_back = [...step.taken_back, ...before.filter(isIt), own]
  return { ...step, reading: left.at(-1) ?? null, earlier: left.slice(0, -1), taken_back }
}
