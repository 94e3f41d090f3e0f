import {
  chartBetween,
  exposures,
  isAnimated,
  isBlank,
  referenceKey,
  sheetsByNumber,
  type Accepted,
  type Drawing,
  type ShotDocument,
} from '@unhurried/core/document'
import {
  acceptedOf,
  compareVolume,
  crossesOn,
  CHECK_NAMES,
  CHECKS,
  findingsOf,
  inOrder,
  groundsOn,
  plantedMarks,
  readChart,
  thresholdOf,
  type ChartReading,
  type Cross,
  type Found,
  type Ground,
  type Planted,
  type Survey,
} from '@unhurried/core/measure'
import type { Point } from '@unhurried/core/geometry'
import { defineStore } from 'pinia'
import { computed, shallowRef, watch, type Ref } from 'vue'
import { useDelivered } from './delivered.ts'
import { useDesk } from './desk.ts'
import { useSight } from './sight.ts'
import { useLamp } from './lamp.ts'
import type { Shape } from '@unhurried/core/raster'
import { makeShapes } from './shapes.ts'
import { useModels } from './models.ts'
import { useShot } from './shot.ts'

/** What the drawings amount to, measured from their pixels in a worker and kept until a drawing changes. */
export const useMeasure = defineStore('measure', () => {
  const shot = useShot()
  const desk = useDesk()
  const sight = useSight()
  const lamp = useLamp()
  const delivered = useDelivered()
  const models = useModels()
  /** Everything that is drawn on layers that are animated; the layer in hand first. */
  const wanted = computed<Drawing[]>(() => {
    const { document, take } = shot
    if (!document || !take) return []
    const layers = Object.values(document.layers).filter(layer => isAnimated(layer) && layer.id !== desk.layerId)
    const ids = [desk.layerId, ...layers.map(layer => layer.id)].flatMap(layer =>
      exposures(take, layer).map(run => run.drawing as string),
    )
    const seen = [...new Set(ids)].flatMap(id => shot.drawing(id) ?? [])
    return [...seen, ...sheetsAlong(document, seen)]
  })

  /** Where enclosed empty space is marked on a drawing. */
  const spacesOn = (drawing: Drawing): Point[] =>
    Object.entries(drawing.marks).flatMap(([id, { x, y }]) =>
      shot.document?.marks[id]?.kind === 'space' ? [{ x, y }] : [],
    )
  const {
    shapes,
    facts,
    shapeOf: momentsOf,
    broken,
  } = makeShapes({
    drawings: wanted,
    closedGapPx: () => sight.closedGapPx,
    bytes: shot.strokeBytes,
    spacesOn,
    done: () => void look(),
  })

  /** what the checks are asked of: the shot, and the model sheets of its film */
  const about = computed(() => {
    const { document } = shot
    return document ? { document, models: models.all.map(card => card.model) } : null
  })

  /** What the checks find, brought up to date when the hand rests. */
  const found = shallowRef<readonly Found[]>([])
  /** what was measured and asked, for those who want to see more than findings */
  const survey = shallowRef<Survey | null>(null)
  let round = 0
  async function look(): Promise<void> {
    const mine = ++round
    const { take } = shot
    const measured = { shapes: shapes.value, facts: facts.value, delivered: delivered.seen, loop: loop.value }
    const seen = about.value && take ? { ...about.value, take, ...measured } : null
    const all = seen ? await asked(seen, () => mine !== round) : []
    if (!all || mine !== round) return
    ;[survey.value, found.value] = [seen, all]
  }

  /** The frames that are gone round, when the light table goes round them. */
  const loop = computed(() => (lamp.lightTable.wrap ? (shot.take?.loop ?? null) : null))
  watch([loop, () => delivered.seen, () => models.all], () => void look())

  const { meant, open, here } = answers(shot, desk, found)
  const centreOf = (drawing: Drawing | null): Point | null => momentsOf(drawing)?.centroid ?? null

  /** Where a drawing lies: its mark when the chart is read by a part, else the middle of its silhouette. */
  const placeOf = (drawing: Drawing | null): Point | null =>
    desk.part === null ? centreOf(drawing) : (drawing?.marks[desk.part] ?? null)

  /** The chart around the frame, read back along the path through its keys and breakdowns. */
  const reading = computed<ChartReading | null>(() => {
    const { document, take } = shot
    if (!document || !take || !desk.keys) return null
    const { from, to } = desk.keys
    const chart =
      (desk.part !== null && chartBetween(document, from.id, to.id, desk.part)) ||
      chartBetween(document, from.id, to.id)
    return chart ? readChart({ document, take, shapes: shapes.value }, chart, desk.part) : null
  })

  /** Where the marks of the layer belong on the present drawing. */
  const crosses = computed<Cross[]>(() => {
    const { document, take } = shot
    return document && take && desk.drawing ? crossesOn(document, take, desk.drawing) : []
  })

  /** Planted marks of the layer, held against where they were set down; round the loop when the light table goes round it. */
  const planted = computed<Planted[]>(() => {
    const { document, take } = shot
    return document && take ? plantedMarks(document, take, desk.layerId, loop.value) : []
  })

  /** Where planted marks were set down that are planted on the present drawing, or may be next. */
  const grounds = computed<Ground[]>(() => {
    const { document, take } = shot
    return document && take && desk.drawing ? groundsOn(document, take, desk.drawing, desk.frame, planted.value) : []
  })

  const { reference, volumeOf, openAt } = volumes(shot, desk, momentsOf)

  return {
    momentsOf,
    centreOf,
    placeOf,
    reading,
    crosses,
    grounds,
    reference,
    volumeOf,
    openAt,
    found,
    open,
    here,
    meant,
    survey,
    about,
    broken,
  }
})

/** The body of a drawing against that of the layer's first key. */
function volumes(
  shot: ReturnType<typeof useShot>,
  desk: ReturnType<typeof useDesk>,
  momentsOf: (drawing: Drawing | null) => Shape | null,
) {
  const reference = computed(() =>
    shot.document && shot.take ? referenceKey(shot.document, shot.take, desk.layerId) : null,
  )
  const volumeOf = (drawing: Drawing) => {
    const [here, there] = [momentsOf(drawing), momentsOf(reference.value)]
    if (!shot.document || !here || !there || here.open || there.open || isBlank(drawing)) return null
    return compareVolume(here, there, desk.layer?.volume, thresholdOf(shot.document, 'volume'))
  }

  /** Where the outline of a drawing stands open, so that its area means little; null where it is closed, or nothing is asked. */
  const openAt = (drawing: Drawing | null): Point | null =>
    desk.layer?.volume === 'off' || desk.layer?.kind === 'background' ? null : (momentsOf(drawing)?.open ?? null)

  return { reference, volumeOf, openAt }
}

/** What is found and not said to be meant so, and what is. */
function answers(
  shot: ReturnType<typeof useShot>,
  desk: ReturnType<typeof useDesk>,
  found: Readonly<Ref<readonly Found[]>>,
) {
  const meant = computed<ReadonlyMap<Found, Accepted>>(() => {
    const { document } = shot
    if (!document) return new Map()
    return new Map(
      found.value.flatMap(one => {
        const said = acceptedOf(document, one)
        return said ? [[one, said] as const] : []
      }),
    )
  })
  const open = computed(() => found.value.filter(one => !meant.value.has(one)))
  /** what is found on the drawing in the hand */
  const here = computed(() => open.value.filter(({ drawings: [id] }) => id !== undefined && id === desk.drawing?.id))
  return { meant, open, here }
}

/** Sheets that go along with drawings: paint is measured with its lines. */
function sheetsAlong(document: ShotDocument, seen: readonly Drawing[]): Drawing[] {
  const known = new Set(seen)
  const layers = [...new Set(seen.map(({ layer }) => layer))]
  const sheets = new Map(layers.map(layer => [layer, sheetsByNumber(document, layer)]))
  return seen
    .flatMap(({ layer, number }) => sheets.get(layer)?.get(number) ?? [])
    .filter(sheet => !known.has(sheet) && !isBlank(sheet))
}

/** The page waits for no longer than about this while checks are prepared. */
const BREATH_MS = 12

/** What all checks find, each asked when the page has seen to everything else; null when it was called off. */
async function asked(survey: Survey, isOff: () => boolean): Promise<Found[] | null> {
  const found: Found[] = []
  let since = performance.now()
  const rest = async (): Promise<boolean> => {
    await new Promise(done => setTimeout(done))
    since = performance.now()
    return isOff()
  }
  for (const check of CHECK_NAMES) {
    for (const _ of CHECKS[check].prepare?.(survey) ?? []) {
      if (performance.now() - since > BREATH_MS && (await rest())) return null
    }
    found.push(...findingsOf(survey, check))
    if (await rest()) return null
  }
  return inOrder(found)
}
