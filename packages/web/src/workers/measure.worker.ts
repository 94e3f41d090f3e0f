import { placeStored, type StoredStroke } from '@unhurried/core/document'
import type { Point } from '@unhurried/core/geometry'
import { shapeOf, type Shape } from '@unhurried/core/raster'
import { expose } from 'comlink'
import type { MeasureProtocol } from '../protocols/measure.ts'

const protocol: MeasureProtocol = {
  measure(strokes: readonly StoredStroke[], spaces: readonly Point[], closedGapPx: number): Shape {
    return shapeOf(strokes.map(placeStored), { spaces, closedGapPx })
  },
}

expose(protocol)
