<script setup lang="ts">
import { counted } from '@unhurried/core/time'
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import ChartRail from './rail/ChartRail.vue'
import DeskAnswer from './panels/DeskAnswer.vue'
import DeskMargin from './margin/DeskMargin.vue'
import DeskTray from './tray/DeskTray.vue'
import ExposureSheet from './sheet/ExposureSheet.vue'
import SheetsPanel from './sheets/SheetsPanel.vue'
import HistoryPanel from './panels/HistoryPanel.vue'
import KeySheet from '../../shared/KeySheet.vue'
import LayersPanel from './panels/LayersPanel.vue'
import PaperStage from './paper/PaperStage.vue'
import SheetActsPanel from './panels/SheetActsPanel.vue'
import SheetRoomSide from './sheet/SheetRoomSide.vue'
import { exposures, keysAround, tapExposures } from '@unhurried/core/document'
import { useMediaQuery } from '@vueuse/core'
import { ElDialog } from 'element-plus'
import { useShelves } from '../../stores/shelves.ts'
import { makePlayback } from '../../paint/playback.ts'
import { useCommands } from './commands.ts'
import { useComeBack } from '../../keys/comeBack.ts'
import { useKeys } from '../../keys/listen.ts'
import { useDesk } from '../../stores/desk.ts'
import { useKit } from '../../stores/kit.ts'
import { useSight } from '../../stores/sight.ts'
import { useAsking } from '../../stores/asking.ts'
import { useFlip } from '../../stores/flip.ts'
import { useHabits } from '../../stores/habits.ts'
import { newId } from '../../local/ids.ts'
import { useShot } from '../../stores/shot.ts'
import { useSound } from '../../stores/sound.ts'

const shot = useShot()
const desk = useDesk()
const kit = useKit()
const sight = useSight()
const habits = useHabits()
const flip = useFlip()
const asking = useAsking()
const sound = useSound()
const stage = ref<InstanceType<typeof PaperStage> | null>(null)
const keysShown = ref(false)
const layersShown = ref(false)
const historyShown = ref(false)

const actsShown = ref(false)
const bitmaps = useShelves().here
const playFrame = shallowRef<number | null>(null)

const playback = makePlayback({
  show: frame => {
    playFrame.value = frame
    stage.value?.paintNow(frame)
  },
})

/** only the newest of what was asked to be played is */
let asked = 0
async function play(from: number): Promise<void> {
  const { document, take } = shot
  if (!document || !take) return
  const mine = ++asked
  const range = desk.loop
  const clock = await sound.play(from, range, flip.speed, true)
  if (mine === asked) playback.start(from, document.format.fps * flip.speed, range, true, clock)
}
function stop(): void {
  asked++
  playback.stop()
  sound.stop()
}
function togglePlay(): void {
  if (playback.playing.value) return stop()
  // One turn is painted before the clock starts, so that no frame is late for being painted the first time.
  stage.value?.prepare(desk.loop)
  void play(desk.frame)
}
/** the frame on which playing ended: one has just heard it */
let endedOn = -1
// Gone over by hand, a frame is heard.
watch(
  () => desk.frame,
  frame => {
    if (!playback.playing.value && frame !== endedOn) void sound.scrub(frame)
    endedOn = -1
  },
)

// What is asked stands on the desk: the dialog it was asked from gives way.
watch(
  () => asking.question,
  question => {
    if (question) actsShown.value = false
  },
)
/** Frames tapped while the film plays. */
let taps: number[] = []
watch(playback.playing, playing => {
  if (!playing) sound.stop()
  if (!playing && playFrame.value !== null) {
    endedOn = playFrame.value
    desk.goTo(playFrame.value)
    playFrame.value = null
  }
  if (!playing && taps.length > 0) askAboutTaps([...new Set(taps)].sort((a, b) => a - b))
  if (!playing) taps = []
})
function askAboutTaps(frames: readonly number[]): void {
  const layer = desk.timedLayer
  const said = counted(frames.length, 'tap')
  asking.ask({
    label: said,
    why: `On ${frames.length > 6 ? `frames ${(frames[0] ?? 0) + 1} to ${(frames.at(-1) ?? 0) + 1}` : frames.map(f => f + 1).join(', ')}.`,
    choices: [
      {
        words: `begin the drawings of ${shot.document?.layers[layer]?.name ?? 'the layer'} there`,
        take: () =>
          asking.act({
            label: `${said} become exposures`,
            attempt: () =>
              shot.document && shot.take
                ? tapExposures(shot.document, shot.take, layer, frames, newId)
                : { ok: true, ops: [] },
          }),
      },
    ],
  })
}
// Another viewing speed goes on from where it is.
watch(
  () => flip.speed,
  () => {
    if (playback.playing.value) void play(playFrame.value ?? desk.frame)
  },
)
onBeforeUnmount(asking.reset)
// Whatever changes where one stands ends playing.
watch(() => [desk.layerId, kit.tool], stop)

const commands = useCommands({
  screen: () => stage.value?.screen() ?? { width: 800, height: 500 },
  togglePlay,
  showKeys: () => (keysShown.value = true),
  showLayers: () => (layersShown.value = true),
  showHistory: () => (historyShown.value = true),
  showSheetActs: () => (actsShown.value = true),
  isPlaying: () => playback.playing.value,
  tap: () => playFrame.value !== null && taps.push(playFrame.value),
})
/** While no layer has two keys, or steps, there is nothing that the rail could say; it does not come and go from layer to layer. */
const hasKeys = computed(() => {
  const { document, take } = shot
  const says = (layer: string) =>
    document && take && (keysAround(document, take, layer, 0) !== null || exposures(take, layer).length > 2)
  return document && take && Object.keys(document.layers).some(says)
})
// Where the margin would leave too little paper it is folded, and lies over the paper when it is unfolded.
watch(useMediaQuery('(width < 900px)'), narrow => narrow && (sight.marginFolded = true), { immediate: true })
const showsPaper = computed(() => sight.bare || sight.sheetShape !== 'room')
useKeys(commands.commands)
useComeBack()
onBeforeUnmount(stop)
</script>

<template>
  <div
    class="desk"
    :class="[
      `sheet-${sight.sheetShape}`,
      { bare: sight.bare, folded: sight.marginFolded, left: habits.leftHanded, 'no-keys': !hasKeys },
    ]"
  >
    <ExposureSheet v-if="!sight.bare" :commands="commands" :play-frame="playFrame" />
    <SheetRoomSide
      v-if="!sight.bare && sight.sheetShape === 'room'"
      :commands="commands"
      :bitmaps="bitmaps"
      :play-frame="playFrame"
    />
    <ChartRail v-if="showsPaper && !sight.bare" />
    <PaperStage
      v-if="showsPaper"
      ref="stage"
      :bitmaps="bitmaps"
      :commands="commands"
      :playing="playback.playing.value"
      @stop="stop"
    />
    <DeskTray
      v-if="showsPaper && !sight.bare"
      :commands="commands"
      :bitmaps="bitmaps"
      :playing="playback.playing.value"
      :dropped="playback.report.value.dropped"
      :shown="playback.report.value.shown"
      :play-frame="playFrame"
    />
    <DeskMargin v-if="showsPaper && !sight.bare" :commands="commands" />
    <DeskAnswer v-if="!sight.bare" class="answers" data-over-paper />
    <KeySheet v-model="keysShown" :commands="commands.commands" />
    <LayersPanel v-model="layersShown" />
    <SheetsPanel />
    <HistoryPanel v-model="historyShown" :bitmaps="bitmaps" />
    <ElDialog v-model="actsShown" title="Marked frames" width="700px" align-center append-to-body destroy-on-close>
      <SheetActsPanel :commands="commands" wide />
    </ElDialog>
  </div>
</template>

<style scoped>
.desk {
  --sheet: 178px;
  --margin: 222px;
  --rail: 86px;

  display: grid;
  grid-template: var(--rail) minmax(0, 1fr) 96px / var(--sheet) minmax(0, 1fr) var(--margin);
  grid-template-areas: 'sheet rail margin' 'sheet paper margin' 'sheet tray margin';
  min-height: 0;
  user-select: none;
}

.desk.folded {
  --margin: 30px;
}

.desk.no-keys {
  --rail: 32px;
}

.desk.sheet-strip {
  --sheet: 96px;
}

.desk.sheet-room:not(.bare) {
  grid-template: minmax(0, 1fr) / minmax(0, 1fr) 300px;
  grid-template-areas: 'sheet side';
}

.answers {
  grid-area: paper;
  align-self: start;
  justify-self: start;
}

.desk.sheet-room:not(.bare) .answers {
  grid-area: sheet;
  align-self: end;
}

/* Everything the other way round for those who draw with the left hand. */
.desk.left {
  grid-template-columns: var(--margin) minmax(0, 1fr) var(--sheet);
  grid-template-areas: 'margin rail sheet' 'margin paper sheet' 'margin tray sheet';
}

.desk.left.sheet-room:not(.bare) {
  grid-template: minmax(0, 1fr) / 300px minmax(0, 1fr);
  grid-template-areas: 'side sheet';
}

.desk.left :deep(.sheet) {
  border-width: 0 0 0 1px;
  border-left: 1px solid var(--rule);
}

.desk.left :deep(.twins) {
  right: 10px;
  left: auto;
}

.desk.left :deep(.loop-beside) {
  right: auto;
  left: 12px;
}

.desk.left :deep(.margin) {
  border-width: 0 1px 0 0;
  border-right: 1px solid var(--rule);
}

.desk.left :deep(.tray),
.desk.left :deep(.tray .settings) {
  flex-direction: row-reverse;
}

.desk.left :deep(.tray > .fan) {
  margin: 0 auto 0 0;
}

.desk.left :deep(.tray > .tools),
.desk.left :deep(.tray > .palette) {
  border-width: 0 0 0 1px;
  border-left: 1px solid var(--rule);
  padding: 0 0 0 8px;
}

.desk.left :deep(.in-force) {
  right: auto;
  left: 14px;
}

.desk.left :deep(.flipped) {
  left: auto;
  right: 22px;
}

.desk.bare {
  grid-template: minmax(0, 1fr) / minmax(0, 1fr);
  grid-template-areas: 'paper';
}

@media (width < 1100px) {
  .desk:not(.sheet-strip) {
    --sheet: 158px;
  }

  .desk:not(.folded) {
    --margin: 212px;
  }
}

/* Upright, or at twice the size: the margin lies over the paper while it is needed. */
@media (width < 900px) {
  .desk {
    position: relative;
  }

  .desk:not(.folded) {
    --margin: 30px;
  }

  .desk:not(.folded) :deep(.margin) {
    position: absolute;
    inset: 0 0 0 auto;
    z-index: 4;
    width: 232px;
    box-shadow: -6px 0 18px rgb(90 74 48 / 16%);
  }

  .desk.left:not(.folded) :deep(.margin) {
    inset: 0 auto 0 0;
  }
}

@media (width >= 1600px) {
  .desk:not(.sheet-strip) {
    --sheet: 210px;
  }

  .desk:not(.folded) {
    --margin: 270px;
  }
}
</style>
