/** How far a drawing's area may be from the reference before it is pointed out: ±8 %. */
export const VOLUME_TOLERANCE = 0.08

/** A drawing's silhouette held against the reference drawing's. */
export interface VolumeReading {
  /** area over the reference's area; 1 is the same */
  readonly share: number
  readonly verdict: 'kept' | 'grown' | 'shrunk'
}

/** Compares two areas in the same unit; null when either drawing is empty and there is nothing to compare. */
export function compareVolume(area: number, reference: number, tolerance = VOLUME_TOLERANCE): VolumeReading | null {
  if (!(area > 0) || !(reference > 0)) return null
  const share = area / reference
  const verdict = share > 1 + tolerance ? 'grown' : share < 1 - tolerance ? 'shrunk' : 'kept'
  return { share, verdict }
}
