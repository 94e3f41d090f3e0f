<script setup lang="ts">
import { onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import ChartRail from '../components/ChartRail.vue'
import DeskMargin from '../components/DeskMargin.vue'
import DeskTray from '../components/DeskTray.vue'
import ExposureSheet from '../components/ExposureSheet.vue'
import KeySheet from '../components/KeySheet.vue'
import PaperStage from '../components/PaperStage.vue'
import { bitmapShelf } from '../desk/bitmaps.ts'
import { makePlayback } from '../desk/playback.ts'
import { useCommands } from '../keys/commands.ts'
import { useKeys } from '../keys/listen.ts'
import { useDesk } from '../stores/desk.ts'
import { useShot } from '../stores/shot.ts'

const shot = useShot()
const desk = useDesk()
const stage = ref<InstanceType<typeof PaperStage> | null>(null)
const keysShown = ref(false)
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
  isPlaying: () => playback.playing.value,
})
useKeys(commands.commands)
onBeforeUnmount(playback.stop)
</script>

<template>
  <div class="desk" :class="{ bare: desk.bare, folded: desk.marginFolded }">
    <ExposureSheet v-if="!desk.bare" :commands="commands" :play-frame="playFrame" />
    <ChartRail v-if="!desk.bare" />
    <PaperStage
      ref="stage"
      :bitmaps="bitmaps"
      :commands="commands"
      :playing="playback.playing.value"
      @stop="playback.stop()"
    />
    <DeskTray
      v-if="!desk.bare"
      :commands="commands"
      :bitmaps="bitmaps"
      :playing="playback.playing.value"
      :dropped="playback.report.value.dropped"
      :shown="playback.report.value.shown"
      :play-frame="playFrame"
    />
    <DeskMargin v-if="!desk.bare" :commands="commands" />
    <KeySheet v-model="keysShown" :commands="commands.commands" />
  </div>
</template>

<style scoped>
.desk {
  display: grid;
  grid-template: 86px minmax(0, 1fr) 96px / 178px minmax(0, 1fr) 222px;
  grid-template-areas: 'sheet rail margin' 'sheet paper margin' 'sheet tray margin';
  min-height: 0;
}

.desk.folded {
  grid-template-columns: 178px minmax(0, 1fr) 30px;
}

.desk.bare {
  grid-template: minmax(0, 1fr) / minmax(0, 1fr);
  grid-template-areas: 'paper';
}

@media (width < 1100px) {
  .desk:not(.bare, .folded) {
    grid-template-columns: 158px minmax(0, 1fr) 200px;
  }
}

@media (width >= 1600px) {
  .desk:not(.bare, .folded) {
    grid-template-columns: 210px minmax(0, 1fr) 270px;
  }
}
</style>
