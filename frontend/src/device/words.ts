// One-time words: each lets this browser do one act of one job, once, within a day. Words for holds are drawn ahead, so
// that a hold can be signed where no network is; they live and die with the page.
import { answer, api, asProblem, ProblemError } from '../api/client'
import type { ActWord, NamedAct } from '../api/types'

/** So long before it runs out a word is drawn anew. */
const FRESH_MS = 12 * 3600_000

const words = new Map<string, ActWord>()
const keyOf = (job: number, act: NamedAct) => `${job}/${act.kind}/${act.about}`
const lastsMs = (word: ActWord | undefined) => (word ? Date.parse(word.expires_at) - Date.now() : 0)

async function draw(job: number, acts: NamedAct[]): Promise<void> {
  const asked = api.POST('/api/v1/jobs/{job_id}/words', { params: { path: { job_id: job } }, body: { acts } })
  for (const word of (await answer<{ words: ActWord[] }>(asked)).words) words.set(keyOf(job, word), word)
}

/** Have a word for each of these; where nobody answers, whoever signs is told. */
export async function drawAhead(job: number, acts: NamedAct[]): Promise<void> {
  const lacking = acts.filter((act) => lastsMs(words.get(keyOf(job, act))) < FRESH_MS)
  if (lacking.length) await draw(job, lacking).catch(() => undefined)
}

/** The word of an act, which is used up with it: the one that was drawn ahead, or one drawn now. */
export async function wordFor(job: number, act: NamedAct): Promise<string> {
  const key = keyOf(job, act)
  if (lastsMs(words.get(key)) <= 0) await draw(job, [act]).catch(tellWhy)
  const word = words.get(key)!.word
  words.delete(key)
  return word
}

function tellWhy(error: unknown): never {
  const problem = asProblem(error)
  if (problem.status !== 0) throw error
  const detail = 'No answer from Fulmen, and this page has no word to sign with. Nothing was signed: try again later.'
  throw new ProblemError({ ...problem, detail })
}
