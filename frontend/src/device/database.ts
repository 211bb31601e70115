// What this device keeps until the server has it. A change stands on the disk as soon as it is committed: it outlives a
// reload, a closed page and a killed browser, which the browser's simple storage does not.
import { type DBSchema, type IDBPDatabase, openDB } from 'idb'

import type { Draft } from './drafts'
import type { Entry } from './entries'

interface Device extends DBSchema {
  /** What was typed into a job's document, by the page that it was typed in. */
  drafts: { key: string; value: Draft }
  /** Readings and photos, in the order in which they were made. */
  entries: { key: number; value: Entry }
  /** Photos that were sent: the name that the server gave each, for readings that were made with it. */
  photos: { key: string; value: { key: string; sha256: string } }
}

let opened: IDBPDatabase<Device> | undefined

/** Opened once, before a job is shown: a page that goes has no time left to open anything. */
export const deviceReady: Promise<void> = open().catch(() => undefined)

/** Asynchronous from its first line: where a browser forbids it, even asking may throw. */
async function open(): Promise<void> {
  opened = await openDB<Device>('fulmen', 1, {
    upgrade(device) {
      device.createObjectStore('drafts', { keyPath: 'key' })
      device.createObjectStore('entries', { keyPath: 'order', autoIncrement: true })
      device.createObjectStore('photos', { keyPath: 'key' })
    },
  })
}

/** Undefined where this browser keeps nothing, such as in some private windows. */
export function device(): IDBPDatabase<Device> | undefined {
  return opened
}
