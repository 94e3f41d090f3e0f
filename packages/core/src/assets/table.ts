import { MOST_SAMPLES, unpackSamplesSafe } from '../geometry/samples.ts'
import type { AssetKind, AssetName } from './asset.ts'
import { PICTURE_ASSET } from './picture.ts'

/** bytes of one sample at most: two numbers of four bytes, and pressure */
const SAMPLE_BYTES = 9

/** Every kind of stored thing; a missing one does not compile. */
export const ASSET_KINDS: { readonly [K in AssetName]: AssetKind } = {
  samples: {
    mostBytes: MOST_SAMPLES * SAMPLE_BYTES,
    fault(bytes) {
      const read = unpackSamplesSafe(bytes)
      return read.ok ? null : read.fault
    },
  },
  picture: PICTURE_ASSET,
}

/** What is wrong with bytes from outside that should be a stored thing of a kind, as a code; null when nothing is. */
export function assetFault(kind: AssetName, bytes: Uint8Array): string | null {
  return bytes.length > ASSET_KINDS[kind].mostBytes ? 'too-large' : ASSET_KINDS[kind].fault(bytes)
}
