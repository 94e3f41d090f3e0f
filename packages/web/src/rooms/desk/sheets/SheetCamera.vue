<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { ElButton } from 'element-plus'
import NumberField from '../../../shared/NumberField.vue'
import { paintStandIn, STAND_IN } from '../../../sheets/standIn.ts'
import type { Sheet } from './useSheets.ts'

/**
 * Sheets taken one by one from above, with the last one showing through. Where there is no camera, a stand-in is: sheets of the sample world under a lamp, each a little
 * turned.
 */
const props = defineProps<{
  last: Sheet | null
  /** the name of the photograph that is taken again; null when the next one is */
  again: string | null
  count: number
  /** the number on the sheet that is taken next */
  number: number
  taken: (photo: Blob) => Promise<void>
}>()
const emit = defineEmits<{ number: [number: number] }>()
const video = ref<HTMLVideoElement | null>(null)
const standIn = ref<HTMLCanvasElement | null>(null)
const through = ref<HTMLCanvasElement | null>(null)
const share = ref(0.4)
const state = ref<'asking' | 'camera' | 'stand-in'>('asking')
const page = ref(0)
const busy = ref(false)
let stream: MediaStream | null = null
let isGone = false

onMounted(async () => {
  try {
    stream = await navigator.mediaDevices.getUserMedia({ video: { width: { ideal: 1920 }, facingMode: 'environment' } })
    if (isGone) return stop()
    state.value = 'camera'
    if (video.value) video.value.srcObject = stream
  } catch {
    state.value = 'stand-in'
    turn(props.count % STAND_IN.sheets)
  }
  paintLast()
})
onBeforeUnmount(stop)
function stop(): void {
  isGone = true
  for (const track of stream?.getTracks() ?? []) track.stop()
}

function turn(to: number): void {
  page.value = (to + STAND_IN.sheets) % STAND_IN.sheets
  requestAnimationFrame(() => {
    const brush = standIn.value?.getContext('2d', { willReadFrequently: true })
    if (brush) paintStandIn(brush, page.value)
  })
}

/** The last photograph, as it was taken, over what the camera sees. */
function paintLast(): void {
  const to = through.value
  const seen = props.last?.taken.seen
  if (!to) return
  const brush = to.getContext('2d')
  if (!seen) return brush?.clearRect(0, 0, to.width, to.height)
  to.width = seen.width
  to.height = seen.height
  brush?.drawImage(seen, 0, 0)
}
watch(() => props.last, paintLast)

async function take(): Promise<void> {
  const from = state.value === 'camera' ? video.value : standIn.value
  if (!from || busy.value) return
  const [w, h] = from instanceof HTMLVideoElement ? [from.videoWidth, from.videoHeight] : [from.width, from.height]
  if (w === 0 || h === 0) return
  busy.value = true
  const canvas = new OffscreenCanvas(w, h)
  canvas.getContext('2d')?.drawImage(from, 0, 0)
  await props.taken(await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.94 }))
  if (state.value === 'stand-in') turn(page.value + 1)
  busy.value = false
}
const words = computed(() => (props.again ? `take ${props.again} again` : `take sheet ${props.number}`))
</script>

<template>
  <div class="camera">
    <div class="sight">
      <video v-show="state === 'camera'" ref="video" autoplay muted playsinline aria-label="What the camera sees" />
      <canvas
        v-show="state === 'stand-in'"
        ref="standIn"
        :width="STAND_IN.width"
        :height="STAND_IN.height"
        :aria-label="`Sheet ${page + 1} of the stand-in for a camera`"
      />
      <canvas ref="through" class="through" :style="{ opacity: last ? share : 0 }" aria-hidden="true" />
      <p v-if="state === 'asking'" class="soft asking">looking for a camera …</p>
    </div>
    <div class="row">
      <ElButton type="primary" :disabled="busy || state === 'asking'" @click="take">{{ words }}</ElButton>
      <label title="What is written on it: sheets may be taken in any order">
        sheet
        <NumberField
          :value="number"
          :take="n => n !== null && n >= 1 && emit('number', Math.round(n))"
          :least="1"
          :most="9999"
          :step="1"
          label="Number on the sheet"
        />
      </label>
      <label>
        the last one shows through
        <input v-model.number="share" type="range" min="0" max="0.8" step="0.05" />
      </label>
      <span v-if="state === 'stand-in'" class="soft">
        There is no camera here, or it may not be used: this is a stand-in.
        <button class="plain word" @click="turn(page + 1)">its next sheet</button>
      </span>
    </div>
  </div>
</template>

<style scoped>
.camera {
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  gap: 10px;
}

.sight {
  position: relative;
  overflow: hidden;
  background: #2b2722;
}

video,
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  object-fit: contain;
}

.asking {
  position: absolute;
  inset: 0;
  display: grid;
  place-items: center;
  color: #cdbfa8;
}

.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 18px;
  font-size: 13px;
}

label {
  display: inline-flex;
  align-items: center;
  gap: 8px;
}

input {
  accent-color: var(--green);
}

.word {
  color: var(--green);
}
</style>
