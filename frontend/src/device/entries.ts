// What was made on this device and is not on the server yet: readings and photos, in order, each under its own key.
import type { Reading, Stop } from '../api/types'
import { device } from './database'

export interface Entry {
  /** Its place in the order in which they were made; the device gives it. */
  order?: number
  /** By it the server knows an entry that it did already. */
  key: string
  job: number
  made_at: string
  reading?: Reading
  /** The one-time word that signs it, where it is a hold. */
  word?: string
  photo?: { bytes: ArrayBuffer; type: string; name: string; stop: Stop }
  /** Why the server would not take it, once nobody was there to be told. */
  refused?: string
}

/** A reading names a photo that is not sent yet by the photo's key. */
const BY_KEY = 'entry:'
export const photoByKey = (key: string) => BY_KEY + key

/** A key that nobody else draws; also where the page came over plain HTTP. */
export function newKey(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, '0')).join('')
}

/** What a device that keeps nothing has in this page alone. */
let onlyHere: Entry[] = []
let places = 0

/** Whether an entry outlives this page. */
export const isOnDisk = (entry: Entry) => entry.order! > 0

/** Keep an entry: on the disk, or in this page alone where there is no room. */
export async function keepEntry(entry: Entry): Promise<void> {
  try {
    const change = device()!.transaction('entries', 'readwrite', { durability: 'strict' })
    const placed = change.store.add(entry)
    change.commit()
    entry.order = await placed
    await change.done
  } catch {
    onlyHere.push(Object.assign(entry, { order: --places }))
  }
}

/** What is kept, the first one first. */
export async function keptEntries(): Promise<Entry[]> {
  const kept = (await device()?.getAll('entries')) ?? []
  return [...kept, ...onlyHere]
}

export async function forgetEntry(entry: Entry): Promise<void> {
  onlyHere = onlyHere.filter((one) => one !== entry)
  await device()?.delete('entries', entry.order!)
}

export async function keepRefusal(entry: Entry, refused: string): Promise<void> {
  entry.refused = refused
  if (isOnDisk(entry)) await device()?.put('entries', entry)
}

/** In one change the photo leaves the device, and its name stays for the readings that were made with it. */
export async function photoArrived(entry: Entry, sha256: string): Promise<void> {
  onlyHere = onlyHere.filter((one) => one !== entry)
  names.set(entry.key, sha256)
  const change = device()?.transaction(['entries', 'photos'], 'readwrite')
  await change?.objectStore('photos').put({ key: entry.key, sha256 })
  await change?.objectStore('entries').delete(entry.order!)
  await change?.done
}

const names = new Map<string, string>()

/** A reading as the server can take it: its photo by the photo's own name, none where the photo never came. */
export async function asSent(reading: Reading): Promise<Reading> {
  if (!reading.photo.startsWith(BY_KEY)) return reading
  const key = reading.photo.slice(BY_KEY.length)
  const sha256 = names.get(key) ?? (await device()?.get('photos', key))?.sha256 ?? ''
  return { ...reading, photo: sha256 }
}
