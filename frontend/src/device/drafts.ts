// What was typed and is not on the server yet, kept on this device: a draft for each job and each page that edits it.
import type { Job } from '../api/types'
import { device, deviceReady } from './database'

/** A draft as it is kept; `text` holds what a page knew. */
export interface Draft {
  key: string
  id: number
  at: number
  text: string
}

/** `base` is the document it was typed on, as the server had it at `version`; `sent` what was on its way when kept. */
export interface Typed {
  version: number
  base?: Job
  sent?: Job[]
  job: Job
}

/** A draft that nobody touched for so long was left by a page that is gone. */
export const LEFT_AFTER_MS = 5000
const TAB = 'fulmen-tab'

// Each load of the page is a tab of its own; the tab before it, in the same window, left its draft to this one.
const tab = Math.random().toString(36).slice(2)
const before = sessionStorage.getItem(TAB)
sessionStorage.setItem(TAB, tab)

const keyOf = (id: number, whose = tab) => `${id}/${whose}`

/** Whether it is kept, so that it outlives whatever happens to this page. */
export async function keepDraft(id: number, typed: Typed): Promise<boolean> {
  try {
    // Written and committed in one go: a page that is killed in this very moment has done so.
    const change = device()!.transaction('drafts', 'readwrite', { durability: 'strict' })
    void change.store.put({ key: keyOf(id), id, at: Date.now(), text: JSON.stringify(typed) }).catch(() => undefined)
    change.commit()
    await change.done
    return true
  } catch {
    return false
  }
}

/** Take over the oldest draft of a job that this page's forerunner, or a page that is gone, has left. */
export async function takeOverDraft(id: number): Promise<Typed | undefined> {
  const all = (await device()?.getAll('drafts')) ?? []
  const left = all
    .filter((one) => one.id === id && one.key !== keyOf(id))
    .filter((one) => one.key === keyOf(id, before ?? '') || Date.now() - one.at >= LEFT_AFTER_MS)
    .sort((one, other) => one.at - other.at)[0]
  if (!left) return undefined
  const typed = JSON.parse(left.text) as Typed
  // Kept as this page's own before it goes from where it was.
  if (await keepDraft(id, typed)) await device()?.delete('drafts', left.key)
  return typed
}

/** Whether another page left a draft of this job, or may have: it is too young to tell. */
export async function hasOthersDrafts(id: number): Promise<boolean> {
  const all = (await device()?.getAll('drafts')) ?? []
  return all.some((one) => one.id === id && one.key !== keyOf(id))
}

/** The jobs that drafts on this device are of. */
export async function unsavedJobs(): Promise<number[]> {
  await deviceReady
  return [...new Set(((await device()?.getAll('drafts')) ?? []).map((one) => one.id))]
}

export function forgetDraft(id: number): void {
  void device()?.delete('drafts', keyOf(id))
}

/** So many documents on their way are remembered as this page's own; one that is sent again counts once. */
const MOST_SENT = 5

export function rememberSent(sent: Job[], document: Job): Job[] {
  const text = JSON.stringify(document)
  return sent.some((one) => JSON.stringify(one) === text) ? sent : [...sent, document].slice(-MOST_SENT)
}

/** The newest version of a job that this browser saved, from whichever tab. */
export function rememberSaved(id: number, version: number): void {
  localStorage.setItem(`fulmen-saved-${id}`, String(version))
}

export function savedHere(id: number, version: number): boolean {
  return localStorage.getItem(`fulmen-saved-${id}`) === String(version)
}
