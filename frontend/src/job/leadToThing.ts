// To where a thing that is still needed is put right: its stage, its place there, and the very field, check or test.
import { router } from '../router'
import type { NextThing } from '../api/types'
import { seek } from '../shared/fieldPlaces'

/** What a thing is sought by, once its page is there. */
function soughtBy(thing: NextThing): string {
  if (thing.field) return thing.field
  if (thing.kind === 'check') return `check:${thing.key}`
  return `${thing.kind}:${thing.key}`
}

export async function leadToThing(jobId: number, thing: NextThing): Promise<void> {
  const params = { id: jobId, part: thing.part }
  const query = thing.step ? { step: thing.step } : {}
  await router.push({ name: thing.stage, params, query })
  if (!thing.step) await seek(soughtBy(thing))
}
