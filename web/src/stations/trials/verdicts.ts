/** A verdict as it is written: nothing said, or what was said before, free to be changed. */
import type { Verdict } from '@/api/types'

export const chipWords = ['far too pale', 'pale', 'as wanted', 'dark', 'far too dark']

export const emptyVerdict = (): Required<Verdict> => ({
  hours_after: null,
  liked: '',
  again: '',
  faults: [],
  colour: null,
  lightness: null,
  scores: {},
  asked: {},
  note: '',
})

export const verdictFrom = (known: Verdict | null): Required<Verdict> => ({
  ...emptyVerdict(),
  ...(known ? (JSON.parse(JSON.stringify(known)) as Verdict) : {}),
})
