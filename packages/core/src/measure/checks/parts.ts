import { isAnimated, type Layer } from '../../document/model/model.ts'
import { exposures, layersInOrder } from '../../document/model/selectors.ts'
import { arriveTogether } from '../tracks/together.ts'
import { glideAlike } from '../tracks/smooth.ts'
import { onsetOf, type Onset } from '../tracks/onset.ts'
import { isHardStop, stopOf } from '../tracks/weight.ts'
import { tracksOfMarks } from '../tracks/ofMarks.ts'
import type { Track } from '../tracks/track.ts'
import { counted } from '../../time/counted.ts'
import { layersTogether, staggeredTake } from '../stagger.ts'
import type { Survey } from '../survey.ts'
import type { Check, Finding, Series } from './check.ts'
import { stepSeries } from './followed.ts'

/** What has come to rest is seen at rest for this long, seconds; what goes on till the shot ends has not arrived. */
const REST_S = 1 / 6

/** Layers with marks, and the ways of these, from what leads to what hangs on it. */
const markedLayers = ({ document, take }: Survey): { layer: Layer; tracks: Track[] }[] =>
  layersInOrder(document)
    .filter(isAnimated)
    .map(layer => ({ layer, tracks: tracksOfMarks(document, take, layer.id) }))

/** Whether a part rests before the take ends, or its loop goes on. */
const hasArrived = (survey: Survey, { stops }: Onset): boolean => stops !== null && restsFrom(survey, stops)

const restsFrom = ({ document, take }: Survey, stops: number): boolean => {
  const end = take.loop && stops < take.loop.to ? take.loop.to : take.length
  return end - stops > REST_S * document.format.fps
}

const names = (tracks: readonly Track[]): string => tracks.map(track => track.name).join(', ')

/** A way that goes on being where its last drawing is held: what rests until the shot ends has stopped. */
function heldOn({ take }: Survey, layer: Layer, track: Track): Track {
  const last = track.places[track.places.length - 1]
  const run = exposures(take, layer.id).find(one => one.start === last?.frame)
  if (!last || !run || run.frames < 2) return track
  return { ...track, places: [...track.places, { frame: run.start + run.frames - 1, at: last.at }] }
}

/** A finding about parts of a layer on a frame. */
const about = (layer: Layer, frame: number, tracks: readonly Track[]) => ({
  layer: layer.id,
  from: frame,
  to: frame + 1,
  drawings: [],
  marks: tracks.map(track => track.id),
  at: null,
})

/** How fast every marked part goes. */
const speeds = (survey: Survey): Series[] => stepSeries(survey).filter(series => series.mark !== null)

/** Whether most parts arrive on the same frame. */
export const together: Check = {
  words: 'all at once',
  asks: 'Do parts arrive one after the other?',
  // Layers are parts too, by their silhouettes.
  needs: ['shapes', 'marks'],
  view: 'onsets',
  series: speeds,
  /** Layers can be timed apart: how it would look is shown as a take of its own, and nothing that is there changes. */
  fix(survey, { layer }, newId) {
    const found = layer === null ? layersTogether(survey, stops => restsFrom(survey, stops)) : null
    const ops = found ? staggeredTake(survey.document, survey.take, found.layers, newId) : []
    return ops.length > 0 ? { words: 'see it staggered, as a take of its own', ops } : null
  },
  inspect: survey => [...marksTogether(survey), ...layersAtOnce(survey)],
}

function layersAtOnce(survey: Survey): Finding[] {
  const found = layersTogether(survey, stops => restsFrom(survey, stops))
  if (!found) return []
  const { frame, layers, of } = found
  const staggered = layers.flatMap(({ layer, later }) => (later > 0 ? [`${layer.name} ${later} later`] : []))
  return [
    {
      severity: 'look',
      layer: null,
      ...{ from: frame, to: frame + 1, drawings: [], marks: [], at: null },
      figures: { layers: layers.length, of },
      words: `${layers.length} of ${counted(of, 'layer')} arrive on frame ${frame + 1}: ${layers.map(one => one.layer.name).join(', ')}. Staggered: ${staggered.join(', ')}`,
    },
  ]
}

const marksTogether = (survey: Survey): Finding[] =>
  markedLayers(survey).flatMap(({ layer, tracks }): Finding[] => {
    const onsets = tracks.map(onsetOf).filter(onset => onset.stops === null || hasArrived(survey, onset))
    const found = arriveTogether(onsets)
    if (!found) return []
    const parts = tracks.filter(track => found.parts.includes(track.id))
    const later = parts.flatMap((part, i) => {
      const frames = found.later[i] ?? 0
      return frames > 0 ? [`${part.name} ${frames} later`] : []
    })
    return [
      {
        ...about(layer, found.frame, parts),
        severity: 'look',
        figures: { parts: parts.length, of: found.of },
        words: `${parts.length} of ${counted(found.of, 'part')} arrive on frame ${found.frame + 1}: ${names(parts)}. Staggered: ${later.join(', ')}`,
      },
    ]
  })

/** Whether every part glides alike. */
export const alike: Check = {
  words: 'too smooth',
  asks: 'Does every part move in a way of its own?',
  needs: ['marks'],
  view: 'onsets',
  series: speeds,
  inspect: survey =>
    markedLayers(survey).flatMap(({ layer, tracks }): Finding[] => {
      const moving = tracks.filter(track => onsetOf(track).starts !== null)
      if (moving.length < 3 || !glideAlike(moving)) return []
      const frame = Math.min(...moving.map(track => onsetOf(track).starts as number))
      return [
        {
          ...about(layer, frame, moving),
          severity: 'look',
          figures: { parts: moving.length },
          words: `every part glides alike: ${names(moving)}`,
        },
      ]
    }),
}

/** Whether what stops hard gives a little. */
export const weight: Check = {
  words: 'weight',
  asks: 'Does what stops hard give a little?',
  needs: ['marks'],
  view: 'onsets',
  series: speeds,
  inspect: survey =>
    // What has no body, a lid or mist, has no weight.
    markedLayers(survey)
      .filter(({ layer }) => layer.volume !== 'off')
      .flatMap(({ layer, tracks }) =>
        tracks.flatMap((track): Finding[] => {
          const stop = stopOf(heldOn(survey, layer, track))
          if (!stop || !isHardStop(stop) || !hasArrived(survey, onsetOf(track))) return []
          return [
            {
              ...about(layer, stop.frame, [track]),
              severity: 'note',
              figures: { from: stop.from, gives: stop.gives },
              words: `${track.name} stops without weight on frame ${stop.frame + 1}: from ${Math.round(stop.from)} px a frame, and nothing gives`,
            },
          ]
        }),
      ),
}
