// What was typed and is not on the server yet, kept in this browser.
import type { Job } from '../api/types'

interface Draft {
  version: number
  job: Job
}

const key = (id: number) => `fulmen-draft-${id}`

export function keepDraft(id: number, version: number, job: Job): void {
  localStorage.setItem(key(id), JSON.stringify({ version, job } satisfies Draft))
}

export function keptDraft(id: number): Draft | undefined {
  const text = localStorage.getItem(key(id))
  return text ? (JSON.parse(text) as Draft) : undefined
}

export function forgetDraft(id: number): void {
  localStorage.removeItem(key(id))
}
