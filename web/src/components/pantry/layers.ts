/** Which hatch each layer of 100 g is drawn with. */
export const layerHatch: Record<string, string> = {
  water: 'liquid',
  protein: 'egg',
  fat: 'fat',
  sugars: 'sweetener',
  fibre: 'fibre',
  polyols: 'lift',
  other: 'salt',
}
