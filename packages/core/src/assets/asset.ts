/** Stored things that documents refer to by id: what they are, and that their bytes are it. */
export interface AssetKind {
  /** the most bytes one may have */
  readonly mostBytes: number
  /** what is wrong with bytes from outside that should be one, as a code; null when they are */
  fault(bytes: Uint8Array): string | null
}

/** The kinds of stored things by name. */
export type AssetName = 'samples' | 'picture'

/** A stored thing that an element shows. */
export interface AssetRef {
  readonly kind: AssetName
  readonly id: string
}
