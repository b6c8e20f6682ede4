/** A server for tests of components. It imports nothing, so that it can stand in for the client of the stores. */

interface Asked { method: string; path: string; body: unknown }
export const asked: Asked[] = []
const answers = new Map<string, unknown>()
/** What the server says to a path from now on. */
export const answering = (path: string, data: unknown): void => { answers.set(path, data) }
const call = (method: string) => (path: string, options: { body?: unknown } = {}): Promise<unknown> => {
  asked.push({ method, path, body: options.body })
  const key = [...answers.keys()].find((end) => path.endsWith(end))
  return key === undefined ? new Promise(() => undefined) : Promise.resolve({ data: answers.get(key), response: { ok: true, status: 200 } })
}
export const api = { GET: call('GET'), POST: call('POST'), PUT: call('PUT'), PATCH: call('PATCH'), DELETE: call('DELETE') }

/** Nothing asked yet, nothing to say. */
export function forget(): void {
  asked.length = 0
  answers.clear()
}
