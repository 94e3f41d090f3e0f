import { gathers, type Matrix, type Point } from '@unhurried/core/geometry'
import { frameOfNeighbour } from '@unhurried/core/document'
import { computed, ref, shallowRef, type Ref } from 'vue'
import { useDesk } from '../stores/desk.ts'
import { useShot } from '../stores/shot.ts'
import { moveOps, strokeEdit, touchedBy, trimOps } from './edits.ts'
import { paintInked } from './nibs.ts'
import { livePainter, paintTrack, rawSamples, strokeUnderWay, type StrokeUnderWay } from './pen.ts'
import { fitScale, toPaper, type Size } from './view.ts'

const RUB_COLOUR = 'rgba(164, 77, 36, 0.35)'
const LOOP_COLOUR = '#3c6a55'
const NOTHING: ReadonlySet<string> = new Set()

/** The paper under the hand: what pointers do with the tool in use. One stroke at a time; a lost pointer leaves nothing half done. */
export function usePaper(
  live: Ref<HTMLCanvasElement | null>,
  matrix: Ref<Matrix>,
  screen: Ref<Size>,
  density: Ref<number>,
  holding: { pan: Ref<boolean>; roll: Ref<boolean> },
  rollBy: (steps: number) => void,
) {
  const shot = useShot()
  const desk = useDesk()
  const lifted = shallowRef<ReadonlySet<string>>(NOTHING)
  const busy = ref(false)
  let pointer: number | null = null
  let stroke: StrokeUnderWay | null = null
  let paintStroke: ReturnType<typeof livePainter> | null = null
  let track: Point[] = []
  let panFrom: { x: number; y: number; panX: number; panY: number } | null = null
  let rollFrom: number | null = null

  const width = computed(() => desk.width ?? 1)
  const kind = computed(() => (desk.tool === 'shape' ? 'shape' : 'line'))
  const colour = computed(() => desk.colours({ swatch: desk.swatch, label: desk.label }))
  const brush = () => live.value?.getContext('2d') ?? null
  const origin = () => live.value?.getBoundingClientRect() ?? { left: 0, top: 0 }
  /** Screen pixels as paper pixels. */
  const onPaper = (px: number) => {
    const { document } = shot
    return document ? px / (fitScale(screen.value, document.format) * desk.view.zoom) : px
  }

  function wipe(): void {
    const b = brush()
    if (!b) return
    b.setTransform(1, 0, 0, 1, 0, 0)
    b.clearRect(0, 0, b.canvas.width, b.canvas.height)
  }

  function down(event: PointerEvent): void {
    if (pointer !== null || !shot.document) return
    const { left, top } = origin()
    if (holding.pan.value || event.button === 1) {
      panFrom = { x: event.clientX, y: event.clientY, panX: desk.view.panX, panY: desk.view.panY }
    } else if (event.button !== 0 || !desk.mayEdit || desk.tool === 'trace') {
      if (event.button === 0 && shot.mayDraw && !desk.mayEdit)
        shot.notice = 'This layer is locked: unlock it in the layers (O).'
      return
    } else if (desk.tool === 'mark') {
      return placeMark(toPaper(matrix.value, { x: event.clientX - left, y: event.clientY - top }))
    } else if (desk.tool === 'line' || desk.tool === 'shape') {
      begin()
    } else {
      track = [toPaper(matrix.value, { x: event.clientX - left, y: event.clientY - top })]
    }
    pointer = event.pointerId
    busy.value = true
    ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
    event.preventDefault()
    if (!panFrom) move(event)
  }

  function begin(): void {
    const pen = desk.pens[desk.pen]
    const smoothing = kind.value === 'shape' ? desk.shapeSmoothing : pen.smoothing
    stroke = strokeUnderWay(matrix.value, { smoothing, bySpeed: pen.bySpeed, pressure: desk.pressure })
    const look = { kind: kind.value, width: width.value, nib: pen.nib, colour: colour.value } as const
    paintStroke = livePainter(matrix.value, density.value, look)
  }

  /** One click a drawing: the mark is placed, and the next drawing comes up. */
  function placeMark(at: Point): void {
    const { drawing, markId } = desk
    if (!markId) {
      shot.notice = 'Name a mark in the margin first (nose, heel, tail tip …), then click where it lies.'
      return
    }
    if (!drawing || !shot.take) return
    const name = shot.document?.marks[markId]?.name ?? 'mark'
    const place = { x: Math.round(at.x * 10) / 10, y: Math.round(at.y * 10) / 10 }
    if (
      shot.commit(`${name} on ${drawing.number}`, [
        { kind: 'marks.place', drawing: drawing.id, places: { [markId]: place } },
      ])
    )
      return
    const next = frameOfNeighbour(shot.take, desk.layerId, desk.frame, 1)
    if (next !== null) desk.goTo(next)
  }

  function move(event: PointerEvent): void {
    if (holding.roll.value) return roll(event)
    rollFrom = null
    if (event.pointerId !== pointer) return
    if (panFrom) {
      desk.view = {
        ...desk.view,
        panX: panFrom.panX + event.clientX - panFrom.x,
        panY: panFrom.panY + event.clientY - panFrom.y,
      }
      return
    }
    const raws = rawSamples(event, origin())
    const b = brush()
    if (!b) return
    if (stroke) {
      stroke.add(raws)
      paintStroke?.(b, stroke.samples)
      return
    }
    for (const raw of raws) track.push(toPaper(matrix.value, raw))
    follow(b)
  }

  function follow(b: CanvasRenderingContext2D): void {
    const { drawing, tool } = desk
    if (tool === 'gather') {
      const style = { colour: LOOP_COLOUR, width: onPaper(1.4), dash: [onPaper(5), onPaper(4)], close: true }
      return paintTrack(b, matrix.value, density.value, track, style)
    }
    const style = { colour: RUB_COLOUR, width: width.value, dash: [], close: false }
    paintTrack(b, matrix.value, density.value, tool === 'trim' ? track : track.slice(-12), style)
    if (tool === 'rub-out' && drawing) {
      const touched = touchedBy(drawing, shot.book, track.slice(-6), width.value / 2)
      if (touched.some(id => !lifted.value.has(id))) lifted.value = new Set([...lifted.value, ...touched])
    }
  }

  function roll(event: PointerEvent): void {
    rollFrom ??= event.clientX
    rollBy(Math.round((event.clientX - rollFrom) / ROLL_STEP_PX))
  }

  function up(event: PointerEvent): void {
    if (event.pointerId !== pointer) return
    const finish = stroke ? finishStroke : track.length ? finishTrack : null
    finish?.()
    letGo()
  }

  function finishStroke(): void {
    const { document, take } = shot
    if (!stroke || !document || !take) return
    const samples = stroke.finish()
    if (samples.length === 0 || (desk.tool === 'shape' && samples.length < 3)) return
    const { layerId: layer, frame, drawing } = desk
    const where = { document, take, layer, frame, hold: desk.holdHere, drawing }
    const edit = strokeEdit(where, samples, {
      kind: kind.value,
      swatch: desk.swatch,
      width: width.value,
      nib: desk.pens[desk.pen].nib,
      label: desk.label,
    })
    const label = `${kind.value}${drawing ? ` on ${drawing.number}` : ' on a new drawing'}`
    if (!shot.commit(label, edit.ops, { samples: edit.samples }) && edit.frame !== null) desk.frame = edit.frame
  }

  function finishTrack(): void {
    const { drawing, tool } = desk
    if (!drawing) return
    if (tool === 'rub-out' && lifted.value.size) {
      shot.commit(`rub out on ${drawing.number}`, [
        { kind: 'elements.remove', drawing: drawing.id, ids: [...lifted.value] },
      ])
    } else if (tool === 'trim') {
      shot.commit(`trim on ${drawing.number}`, trimOps(drawing, shot.book, track, width.value / 2))
    } else if (tool === 'gather') gather()
  }

  function gather(): void {
    const { drawing } = desk
    if (!drawing) return
    const isTap = track.every(p => Math.hypot(p.x - (track[0] as Point).x, p.y - (track[0] as Point).y) < onPaper(4))
    const ids = isTap
      ? touchedBy(drawing, shot.book, track.slice(0, 1), onPaper(5)).slice(-1)
      : Object.values(drawing.elements)
          .filter(element => {
            const placed = shot.book.placed(element)
            return placed && gathers(track, placed)
          })
          .map(element => element.id)
    desk.gathered = new Set(ids)
  }

  function letGo(): void {
    pointer = null
    stroke = null
    paintStroke = null
    track = []
    panFrom = null
    busy.value = false
    lifted.value = NOTHING
    wipe()
  }

  /** Paints gathered strokes where they are being moved to, while the hand has not let go. */
  function showMoved(by: Matrix | null): void {
    const { drawing } = desk
    wipe()
    if (!by || !drawing) {
      lifted.value = NOTHING
      return
    }
    if (lifted.value !== desk.gathered) lifted.value = desk.gathered
    const b = brush()
    if (!b || !shot.document) return
    const d = density.value
    for (const id of desk.gathered) {
      const element = drawing.elements[id]
      const ink = element && shot.book.ink(element)
      if (!element || !ink) continue
      const [a, c, e, g, h, k] = matrix.value
      b.setTransform(a * d, c * d, e * d, g * d, h * d, k * d)
      b.transform(...by)
      paintInked(b, ink, desk.colours(element))
    }
  }

  function moveGathered(label: string, by: Matrix): void {
    const { drawing } = desk
    showMoved(null)
    if (drawing && desk.mayEdit) shot.commit(`${label} on ${drawing.number}`, moveOps(drawing, desk.gathered, by))
  }

  return {
    down,
    move,
    up,
    cancel: letGo,
    lifted,
    busy,
    showMoved,
    moveGathered,
  }
}

const ROLL_STEP_PX = 48
