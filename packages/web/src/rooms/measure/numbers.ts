import { find, type ShotDocument } from '@unhurried/core/document'

/** The number of a drawing as it is told; none where it is gone. */
export const numberOfDrawing = (document: ShotDocument | null | undefined, id: string): number | string =>
  (document && find(document.drawings, id)?.number) ?? '–'
