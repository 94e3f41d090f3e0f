<script setup lang="ts">
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import ChartRail from '../components/ChartRail.vue'
import DeskMargin from '../components/DeskMargin.vue'
import DeskTray from '../components/DeskTray.vue'
import ExposureSheet from '../components/ExposureSheet.vue'
import HistoryPanel from '../components/HistoryPanel.vue'
import KeySheet from '../components/KeySheet.vue'
import LayersPanel from '../components/LayersPanel.vue'
import PaperStage from '../components/PaperStage.vue'
import SheetActsPanel from '../components/SheetActsPanel.vue'
import SheetRoomSide from '../components/SheetRoomSide.vue'
import { ElDialog } from 'element-plus'
import { bitmapShelf } from '../desk/bitmaps.ts'
import { makePlayback } from '../desk/playback.ts'
import { useCommands } from '../keys/commands.ts'
import { useKeys } from '../keys/listen.ts'
import { useDesk } from '../stores/desk.ts'
import { useHabits } from '../stores/habits.ts'
import { useShot } from '../stores/shot.ts'

const shot = useShot()
const desk = useDesk()
const habits = useHabits()
const stage = ref<InstanceType<typeof PaperStage> | null>(null)
const keysShown = ref(false)
const layersShown = ref(false)
const historyShown = ref(false)
const actsShown = ref(false)
const bitmaps = bitmapShelf(shot.book)
const playFrame = shallowRef<number | null>(null)

const playback = makePlayback({
  show: frame => {
    playFrame.value = frame
    stage.value?.paintNow(frame)
  },
})

function togglePlay(): void {
  const { document, take } = shot
  if (!document || !take) return
  if (playback.playing.value) return playback.stop()
  const range = desk.loop
  // One turn is painted before the clock starts, so that no frame is late for being painted the first time.
  stage.value?.prepare(range)
  playback.start(desk.frame, document.format.fps, range, true)
}

watch(playback.playing, playing => {
  if (!playing && playFrame.value !== null) {
    desk.goTo(playFrame.value)
    playFrame.value = null
  }
})
// Whatever changes where one stands ends playing.
watch(
  () => [desk.layerId, desk.tool],
  () => playback.stop(),
)

const commands = useCommands({
  screen: () => stage.value?.screen() ?? { width: 800, height: 500 },
  togglePlay,
  showKeys: () => (keysShown.value = true),
  showLayers: () => (layersShown.value = true),
  showHistory: () => (historyShown.value = true),
  showSheetActs: () => (actsShown.value = true),
  isPlaying: () => playback.playing.value,
})
const showsPaper = computed(() => desk.bare || desk.sheetShape !== 'room')
useKeys(commands.commands)
onBeforeUnmount(playback.stop)
</script>

<template>
  <div
    class="desk"
    :class="[`sheet-${desk.sheetShape}`, { bare: desk.bare, folded: desk.marginFolded, left: habits.leftHanded }]"
  >
    <ExposureSheet v-if="!desk.bare" :commands="commands" :play-frame="playFrame" />
    <SheetRoomSide
      v-if="!desk.bare && desk.sheetShape === 'room'"
      :commands="commands"
      :bitmaps="bitmaps"
      :play-frame="playFrame"
    />
    <ChartRail v-if="showsPaper && !desk.bare" />
    <PaperStage
      v-if="showsPaper"
      ref="stage"
      :bitmaps="bitmaps"
      :commands="commands"
      :playing="playback.playing.value"
      @stop="playback.stop()"
    />
    <DeskTray
      v-if="showsPaper && !desk.bare"
      :commands="commands"
      :bitmaps="bitmaps"
      :playing="playback.playing.value"
      :dropped="playback.report.value.dropped"
      :shown="playback.report.value.shown"
      :play-frame="playFrame"
    />
    <DeskMargin v-if="showsPaper && !desk.bare" :commands="commands" />
    <KeySheet v-model="keysShown" :commands="commands.commands" />
    <LayersPanel v-model="layersShown" />
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

  display: grid;
  grid-template: 86px minmax(0, 1fr) 96px / var(--sheet) minmax(0, 1fr) var(--margin);
  grid-template-areas: 'sheet rail margin' 'sheet paper margin' 'sheet tray margin';
  min-height: 0;
  user-select: none;
}

.desk.folded {
  --margin: 30px;
}

.desk.sheet-strip {
  --sheet: 96px;
}

.desk.sheet-room:not(.bare) {
  grid-template: minmax(0, 1fr) / minmax(0, 1fr) 300px;
  grid-template-areas: 'sheet side';
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
    --margin: 200px;
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
