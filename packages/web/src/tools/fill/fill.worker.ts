import { placeStored, type StoredStroke } from '@unhurried/core/document'
import type { Point } from '@unhurried/core/geometry'
import { filler, linePicture, type Region } from '@unhurried/core/raster'
import { expose } from 'comlink'
import type { FillProtocol } from './protocol.ts'

let fill: ((at: Point) => Region | null) | null = null

const protocol: FillProtocol = {
  bound(lines: readonly StoredStroke[], paper, gapPx) {
    fill = filler(linePicture(lines.map(placeStored), paper), gapPx)
  },
  at: place => fill?.(place) ?? null,
}

expose(protocol)
