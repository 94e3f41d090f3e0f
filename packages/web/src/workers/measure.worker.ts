import { placeStroke, unpackSamples } from '@unhurried/core/geometry'
import { shapeOf, type Moments } from '@unhurried/core/raster'
import { expose } from 'comlink'
import type { MeasureProtocol, StrokeToMeasure } from './measure.protocol.ts'

const protocol: MeasureProtocol = {
  measure(strokes: readonly StrokeToMeasure[]): Moments {
    return shapeOf(strokes.map(s => placeStroke(unpackSamples(s.bytes), s.kind, s.width, s.part, s.matrix, s.nib)))
  },
}

expose(protocol)
