/** Documents as files: formulas kept from the bench and dropped on the shelf, packs kept from the pantry. */
import type { FormulaDocument, LotDocument } from '@/api/types'

const LARGEST_FILE = 900_000

export function keepAsFile(document: FormulaDocument | LotDocument, kind: 'substrata' | 'pack' = 'substrata'): void {
  const link = window.document.createElement('a')
  link.href = URL.createObjectURL(new Blob([JSON.stringify(document, null, 1)], { type: 'application/json' }))
  link.download = `${document.name?.replace(/[^\p{L}\p{N} -]/gu, '').trim() || kind}.${kind}.json`
  link.click()
  URL.revokeObjectURL(link.href)
}

/** A dropped file as a document; throws a sentence that says what is wrong. The core checks the rest. */
export async function readFile(file: File): Promise<FormulaDocument> {
  if (file.size > LARGEST_FILE) throw new Error(`${file.name} is too large for a formula document.`)
  try {
    const read = JSON.parse(await file.text()) as FormulaDocument
    if (typeof read === 'object' && read !== null && 'lines' in read) return read
  } catch {
    // Said below, in the same words as for JSON of another kind.
  }
  throw new Error(`${file.name} is no formula document (*.substrata.json).`)
}
