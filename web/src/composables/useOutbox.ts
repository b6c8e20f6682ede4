/**
 * What was written at the bench waits here until the server has it: kept in the browser's own database, so that neither a reload
 * nor an hour without a network loses it. Sending twice is harmless: each entry has its own id.
 */
import { openDB, type IDBPDatabase } from 'idb'
import type { RunEntry, RunOut } from '@/api/types'

interface Waiting {
  id: string
  run: number
  entry: RunEntry
}

const NAME = 'substrata-bench'
let opened: Promise<IDBPDatabase> | null = null

function base(): Promise<IDBPDatabase> {
  opened ??= openDB(NAME, 1, {
    upgrade(db) {
      db.createObjectStore('waiting', { keyPath: 'id' }).createIndex('run', 'run')
      db.createObjectStore('runs', { keyPath: 'run.id' })
    },
  })
  return opened
}

/** Keep an entry until it is sent. */
export async function keep(run: number, entry: RunEntry): Promise<void> {
  await (await base()).put('waiting', { id: entry.id, run, entry } satisfies Waiting)
}

/** What waits of a run, the oldest first. */
export async function waitingOf(run: number): Promise<RunEntry[]> {
  const rows = (await (await base()).getAllFromIndex('waiting', 'run', run)) as Waiting[]
  return rows.map((row) => row.entry).sort((a, b) => Date.parse(a.at) - Date.parse(b.at))
}

/** The server has these. */
export async function sent(ids: readonly string[]): Promise<void> {
  const store = (await base()).transaction('waiting', 'readwrite')
  await Promise.all([...ids.map((id) => store.store.delete(id)), store.done])
}

/** Keep a run as it was last seen, to be opened without a network. */
export async function remember(run: RunOut): Promise<void> {
  await (await base()).put('runs', JSON.parse(JSON.stringify(run)))
}

/** Forget the runs that were seen here; what was not sent yet waits on. */
export async function forgetRuns(): Promise<void> {
  await (await base()).clear('runs')
}

/** A run as it was last seen on this device. */
export async function remembered(id: number): Promise<RunOut | null> {
  return ((await (await base()).get('runs', id)) as RunOut | undefined) ?? null
}
