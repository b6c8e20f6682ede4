/** Which hatch a role is drawn with, so that no role is told by colour alone. */
export interface Hatch {
  role: string
  size: number
  strokes: string[]
  dots: [number, number, number][]
  filled?: boolean
}

const hatch = (role: string, size: number, strokes: string[], dots: [number, number, number][] = [], filled = false): Hatch => ({
  role,
  size,
  strokes,
  dots,
  filled,
})

export const hatches: readonly Hatch[] = [
  hatch(
    'base',
    12,
    [],
    [
      [3, 3, 1],
      [9, 8, 1],
    ],
    true,
  ),
  hatch('fibre', 12, ['M1 4h5', 'M7 10h5']),
  hatch('binder', 10, ['M0 0l10 10', 'M10 0l-10 10']),
  hatch('egg', 14, [], [[7, 7, 2.6]]),
  hatch('cheese', 10, ['M-2 12L12 -2', 'M-2 2L2 -2', 'M8 12l4 -4']),
  hatch('vegetable', 8, ['M2 0q2 4 0 8', 'M6 0q-2 4 0 8']),
  hatch('flesh', 12, ['M0 3h7', 'M5 9h7', 'M9 1v4']),
  hatch('liquid', 12, ['M0 3q3 -2.5 6 0t6 0', 'M0 9q3 -2.5 6 0t6 0']),
  hatch(
    'fat',
    20,
    [],
    [
      [5, 6, 0.9],
      [15, 15, 0.9],
    ],
    true,
  ),
  hatch('lift', 14, ['M4 9l3 -5l3 5z']),
  hatch('acid', 12, ['M3 3l3 3l-3 3', 'M9 0l2 2']),
  hatch('sweetener', 12, ['M6 2l3 4l-3 4l-3 -4z']),
  hatch('salt', 12, ['M4 4h3v3h-3z']),
  hatch('flavour', 12, ['M3 3l2 2', 'M9 7l-2 2', 'M3 10l1 -1']),
  hatch('filling', 12, ['M0 6h12', 'M6 0v12']),
  hatch('topping', 12, ['M2 8q4 -6 8 0']),
  hatch('wash', 12, ['M0 12L12 0']),
  hatch(
    'dusting',
    9,
    [],
    [
      [3, 3, 0.7],
      [7, 7, 0.7],
    ],
    true,
  ),
]
