import { placeStroke, unpackSamples, type Point } from '@unhurried/core/geometry'
import { filler, linePicture, type Region } from '@unhurried/core/raster'
import { expose } from 'comlink'
import type { FillProtocol, LineToBound } from './protocol.ts'

let fill: ((at: Point) => Region | null) | null = null

const protocol: FillProtocol = {
  bound(lines: readonly LineToBound[], paper, gapPx) {
    const placed = lines.map(l => placeStroke(unpackSamples(l.bytes), l.kind, l.width, l.part, l.matrix, l.nib))
    fill = filler(linePicture(placed, paper), gapPx)
  },
  at: place => fill?.(place) ?? null,
}

expose(protocol)
