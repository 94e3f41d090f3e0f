import { placeStroke, unpackSamples, type Point } from '@unhurried/core/geometry'
import { shapeOf, type Shape } from '@unhurried/core/raster'
import { expose } from 'comlink'
import type { MeasureProtocol, StrokeToMeasure } from '../protocols/measure.ts'

const protocol: MeasureProtocol = {
  measure(strokes: readonly StrokeToMeasure[], spaces: readonly Point[], closedGapPx: number): Shape {
    const placed = strokes.map(s => placeStroke(unpackSamples(s.bytes), s.kind, s.width, s.part, s.matrix, s.nib))
    return shapeOf(placed, { spaces, closedGapPx })
  },
}

expose(protocol)
