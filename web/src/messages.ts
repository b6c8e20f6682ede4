/** The page's messages: Project Fluent files of `messages/`, one a room, fetched with the room's first view. */
import { FluentBundle, FluentNumber, FluentResource, type FluentVariable } from '@fluent/bundle'
import { shallowRef, triggerRef, type App } from 'vue'

/** What may stand in a message: a number is written without separators of thousands. */
type Value = string | number | boolean | null | undefined

declare module 'vue' {
  interface ComponentCustomProperties {
    $t: typeof t
  }
}

const SOURCE_LANGUAGE = 'en-US'
const FILES = import.meta.glob<string>('../../messages/*/page/*.ftl', { query: '?raw', import: 'default' })

const bundle = shallowRef(new FluentBundle(SOURCE_LANGUAGE, { useIsolating: false }))
const loaded = new Set<string>()

/** Fetch the messages of rooms, as `formula`; those that are there already are not fetched again. */
export async function loadMessages(...rooms: string[]): Promise<void> {
  const wanted = rooms.filter((room) => !loaded.has(room))
  const texts = await Promise.all(wanted.map((room) => FILES[`../../messages/${SOURCE_LANGUAGE}/page/${room}.ftl`]?.() ?? ''))
  texts.forEach((text, index) => {
    bundle.value.addResource(new FluentResource(text))
    loaded.add(wanted[index] ?? '')
  })
  if (wanted.length) triggerRef(bundle)
}

/** Fetch the messages of every room: for tests, which mount single components. */
export async function loadAllMessages(): Promise<void> {
  await loadMessages(...Object.keys(FILES).map((path) => path.replace(/^.*\/|\.ftl$/g, '')))
}

/** Return a message with its values; its key, if there is none: a page with a key on it is better than no page. */
export function t(key: string, values: Record<string, Value> = {}): string {
  const pattern = bundle.value.getMessage(key)?.value
  const errors: Error[] = []
  const text = pattern ? bundle.value.formatPattern(pattern, fluentValues(values), errors) : key
  if (import.meta.env.MODE === 'test' && (!pattern || errors.length))
    throw new Error(`message ${key}: ${errors.join('; ') || 'not in the catalog'}`)
  return text
}

function fluentValues(values: Record<string, Value>): Record<string, FluentVariable> {
  return Object.fromEntries(
    Object.entries(values).map(([name, value]) => [
      name,
      typeof value === 'number' ? new FluentNumber(value, { useGrouping: false, maximumFractionDigits: 20 }) : String(value ?? ''),
    ]),
  )
}

export const messages = {
  install(app: App): void {
    app.config.globalProperties.$t = t
  },
}
