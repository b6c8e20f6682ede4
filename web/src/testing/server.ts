/** A server for tests of components. It imports nothing, so that it can stand in for the client of the stores. */

interface Asked {
  method: string
  path: string
  body: unknown
  query?: unknown
}
export const asked: Asked[] = []
interface Reply {
  data?: unknown
  error?: unknown
  response: { ok: boolean; status: number }
}
const answers = new Map<string, (body: unknown) => Promise<Reply>>()
/** What the server says to a path from now on. */
export const answering = (path: string, data: unknown): void => {
  answers.set(path, () => Promise.resolve({ data, response: { ok: true, status: 200 } }))
}
/** … a refusal. */
export const refusing = (path: string, status: number, title: string): void => {
  answers.set(path, () => Promise.resolve({ error: { title, status }, response: { ok: false, status } }))
}
/** … nothing at all: the network is lost. */
export const losing = (path: string): void => {
  answers.set(path, () => Promise.reject(new TypeError('Failed to fetch')))
}
/** … what the test says, when it says so. */
export function slowly(path: string): { body: unknown; answer: (data: unknown) => void }[] {
  const waiting: { body: unknown; answer: (data: unknown) => void }[] = []
  answers.set(
    path,
    (body) =>
      new Promise((settle) => {
        waiting.push({
          body,
          answer: (data) => {
            settle({ data, response: { ok: true, status: 200 } })
          },
        })
      }),
  )
  return waiting
}
const call =
  (method: string) =>
  (path: string, options: { body?: unknown; params?: { query?: unknown } } = {}): Promise<unknown> => {
    asked.push({ method, path, body: options.body, query: options.params?.query })
    const key = [...answers.keys()].find((end) => path.endsWith(end))
    return key === undefined ? new Promise(() => undefined) : (answers.get(key)?.(options.body) ?? Promise.reject(new Error(key)))
  }
export const api = { GET: call('GET'), POST: call('POST'), PUT: call('PUT'), PATCH: call('PATCH'), DELETE: call('DELETE') }

/** Nothing asked yet, nothing to say. */
export function forget(): void {
  asked.length = 0
  answers.clear()
}
