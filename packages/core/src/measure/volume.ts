import type { Moments } from '../raster/moments.ts'
import { THRESHOLDS } from './thresholds.ts'
import type { Volume } from '../document/model/model.ts'

/** A drawing's silhouette held against the reference drawing's. */
export interface VolumeReading {
  /** area over the reference's area, or volume over its volume, by the school; 1 is the same */
  readonly share: number
  readonly verdict: 'kept' | 'grown' | 'shrunk'
}

type Body = Pick<Moments, 'area' | 'halfAxes' | 'tiltRad'>

/**
 * Compares two silhouettes; null when either drawing is empty and there is nothing to compare, or where the layer asks for
 * nothing. Flat: their areas, for a shape that keeps r·s by r/s. Round: their volumes as bodies as deep as they are wide
 * across the stretch (4/3·π·a·b²), for one that keeps r·s by r/√s; across is the axis about which they differ less, since
 * the pixels do not tell which way a body was stretched.
 */
export function compareVolume(
  here: Body,
  reference: Body,
  school: Volume = 'flat',
  tolerance: number = THRESHOLDS.volume.is,
): VolumeReading | null {
  if (school === 'off' || !(here.area > 0) || !(reference.area > 0)) return null
  const areas = here.area / reference.area
  const share = school === 'flat' ? areas : nearestToOne(acrossShares(here, reference).map(across => areas * across))
  const verdict = share > 1 + tolerance ? 'grown' : share < 1 - tolerance ? 'shrunk' : 'kept'
  return { share, verdict }
}

const nearestToOne = (shares: readonly number[]): number =>
  shares.reduce((best, share) => (Math.abs(Math.log(share)) < Math.abs(Math.log(best)) ? share : best))

/** By how much a body became wider across, for either axis it may have been stretched along. */
function acrossShares(here: Body, reference: Body): number[] {
  const [long, short] = here.halfAxes
  const turned = Math.abs(Math.sin(here.tiltRad - reference.tiltRad)) > Math.SQRT1_2
  const [wasLong, wasShort] = reference.halfAxes
  // Squashed past a circle, what was the long axis is the short one now.
  return [short / wasShort, long / wasLong, ...(turned ? [short / wasLong, long / wasShort] : [])]
}
