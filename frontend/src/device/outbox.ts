// What was made on this device goes to the server one by one, in order; what nobody answers to stays, and goes later.
import { createEventHook, useEventListener, useTimeoutFn } from '@vueuse/core'
import { computed, ref, shallowRef } from 'vue'

import { answer, api, asProblem, sendPhoto } from '../api/client'
import type { JobState, PhotoInfo } from '../api/types'
import { deviceReady } from './database'
import {
  asSent,
  type Entry,
  forgetEntry,
  isOnDisk,
  keepEntry,
  keepRefusal,
  keptEntries,
  newKey,
  photoArrived,
} from './entries'

const TRY_AGAIN_MS = 5000
/** Who waits for an answer waits so long; then it is on this device, and goes by itself. */
const PATIENCE_MS = 3000
const READING_MS = 20_000
const PHOTO_MS = 120_000

/** `state` or `photo` is what it came to; neither where another tab heard the answer. */
export type Arrived = { entry: Entry; state?: JobState; photo?: PhotoInfo }
type New = Pick<Entry, 'job' | 'reading' | 'word' | 'photo'>
interface Waiter {
  tell: (arrived: Arrived | undefined) => void
  refuse: (error: Error) => void
}

const entries = shallowRef<Entry[]>([])
const isAway = ref(false)
/** Whether all that waits outlives this page; one that does not is enough to say so. */
const isKept = computed(() => entries.value.every(isOnDisk))
const arrived = createEventHook<Arrived>()
/** What this page made and knows no answer to; another tab of this browser may have sent it. */
const unanswered = new Map<string, Entry>()
const waiters = new Map<string, Waiter>()
/** Entries that whoever made them still waits for an answer to. */
const handing = shallowRef<ReadonlySet<string>>(new Set())
const later = useTimeoutFn(() => void send(), TRY_AGAIN_MS, { immediate: false })
let sending: Promise<void> | undefined

useEventListener(window, 'online', () => void send())

async function look(): Promise<void> {
  await deviceReady
  entries.value = await keptEntries()
  const kept = new Set(entries.value.map((one) => one.key))
  for (const entry of [...unanswered.values()].filter((one) => !kept.has(one.key))) {
    unanswered.delete(entry.key)
    await arrived.trigger({ entry })
    waiters.get(entry.key)?.tell({ entry })
  }
}

/** Send what waits, in order; one at a time, and one go at a time. */
async function send(): Promise<void> {
  if (sending) await sending
  sending ??= sendInOrder().finally(() => (sending = undefined))
  await sending
}

async function sendInOrder(): Promise<void> {
  await look()
  for (let next = firstWaiting(); next; next = firstWaiting()) {
    if (!(await sent(next))) break
    await look()
  }
}

const firstWaiting = () => entries.value.find((one) => !one.refused)

/** Whether the next one may go. */
async function sent(entry: Entry): Promise<boolean> {
  try {
    const came = entry.photo ? await photoSent(entry) : await readingSent(entry)
    isAway.value = false
    waiters.get(entry.key)?.tell(came)
    await arrived.trigger(came)
    return true
  } catch (error) {
    const problem = asProblem(error)
    if (problem.status === 0 || problem.status === 429 || problem.status >= 500) return stays()
    isAway.value = false
    await refused(entry, problem.detail, error as Error)
    return true
  }
}

function stays(): boolean {
  isAway.value = true
  later.start()
  for (const waiter of waiters.values()) waiter.tell(undefined)
  return false
}

/** Who made it is still there and is told, or it waits here for somebody to look at. */
async function refused(entry: Entry, why: string, error: Error): Promise<void> {
  const waiter = waiters.get(entry.key)
  unanswered.delete(entry.key)
  if (!waiter) return keepRefusal(entry, why)
  await forgetEntry(entry)
  waiter.refuse(error)
}

async function readingSent(entry: Entry): Promise<Arrived> {
  const path = { job_id: entry.job }
  const header = { 'Fulmen-Entry': entry.key }
  const body = await asSent(entry.reading!)
  const signal = AbortSignal.timeout(READING_MS)
  const signed = { path, header: { ...header, 'Fulmen-Word': entry.word! } }
  const asked = entry.word
    ? api.POST('/api/v1/jobs/{job_id}/holds', { params: signed, body, signal })
    : api.POST('/api/v1/jobs/{job_id}/readings', { params: { path, header }, body, signal })
  const state = await answer<JobState>(asked)
  unanswered.delete(entry.key)
  await forgetEntry(entry)
  return { entry, state }
}

async function photoSent(entry: Entry): Promise<Arrived> {
  const { bytes, type, name, stop } = entry.photo!
  const address = `/api/v1/jobs/${entry.job}/photos?stop=${stop}&made_at=${encodeURIComponent(entry.made_at)}`
  const signal = AbortSignal.timeout(PHOTO_MS)
  const photo = await sendPhoto<PhotoInfo>(address, new File([bytes], name, { type }), { key: entry.key, signal })
  unanswered.delete(entry.key)
  await photoArrived(entry, photo.sha256)
  return { entry, photo }
}

/** Keep what was just made, then send it. Gives what it came to, or undefined once it waits on this device. */
async function hand(made: New): Promise<{ entry: Entry; came: Arrived | undefined }> {
  await deviceReady
  const entry: Entry = { ...made, key: newKey(), made_at: new Date().toISOString() }
  await keepEntry(entry)
  unanswered.set(entry.key, entry)
  await look()
  const came = await new Promise<Arrived | undefined>((tell, refuse) => {
    waiters.set(entry.key, { tell, refuse })
    handing.value = new Set(waiters.keys())
    // Where nobody answered just now, nobody is waited for.
    setTimeout(() => tell(undefined), isAway.value ? 0 : PATIENCE_MS)
    void send()
  }).finally(() => {
    waiters.delete(entry.key)
    handing.value = new Set(waiters.keys())
  })
  return { entry, came }
}

async function letGo(entry: Entry): Promise<void> {
  await forgetEntry(entry)
  await look()
}

void send()

export function useOutbox() {
  const waiting = computed(() => entries.value.filter((one) => !one.refused))
  return {
    waiting,
    /** What waits by itself: who made it went on. */
    left: computed(() => waiting.value.filter((one) => !handing.value.has(one.key))),
    refused: computed(() => entries.value.filter((one) => one.refused)),
    isAway,
    isKept,
    hand,
    send,
    letGo,
    onArrived: arrived.on,
  }
}
