// What was typed and is not on the server yet, kept in this browser: a draft for each job and each page that edits it.
import type { Job } from '../api/types'

/** `base` is the document it was typed on, as the server had it at `version`; `sent` what was on its way when kept. */
export interface Draft {
  version: number
  base?: Job
  sent?: Job[]
  job: Job
  at: number
}

/** A draft that nobody touched for so long was left by a page that is gone. */
const LEFT_AFTER_MS = 5000
const TAB = 'fulmen-tab'

// Each load of the page is a tab of its own; the tab before it, in the same window, left its draft to this one.
const tab = Math.random().toString(36).slice(2)
const before = sessionStorage.getItem(TAB)
sessionStorage.setItem(TAB, tab)

const keyOf = (id: number, whose = tab) => `fulmen-draft-${id}-${whose}`

/** False where this browser has no room for it, not even without what it was typed on. */
export function keepDraft(id: number, draft: Omit<Draft, 'at'>): boolean {
  const at = Date.now()
  return [draft, { version: draft.version, job: draft.job }].some((one) => {
    try {
      localStorage.setItem(keyOf(id), JSON.stringify({ ...one, at } satisfies Draft))
      return true
    } catch {
      return false
    }
  })
}

/** Take over the oldest draft of a job that this page's forerunner, or a page that is gone, has left. */
export function takeOverDraft(id: number): Draft | undefined {
  const left = Object.keys(localStorage)
    .filter((key) => key === `fulmen-draft-${id}` || key.startsWith(`fulmen-draft-${id}-`))
    .map((key) => ({ key, draft: JSON.parse(localStorage.getItem(key)!) as Draft }))
    .filter(({ key, draft }) => key === keyOf(id, before ?? '') || !(Date.now() - draft.at < LEFT_AFTER_MS))
    .filter(({ key }) => key !== keyOf(id))
    .sort((one, other) => (one.draft.at ?? 0) - (other.draft.at ?? 0))[0]
  if (!left) return undefined
  // Kept as this page's own before it goes from where it was.
  if (keepDraft(id, left.draft)) localStorage.removeItem(left.key)
  return left.draft
}

export function forgetDraft(id: number): void {
  localStorage.removeItem(keyOf(id))
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
