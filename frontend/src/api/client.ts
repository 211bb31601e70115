// One typed client. Every answer is either data or a Problem; a lost connection becomes a Problem too.
import createClient from 'openapi-fetch'

import type { paths } from './schema'
import { shows, SHOWS } from './shows'
import type { Problem } from './types'

export const api = createClient<paths>({ baseUrl: '/' })
api.use({
  onRequest({ request }) {
    if (!request.headers.has(SHOWS)) request.headers.set(SHOWS, shows.value)
    return request
  },
})

export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail)
  }
}

interface Answer {
  data?: unknown
  error?: unknown
  response: Response
}

/** The data of an answer as `T`, or a ProblemError. */
export async function answer<T>(asked: Promise<Answer>): Promise<T> {
  let got: Answer
  try {
    got = await asked
  } catch {
    throw new ProblemError(
      problem(0, 'No answer from Fulmen. What you typed is kept here; it is saved when it answers again.'),
    )
  }
  if (got.error !== undefined || !got.response.ok) {
    throw new ProblemError(isProblem(got.error) ? got.error : problem(got.response.status, got.response.statusText))
  }
  return got.data as T
}

/** Send a photo as it is; the server reads it, turns it upright and strips it. By its `key` it knows one it has. */
export async function sendPhoto<T>(
  address: string,
  photo: File,
  how: { key?: string; signal?: AbortSignal } = {},
): Promise<T> {
  const headers = {
    'Content-Type': photo.type.startsWith('image/') ? photo.type : 'application/octet-stream',
    'Fulmen-Entry': how.key ?? '',
  }
  const request = { method: 'POST', headers, body: photo, signal: how.signal }
  const response = await fetch(address, request).catch(() => undefined)
  if (!response) throw new ProblemError(problem(0, `No answer from Fulmen: ${photo.name} is not sent. Try again.`))
  const body: unknown = await response.json().catch(() => undefined)
  if (!response.ok) throw new ProblemError(isProblem(body) ? body : problem(response.status, response.statusText))
  return body as T
}

/** Send a PDF to be looked at. */
export async function sendPaper<T>(address: string, paper: File): Promise<T> {
  const request = { method: 'POST', headers: { 'Content-Type': 'application/pdf' }, body: paper }
  const response = await fetch(address, request).catch(() => undefined)
  if (!response)
    throw new ProblemError(problem(0, `No answer from Fulmen: ${paper.name} was not looked at. Try again.`))
  const body: unknown = await response.json().catch(() => undefined)
  if (!response.ok) throw new ProblemError(isProblem(body) ? body : problem(response.status, response.statusText))
  return body as T
}

/** Ask for a file made from what is sent, and hand it to the browser to keep. */
export async function download(address: string, body: unknown, name: string): Promise<void> {
  const headers = { 'Content-Type': 'application/json' }
  const response = await fetch(address, { method: 'POST', headers, body: JSON.stringify(body) }).catch(() => undefined)
  if (!response) throw new ProblemError(problem(0, 'No answer from Fulmen: nothing was saved. Try again.'))
  if (!response.ok) {
    const told: unknown = await response.json().catch(() => undefined)
    throw new ProblemError(isProblem(told) ? told : problem(response.status, response.statusText))
  }
  const link = document.createElement('a')
  link.href = URL.createObjectURL(await response.blob())
  link.download = name
  link.click()
  URL.revokeObjectURL(link.href)
}

export function asProblem(error: unknown): Problem {
  if (error instanceof ProblemError) return error.problem
  return problem(0, error instanceof Error ? error.message : String(error))
}

function isProblem(value: unknown): value is Problem {
  return typeof value === 'object' && value !== null && 'detail' in value && 'status' in value
}

function problem(status: number, detail: string): Problem {
  return {
    type: 'about:blank',
    title: 'Problem',
    status,
    detail,
    field: '',
    fields: [],
    version: null,
    stored: null,
    saved_by: '',
    saved_at: null,
    differences: [],
    gaps: [],
  }
}
