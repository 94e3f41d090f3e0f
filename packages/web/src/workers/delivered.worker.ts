import { deliveredFrames } from '@unhurried/core/measure'
import { flashGrid } from '@unhurried/core/raster'
import { expose } from 'comlink'
import type { DeliveredProtocol } from '../protocols/delivered.ts'
import { edgesOf } from './delivered/edges.ts'
import { knowDrawing, knowFilm, underOf } from './delivered/known.ts'
import { lightOf } from './delivered/light.ts'

const protocol: DeliveredProtocol = {
  know: async (name, drawing, strokes) => knowDrawing(name, drawing, strokes),
  knowFilm: async (media, bytes) => knowFilm(media, bytes),
  async look(order, told) {
    const { format, loop, shownPx } = order
    const under = await underOf(order)
    const light = await lightOf(order, under, told)
    const grid = flashGrid(format.width, format.height, shownPx)
    const flashing = deliveredFrames(light.frames, light.pictures, grid, format.fps, loop)
    return { ...flashing, edges: await edgesOf(order, under) }
  },
}

expose(protocol)
