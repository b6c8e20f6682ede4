/** Where a figure stands to its window: in it, about at its limit (unusual), or so far outside that the dough will fail. */
import type { Bracket } from '@/api/types'

type State = Bracket['state']

export const willFail = (state: State): boolean => state === 'low' || state === 'high'
export const isOutside = (state: State): boolean => willFail(state) || state === 'under' || state === 'over'
