import type { ShotDocument, Take } from '../../document/model/model.ts'
import { followedMark, stepsSeen } from '../../document/model/followed.ts'
import { exposures, marksOf } from '../../document/model/selectors.ts'
import type { Track } from './track.ts'

/** The ways of the marks of a layer over a take, as they are seen in the picture; those that are nowhere are left out. */
export function tracksOfMarks(document: ShotDocument, take: Take, layer: string): Track[] {
  const runs = exposures(take, layer)
  return marksOf(document, layer)
    .filter(mark => mark.kind === 'point')
    .flatMap(({ id, name }): Track[] => {
      const steps = stepsSeen(document, take, layer, followedMark(document, runs, id))
      const places = steps.flatMap(({ start, at }) => (at ? [{ frame: start, at }] : []))
      return places.length > 1 ? [{ id, name, places }] : []
    })
}
