<script setup lang="ts">
import { columnOf, find, type Drawing } from '@unhurried/core/document'
import { after, type Matrix } from '@unhurried/core/geometry'
import { drawingAt, type LoopRange } from '@unhurried/core/time'
import { useDevicePixelRatio, useElementSize } from '@vueuse/core'
import { computed, onMounted, ref, shallowRef, toRef, watch } from 'vue'
import { paintAids } from '../../../paint/aids.ts'
import { drawnIn, type BitmapShelf } from '../../../paint/bitmaps.ts'
import { paintConstructions } from '../../../paint/construction.ts'
import { paintGuides } from '../../../paint/guides.ts'
import { partNames } from '../../../paint/partNames.ts'
import { droppedFiles } from '../../../pictures/dropped.ts'
import { sceneGhosts } from './sceneGhosts.ts'
import { fitCanvas, makeStage, type Scene, type Stage } from '../../../paint/stage.ts'
import { usePaper } from './usePaper.ts'
import { useSigns } from './useSigns.ts'
import { fitScale, paperToScreen, turnedBy, zoomedAt } from '../../../paint/view.ts'
import type { Commands } from '../commands.ts'
import { isSomethingOpen } from '../../../keys/comeBack.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useKit } from '../../../stores/kit.ts'
import { useSight } from '../../../stores/sight.ts'
import { useCarried } from '../../../stores/carried.ts'
import { useClips } from '../../../stores/clips.ts'
import { useGuides } from '../../../stores/guides.ts'
import { useLamp } from '../../../stores/lamp.ts'
import { useMeasure } from '../../../stores/measure.ts'
import { useShot } from '../../../stores/shot.ts'
import { useStands } from '../../../stores/stands.ts'
import AidHandles from './AidHandles.vue'
import { useHands } from '../../../stores/hands.ts'
import FollowedPaper from './FollowedPaper.vue'
import GatheredBox from './GatheredBox.vue'
import GuideHandles from './GuideHandles.vue'
import HandTwins from './HandTwins.vue'
import InForceNote from '../../../shared/InForceNote.vue'
import LoopBeside from './LoopBeside.vue'
import ModelOver from './ModelOver.vue'
import StandWindows from '../../../stands/StandWindows.vue'
import PictureCut from './PictureCut.vue'
import PathHandles from './PathHandles.vue'
import PaperWords from './PaperWords.vue'
import RemarksPaper from './RemarksPaper.vue'
import TraceBox from './TraceBox.vue'

const props = defineProps<{ bitmaps: BitmapShelf; commands: Commands; playing: boolean }>()
const emit = defineEmits<{ stop: [] }>()
const shot = useShot()
const desk = useDesk()
const kit = useKit()
const sight = useSight()
const lamp = useLamp()
const hands = useHands()
const measure = useMeasure()
const laid = useGuides()
const carried = useCarried()
const clips = useClips()
const stands = useStands()
/** the frame that is played */
const played = ref(0)

const room = ref<HTMLElement | null>(null)
const [ground, table, present, live, guides] = Array.from({ length: 5 }, () => ref<HTMLCanvasElement | null>(null))
const { width, height } = useElementSize(room)
const { pixelRatio } = useDevicePixelRatio()
const screen = computed(() => ({ width: width.value, height: height.value }))
const format = computed(() => shot.document?.format ?? { width: 1280, height: 720 })
const matrix = computed(() => paperToScreen(sight.view, screen.value, format.value))
/** the layer in the hand may move: what is drawn on it goes where it lies */
const onLayer = computed(() => (carried.hand ? after(carried.hand, matrix.value) : matrix.value))
const stage = shallowRef<Stage | null>(null)
const paper = usePaper(live!, onLayer, screen, toRef(pixelRatio), props.commands.holding, props.commands.rollBy)

const ghosts = computed(() => sceneGhosts(lamp.shownThrough, shot.drawing, lamp.lightTable))
const NO_ONE: ReadonlySet<string> = new Set()
const NO_SHIFTS: ReadonlyMap<string, Matrix> = new Map()

/** Until the pointer says where, the wipe stands in the middle. */
const wiped = computed(() => {
  const other = shot.drawing(sight.wiped?.drawing ?? null)
  if (!other || !sight.wiped) return null
  return { drawing: other, x: sight.wiped.x < 0 ? width.value / 2 : sight.wiped.x }
})

function sceneAt(frame: number, playing: boolean): Scene | null {
  const { document } = shot
  const { take } = carried
  if (!document || !take) return null
  return {
    document,
    take,
    frame,
    layer: desk.layerId,
    under: clips.under(frame, playing).map(
      ({
        bitmap,
        clip: {
          matrix: [a, b, c, d, e, f],
          widthPx,
          heightPx,
          wash,
        },
      }) => {
        // Kept smaller than they are, they lie as large as they are.
        const [across, down] = [widthPx / bitmap.width, heightPx / bitmap.height]
        return { bitmap, matrix: [a * across, b * across, c * down, d * down, e, f] as const, wash }
      },
    ),
    instead: playing ? null : shot.drawing(sight.flippedTo),
    ghosts: playing ? [] : ghosts.value,
    shifts: playing ? NO_SHIFTS : lamp.shifts,
    looks: sight.seenLooks,
    silhouettes: sight.silhouettes,
    wiped: playing ? null : wiped.value,
    colours: sight.colours,
    lifted: playing ? NO_ONE : paper.lifted.value,
  }
}

function paintScene(scene: Scene | null): void {
  if (!scene || !stage.value || width.value === 0) return
  stage.value.paint(scene, matrix.value, pixelRatio.value, screen.value)
  if (live?.value) fitCanvas(live.value, screen.value, pixelRatio.value)
}

/** Files that are held over the paper. */
const over = ref(false)
const hasFiles = (event: DragEvent): boolean => event.dataTransfer?.types.includes('Files') ?? false
/** Whether a pointer that left a part of the paper is over another part of it. */
const isWithin = ({ currentTarget, relatedTarget }: DragEvent): boolean =>
  over.value && relatedTarget instanceof Node && (currentTarget as Element).contains(relatedTarget)
function drop(event: DragEvent): void {
  over.value = false
  if (!hasFiles(event)) return
  event.preventDefault()
  // Folders are opened: what is in them comes as a sequence.
  void droppedFiles(event.dataTransfer).then(files => props.commands.bring(files))
}

const signs = useSigns(() => props.playing)

function paintMarks(): void {
  const canvas = guides?.value
  if (!canvas || !shot.document) return
  fitCanvas(canvas, screen.value, pixelRatio.value)
  const showsWay = !props.playing && !sight.flippedTo && lamp.lightTable.on
  paintGuides(canvas, onLayer.value, pixelRatio.value, {
    way: showsWay ? (measure.reading?.path?.points ?? []) : [],
    marks: showsWay ? signs.marks.value : [],
    open: props.playing ? null : measure.openAt(desk.drawing),
    middle: showsWay && measure.reading ? measure.placeOf(desk.drawing) : null,
    signs: signs.signs.value,
    parts: laid.named && !props.playing && !sight.flippedTo ? partNames(matrix.value, laid.here) : [],
    grounds: props.playing || sight.flippedTo ? [] : measure.grounds,
    numbers: signs.numbers.value,
    correction: showsWay ? signs.correction.value : null,
    found: signs.found.value,
  })
  if (!props.playing) {
    if (!sight.flippedTo) paintConstructions(canvas, matrix.value, pixelRatio.value, shot.document.format, laid.here)
    paintAids(canvas, matrix.value, pixelRatio.value, shot.document.format, sight.aids, signs.everything.value)
  }
}

/** While it plays, constructions move along at the shot's rate. */
function moveGuides(frame: number): void {
  const canvas = guides?.value
  if (!canvas || !shot.document || laid.all.length === 0) return
  canvas.getContext('2d')?.reset()
  paintConstructions(canvas, matrix.value, pixelRatio.value, shot.document.format, laid.seenOn(frame), false)
}

let asked = 0
function askToPaint(): void {
  if (asked) return
  asked = requestAnimationFrame(() => {
    asked = 0
    if (!props.playing) paintScene(sceneAt(desk.frame, false))
    paintMarks()
  })
}

onMounted(() => {
  if (ground?.value && table?.value && present?.value) {
    stage.value = makeStage({ ground: ground.value, table: table.value, present: present.value }, props.bitmaps)
  }
  askToPaint()
})
watch(
  () => [
    shot.document,
    desk.frame,
    desk.layerId,
    sight.flippedTo,
    ghosts.value,
    paper.lifted.value,
    onLayer.value,
    matrix.value,
    carried.take,
    clips.come,
    clips.away,
    screen.value,
    props.playing,
    signs.marks.value,
    signs.signs.value,
    measure.grounds,
    signs.numbers.value,
    sight.aids,
    signs.everything.value,
    signs.correction.value,
    signs.found.value,
    lamp.shifts,
    sight.seenLooks,
    sight.silhouettes,
    wiped.value,
    sight.colours,
    measure.momentsOf(desk.drawing),
    props.bitmaps.painted.value,
    laid.here,
    laid.named,
  ],
  askToPaint,
)

defineExpose({
  screen: () => screen.value,
  paintNow(frame: number) {
    played.value = frame
    paintScene(sceneAt(frame, true))
    moveGuides(frame)
  },
  /** Paints every drawing of a stretch once, so that playing finds them ready. */
  prepare(range: LoopRange) {
    const { document, take } = shot
    if (!document || !take) return
    const seen = new Set<Drawing>()
    const scale = fitScale(screen.value, format.value) * sight.view.zoom * pixelRatio.value
    const brush = new OffscreenCanvas(1, 1).getContext('2d')
    for (const layer of Object.keys(document.layers)) {
      for (let f = range.from; f < range.to; f++) {
        const id = drawingAt(columnOf(take, layer), f)
        const drawing = id === null ? undefined : find(document.drawings, id)
        if (drawing && brush && !seen.has(drawing)) props.bitmaps.draw(brush, drawing, drawnIn(sight.colours), scale)
        if (drawing) seen.add(drawing)
      }
    }
  },
})

function down(event: PointerEvent): void {
  // A press outside what is open only closes it.
  if (isSomethingOpen()) return
  if (props.playing) emit('stop')
  ;(document.activeElement as HTMLElement | null)?.blur()
  paper.down(event)
}

function wheel(event: WheelEvent): void {
  const box = room.value?.getBoundingClientRect()
  if (!box) return
  const at = { x: event.clientX - box.left, y: event.clientY - box.top }
  if (event.shiftKey) sight.view = turnedBy(sight.view, Math.sign(event.deltaY || event.deltaX) * 0.05)
  else sight.view = zoomedAt(sight.view, Math.exp(-event.deltaY * 0.0015), at, screen.value)
}

const cursor = computed(() => {
  if (props.commands.holding.pan.value) return 'grab'
  if (!desk.mayEdit) return 'not-allowed'
  return 'crosshair'
})
</script>

<template>
  <main
    ref="room"
    class="paper"
    :class="{ taking: over }"
    aria-label="Paper"
    @dragenter="over = hasFiles($event)"
    @dragover="hasFiles($event) && $event.preventDefault()"
    @dragleave="over = isWithin($event)"
    @drop="drop"
  >
    <canvas ref="ground" :style="{ filter: stands.filter }" aria-hidden="true" />
    <canvas ref="table" :style="{ filter: stands.filter }" aria-hidden="true" />
    <canvas ref="present" :style="{ filter: stands.filter }" aria-hidden="true" />
    <canvas
      ref="live"
      class="live"
      data-testid="paper"
      :style="{ cursor, filter: stands.filter }"
      aria-label="Draw here with pen or mouse"
      @pointerdown="down"
      @pointermove="paper.move"
      @pointerup="paper.up"
      @pointercancel="paper.cancel"
      @pointerleave="paper.leave"
      @lostpointercapture="paper.cancel"
      @wheel.prevent="wheel"
      @contextmenu.prevent
    />
    <div v-if="sight.dim > 0" class="dimmed" :style="{ opacity: sight.dim }" aria-hidden="true" />
    <canvas ref="guides" class="guides" aria-hidden="true" />
    <PictureCut
      v-if="kit.cutting && kit.gathered.size === 1 && !playing"
      :matrix="onLayer"
      :strokes="commands.strokes"
    />
    <GatheredBox
      v-else-if="kit.gathered.size && !playing"
      :matrix="onLayer"
      :strokes="commands.strokes"
      @show="paper.showMoved"
    />
    <TraceBox v-if="kit.tool === 'trace' && !playing" :matrix="matrix" />
    <AidHandles v-if="!playing" :matrix="matrix" />
    <GuideHandles v-if="!playing" :matrix="onLayer" />
    <FollowedPaper v-if="!playing" :matrix="matrix" />
    <RemarksPaper v-if="!playing" :matrix="matrix" />
    <ModelOver v-if="stands.over" :matrix="matrix" />
    <PathHandles v-if="!playing" :matrix="matrix" />
    <StandWindows :frame="playing ? played : desk.frame" />
    <InForceNote class="in-force" data-over-paper />
    <LoopBeside v-if="sight.beside.on && !playing" class="loop-beside" data-over-paper :busy="paper.busy.value" />
    <HandTwins v-if="hands.onScreen" class="twins" :commands="commands" />
    <PaperWords :commands="commands" :playing="playing" :busy="paper.busy.value" :said="paper.said.value" />
  </main>
</template>

<style scoped>
.paper.taking::after {
  content: 'let go to bring it in';
  position: absolute;
  inset: 10px;
  display: grid;
  place-items: center;
  border: 2px dashed var(--green);
  border-radius: 10px;
  background: color-mix(in srgb, var(--desk) 55%, transparent);
  font: 500 17px var(--serif);
  color: var(--green);
  pointer-events: none;
}

.paper {
  grid-area: paper;
  position: relative;
  overflow: hidden;
  background: var(--desk);
  min-width: 0;
  min-height: 0;
}

canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}

canvas:not(.live) {
  pointer-events: none;
}

.live {
  touch-action: none;
}

.loop-beside {
  position: absolute;
  right: 12px;
  bottom: 12px;
}

.twins {
  position: absolute;
  left: 10px;
  bottom: 10px;
}

.dimmed {
  position: absolute;
  inset: 0;
  background: #16140f;
  pointer-events: none;
}

.in-force {
  position: absolute;
  right: 14px;
  top: 10px;
}
</style>
