// Values that can't be taken block only themselves: each is held back, shown and told, and the rest goes on without it.
import { computed, type Ref, shallowRef } from 'vue'

import type { Job, Problem } from '../api/types'
import { valueAt, withValue } from '../shared/paths'

export interface Held {
  /** What is held back, and the field at fault, which may lie within it. */
  at: string
  field: string
  message: string
  value: unknown
}

export function useHeldBack(job: Ref<Job | undefined>, stored: Ref<Job | undefined>) {
  const held = shallowRef<Held[]>([])
  /** What the server can be asked about: the job with what is held back as it is stored. */
  const sendable = computed(() => job.value && lower(job.value))

  function lower(document: Job): Job {
    return held.value.reduce((here, one) => withValue(here, one.at, valueAt(stored.value, one.at)), document)
  }

  /** A document of the server's with what is held back on top, as the screen goes on showing it. */
  function onTop(document: Job): Job {
    return held.value.reduce((here, one) => withValue(here, one.at, one.value), document)
  }

  /** The server refused what was sent to it; whether there is another thing to send now, without what was refused.
   *  Somebody else who sent the same may have been told sooner and held it back already. */
  function refused(problem: Problem, sent: Job): boolean {
    const more = problem.fields.flatMap(({ field, message }) => {
      const at = separable(field, job.value, stored.value)
      const known = at === undefined || held.value.some((one) => one.at === at)
      return known ? [] : [{ at, field, message, value: valueAt(job.value, at) }]
    })
    if (more.length) held.value = [...held.value, ...more]
    return sendable.value !== sent
  }

  /** What was changed since is tried anew. */
  function edited(): void {
    const left = held.value.filter((one) => valueAt(job.value, one.at) === one.value)
    if (left.length < held.value.length) held.value = left
  }

  function forget(): void {
    held.value = []
  }

  return { held, sendable, onTop, refused, edited, forget }
}

type Tree = Record<string, unknown>
const isTree = (value: unknown): value is Tree => typeof value === 'object' && value !== null

/** The field, or the nearest thing around it, that can be put back as it is stored and nothing else with it. */
function separable(field: string, mine: unknown, theirs: unknown): string | undefined {
  const way: string[] = []
  for (const part of field.split('.')) {
    if (!isTree(mine) || !isTree(theirs) || !sameThings(mine, theirs)) break
    if (!(part in mine) || !(part in theirs)) break
    way.push(part)
    mine = mine[part]
    theirs = theirs[part]
  }
  return way.length && mine !== theirs ? way.join('.') : undefined
}

/** Entries of two lists stand for each other only where they are the same things, place by place. */
function sameThings(mine: Tree, theirs: Tree): boolean {
  if (!Array.isArray(mine) || !Array.isArray(theirs)) return !Array.isArray(mine) && !Array.isArray(theirs)
  const names = (list: unknown[]) => JSON.stringify(list.map((one) => (isTree(one) ? (one.id ?? one.name) : null)))
  return names(mine) === names(theirs)
}
