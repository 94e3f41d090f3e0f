<script setup lang="ts">
import { find, takesInOrder, type Take } from '@unhurried/core/document'
import { secondsLabel } from '@unhurried/core/time'
import { PHONE_WIDTH_SCREEN_PX } from '@unhurried/core/work'
import { useElementSize } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import FlipTake from './FlipTake.vue'
import FlipTray from './FlipTray.vue'
import InForceNote from '../../shared/InForceNote.vue'
import KeySheet from '../../shared/KeySheet.vue'
import StandWindows from '../../stands/StandWindows.vue'
import TakesNote from '../../shared/TakesNote.vue'
import { makePlayback } from '../../paint/playback.ts'
import { useFlipCommands } from './commands.ts'
import { frameOfStep, stepOf, stretchOf, turnOf, type Seeing } from '../../shared/frames.ts'
import { useKeys } from '../../keys/listen.ts'
import { useShelves } from '../../stores/shelves.ts'
import { useDesk } from '../../stores/desk.ts'
import { useSight } from '../../stores/sight.ts'
import { useFlip } from '../../stores/flip.ts'
import { useShot } from '../../stores/shot.ts'
import { useSound } from '../../stores/sound.ts'
import { useStands } from '../../stores/stands.ts'

const MOST_TAKES = 4

const shot = useShot()
const desk = useDesk()
const sight = useSight()
const flip = useFlip()
const sound = useSound()
const stands = useStands()
const bitmaps = useShelves().remote
const keysShown = ref(false)
const stage = ref<HTMLElement | null>(null)
const { width, height } = useElementSize(stage)

const all = computed(() => (shot.document ? takesInOrder(shot.document) : []))
const seen = computed<Take[]>(() => {
  const chosen = all.value.filter(take => flip.takes.includes(take.id))
  return chosen.length ? chosen.slice(0, MOST_TAKES) : shot.take ? [shot.take] : []
})
/** Passes that were left, each with the sheets of its layer; those ticked are seen beside the takes. */
const passes = computed(() =>
  Object.values(shot.document?.layers ?? {}).filter(layer => layer.left !== null && layer.follows === null),
)
const pictures = computed(() => [
  ...seen.value.map(take => ({ key: take.id, take, pass: null })),
  ...passes.value
    .filter(layer => flip.passes.includes(layer.id))
    .slice(0, MOST_TAKES - seen.value.length)
    .flatMap(pass => (shot.take ? [{ key: pass.id, take: shot.take, pass }] : [])),
])
function togglePass(id: string): void {
  flip.passes = flip.passes.includes(id) ? flip.passes.filter(other => other !== id) : [...flip.passes, id]
}
const fps = computed(() => shot.document?.format.fps ?? 24)
const turn = computed(() => turnOf(seen.value))

const seeing = computed<Seeing>(() => ({
  only: flip.only,
  layer: flip.oneLayer ? desk.layerId : null,
  silhouettes: flip.silhouettes,
  hidden: new Set(Object.keys(sight.looks).filter(id => sight.looks[id]?.hidden)),
}))

/** Side by side as large as the room allows; one, two beside each other, or four in two rows. */
const pictureWidth = computed(() => {
  const format = shot.document?.format
  if (!format) return 0
  if (flip.size === 'phone') return PHONE_WIDTH_SCREEN_PX
  if (flip.size === 'full') return format.width
  const n = pictures.value.length
  const ratio = format.width / format.height
  const best = [1, 2, 3, 4].map(columns => {
    const rows = Math.ceil(n / columns)
    const w = (width.value - 40 - 24 * (Math.min(columns, n) - 1)) / Math.min(columns, n)
    const h = (height.value - 24) / rows - 62
    return Math.max(40, Math.min(w, h * ratio))
  })
  return Math.floor(Math.max(...best))
})

const views = ref<InstanceType<typeof FlipTake>[]>([])
const step = shallowRef<number | null>(null)
const playback = makePlayback({
  show(due) {
    const next = stepOf(due, turn.value, flip.thereAndBack)
    step.value = next
    for (const view of views.value) view.paintStep(next)
  },
})
/** Where one stands, as a step of the current take's stretch. */
const still = computed(() => {
  const { from, to } = shot.take ? stretchOf(shot.take) : { from: 0, to: 1 }
  return Math.max(0, Math.min(to - from - 1, desk.frame - from))
})
const shownStep = computed(() => step.value ?? still.value)

const period = computed(() => (flip.thereAndBack && turn.value > 2 ? 2 * turn.value - 2 : turn.value))
/** only the newest of what was asked to be played is */
let asked = 0
async function play(): Promise<void> {
  const mine = ++asked
  const from = Math.min(shownStep.value, period.value - 1)
  const { from: first } = shot.take ? stretchOf(shot.take) : { from: 0 }
  // There and back nothing is said backwards.
  const clock = flip.thereAndBack
    ? undefined
    : await sound.play(first + from, { from: first, to: first + period.value }, flip.speed, true)
  if (flip.thereAndBack) sound.stop()
  if (mine === asked) playback.start(from, fps.value * flip.speed, { from: 0, to: period.value }, true, clock)
}
function stop(): void {
  asked++
  playback.stop()
  sound.stop()
}
function togglePlay(): void {
  if (playback.playing.value) stop()
  else void play()
}
watch(playback.playing, playing => {
  if (!playing) sound.stop()
  if (!playing && step.value !== null && shot.take) {
    desk.goTo(frameOfStep(shot.take, step.value))
    step.value = null
  }
})
// Another speed or another way round goes on from where it is.
watch([() => flip.speed, () => flip.thereAndBack, turn], () => playback.playing.value && void play())

function goBy(by: number): void {
  if (shot.take) go(desk.frame + by)
}
/** Gone over by hand, a frame is heard. */
function go(frame: number): void {
  stop()
  desk.goTo(frame)
  void sound.scrub(desk.frame)
}

function toggleTake(take: Take): void {
  const ids = seen.value.map(t => t.id)
  if (ids.includes(take.id)) flip.takes = ids.length > 1 ? ids.filter(id => id !== take.id) : ids
  else flip.takes = [...ids, take.id].slice(-MOST_TAKES)
}

const commands = useFlipCommands({ togglePlay, goBy, showKeys: () => (keysShown.value = true) })
useKeys(commands.commands)
onBeforeUnmount(stop)
const clock = computed(() => {
  const frame = shot.take ? frameOfStep(shot.take, shownStep.value) : 0
  return `${frame + 1} · ${secondsLabel(frame, fps.value)}`
})
const layerName = computed(() => (shot.document && find(shot.document.layers, desk.layerId)?.name) ?? '')
</script>

<template>
  <div class="flip" :class="{ bare: flip.bare }">
    <aside v-if="!flip.bare" class="side" aria-label="What is seen">
      <TakesNote />
      <section v-if="all.length > 1" aria-label="Side by side">
        <h3>side by side</h3>
        <label v-for="take in all" :key="take.id" class="pick">
          <input
            type="checkbox"
            :checked="seen.some(t => t.id === take.id)"
            :disabled="seen.length === 1 && seen[0]?.id === take.id"
            @change="toggleTake(take)"
          />
          {{ take.name }}
        </label>
        <label class="pick"> <input v-model="flip.each" type="checkbox" /> each goes round on its own </label>
        <p class="soft small">
          Up to four. They begin together;
          {{ flip.each ? 'each loops as long as it is.' : 'a shorter one waits on its last frame.' }}
        </p>
      </section>
      <p v-else class="soft small">
        A take is the same drawings under another timing. Copy this one, retime the copy on the desk, and judge the two
        side by side here.
      </p>
      <section v-if="passes.length" aria-label="Passes">
        <h3>passes that were left</h3>
        <label v-for="pass in passes" :key="pass.id" class="pick" :title="pass.left?.why">
          <input type="checkbox" :checked="flip.passes.includes(pass.id)" @change="togglePass(pass.id)" />
          {{ pass.name }}
        </label>
      </section>
      <InForceNote />
    </aside>
    <main ref="stage" class="stage" :class="flip.size" aria-label="Takes">
      <FlipTake
        v-for="picture in pictures"
        ref="views"
        :key="picture.key"
        :style="{ filter: stands.filter }"
        :take="picture.take"
        :pass="picture.pass"
        :step="shownStep"
        :width="pictureWidth"
        :bitmaps="bitmaps"
        :seeing="seeing"
        :looks="sight.looks"
        :bare="flip.bare"
      />
      <StandWindows v-if="shot.take && !flip.bare" :frame="frameOfStep(shot.take, shownStep)" />
    </main>
    <FlipTray
      v-if="!flip.bare"
      :commands="commands"
      :playing="playback.playing.value"
      :dropped="playback.report.value.dropped"
      :shown="playback.report.value.shown"
      :clock="clock"
      :layer="layerName"
      :step="shownStep"
      :turn="turn"
      :from="shot.take ? stretchOf(shot.take).from : 0"
      @step="s => shot.take && go(frameOfStep(shot.take, s))"
    />
    <button
      v-if="flip.bare"
      class="plain controls"
      :title="commands.tip('bare', 'Show the controls')"
      @click="flip.bare = false"
    >
      show the controls
    </button>
    <KeySheet v-model="keysShown" :commands="commands.commands" />
  </div>
</template>

<style scoped>
.flip {
  display: grid;
  grid-template: minmax(0, 1fr) minmax(96px, auto) / 250px minmax(0, 1fr);
  grid-template-areas: 'side stage' 'side tray';
  min-height: 0;
}

@media (width <= 900px) {
  .flip {
    grid-template-columns: 240px minmax(0, 1fr);
    grid-template-areas: 'side stage' 'tray tray';
  }
}

.flip.bare {
  grid-template: minmax(0, 1fr) / minmax(0, 1fr);
  grid-template-areas: 'stage';
}

.side {
  grid-area: side;
  display: flex;
  flex-direction: column;
  gap: 12px;
  padding: 14px 16px;
  background: var(--edge);
  border-right: 1px solid var(--rule);
  overflow: hidden auto;
}

h3 {
  font: 500 14px var(--serif);
  color: var(--soft);
  margin-bottom: 3px;
}

.pick {
  display: flex;
  gap: 7px;
  padding: 2px 0;
  font-size: 13px;
}

.pick input {
  accent-color: var(--green);
}

.small {
  font-size: 12.5px;
  margin-top: 4px;
}

.controls {
  position: fixed;
  right: 16px;
  bottom: 12px;
  color: var(--soft);
}

.stage {
  grid-area: stage;
  position: relative;
  display: flex;
  flex-wrap: wrap;
  gap: 12px 24px;
  align-content: safe center;
  justify-content: safe center;
  padding: 12px 20px;
  overflow: auto;
  min-width: 0;
}
</style>
