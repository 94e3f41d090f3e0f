<script setup lang="ts">
import { distance, fitPressure, pressed, type Sample } from '@unhurried/core/geometry'
import { useDevicePixelRatio } from '@vueuse/core'
import { computed, ref } from 'vue'
import { livePainter, rawSamples, strokeUnderWay, type RawSample, type StrokeUnderWay } from '../../paint/pen.ts'
import { useKit } from '../../stores/kit.ts'
import { useSight } from '../../stores/sight.ts'

/** A scrap of paper to try the pen on: shows how the hand presses and how far the steadied line lags behind it. */
const kit = useKit()
const sight = useSight()
const WIDTH = 356
const HEIGHT = 108
const canvas = ref<HTMLCanvasElement | null>(null)
const track = ref<HTMLCanvasElement | null>(null)
const { pixelRatio } = useDevicePixelRatio()
const pressures = ref<number[]>([])
const lagPx = ref(0)
let stroke: StrokeUnderWay | null = null
let paint: ReturnType<typeof livePainter> | null = null
let last: RawSample | null = null

const AS_IT_IS = [1, 0, 0, 1, 0, 0] as const
const origin = () => canvas.value?.getBoundingClientRect() ?? { left: 0, top: 0 }

function down(event: PointerEvent): void {
  if (event.button !== 0) return
  const pen = kit.pens[kit.pen]
  stroke = strokeUnderWay(AS_IT_IS, { smoothing: pen.smoothing, bySpeed: pen.bySpeed, pressure: kit.pressure })
  const colour = sight.colours({ swatch: kit.swatch, label: kit.label })
  paint = livePainter(AS_IT_IS, pixelRatio.value, { kind: 'line', width: pen.width, nib: pen.nib, colour })
  pressures.value = []
  lagPx.value = 0
  last = null
  const under = track.value?.getContext('2d')
  under?.clearRect(0, 0, WIDTH * pixelRatio.value, HEIGHT * pixelRatio.value)
  canvas.value?.setPointerCapture(event.pointerId)
  move(event)
}

function move(event: PointerEvent): void {
  const brush = canvas.value?.getContext('2d')
  if (!stroke || !paint || !brush) return
  const raws = rawSamples(event, origin())
  followHand(raws)
  stroke.add(raws)
  paint(brush, stroke.samples)
  if (event.pointerType === 'pen') pressures.value = [...pressures.value, ...raws.map(raw => raw.pressure)]
  const [hand, line] = [raws.at(-1), stroke.samples.at(-1) as Sample | undefined]
  if (hand && line) lagPx.value = Math.max(lagPx.value, distance(line, hand))
}

/** The way of the hand itself, thin, under the line. */
function followHand(raws: readonly RawSample[]): void {
  const brush = track.value?.getContext('2d')
  if (!brush) return
  brush.setTransform(pixelRatio.value, 0, 0, pixelRatio.value, 0, 0)
  brush.strokeStyle = getComputedStyle(brush.canvas).color
  brush.beginPath()
  if (last) brush.moveTo(last.x, last.y)
  for (const raw of raws) brush.lineTo(raw.x, raw.y)
  brush.stroke()
  last = raws.at(-1) ?? last
}

function up(): void {
  const brush = canvas.value?.getContext('2d')
  if (stroke && paint && brush) paint(brush, stroke.finish())
  stroke = null
  paint = null
}

const fitted = computed(() => fitPressure(pressures.value))
const share = (n: number) => `${Math.round(n * 100)} %`
const said = computed(() => {
  const lag = `the line lags up to ${lagPx.value.toFixed(0)} px`
  if (pressures.value.length === 0) return lagPx.value ? `${lag} · no pressure from this pointer` : 'Try the pen here.'
  const sorted = [...pressures.value].sort((a, b) => a - b)
  return `pressed ${share(sorted[0] ?? 0)} to ${share(sorted.at(-1) ?? 0)} · ${lag}`
})
const handWords = computed(() => {
  const { firmness } = kit.pressure
  return firmness < 0.45 ? 'light' : firmness > 0.55 ? 'firm' : 'even'
})
const SLIDERS = [
  { name: 'least', words: 'pressure counts from', label: 'Pressure that counts as none', least: 0, most: 0.5 },
  { name: 'full', words: 'to', label: 'Pressure that counts as all', least: 0.55, most: 1 },
  { name: 'firmness', words: 'hand', label: 'Light hand to firm hand', least: 0, most: 1 },
] as const
/** The pressure curve, the pressure of the device to the right, that of the line upwards. */
const curve = computed(() =>
  Array.from({ length: 41 }, (_, i) => `${(i / 40) * 60},${36 - pressed(kit.pressure, i / 40) * 34}`).join(' '),
)
</script>

<template>
  <div class="patch">
    <div class="paper" :style="{ height: `${HEIGHT}px` }">
      <canvas
        v-for="which in ['track', 'line'] as const"
        :key="which"
        :ref="el => (which === 'track' ? (track = el as HTMLCanvasElement) : (canvas = el as HTMLCanvasElement))"
        :class="which"
        :data-testid="`patch-${which}`"
        :width="Math.round(WIDTH * pixelRatio)"
        :height="Math.round(HEIGHT * pixelRatio)"
        :style="{ width: `${WIDTH}px`, height: `${HEIGHT}px` }"
        aria-label="A scrap of paper to try the pen on"
        @pointerdown="down"
        @pointermove="move"
        @pointerup="up"
        @pointercancel="up"
      />
    </div>
    <p class="soft said" aria-live="polite">{{ said }}</p>
    <div class="curve">
      <svg viewBox="0 -2 60 40" role="img" aria-label="Pressure curve"><polyline :points="curve" /></svg>
      <label v-for="{ name, words, label, least, most } in SLIDERS" :key="name">
        {{ words }}
        <input
          v-model.number="kit.pressure[name]"
          type="range"
          :min="least"
          :max="most"
          step="0.01"
          :aria-label="label"
        />
        <b>{{ name === 'firmness' ? handWords : share(kit.pressure[name]) }}</b>
      </label>
    </div>
    <p class="acts">
      <button class="plain link" :disabled="!fitted" @click="fitted && (kit.pressure = fitted)">
        fit the curve to this hand
      </button>
      <button class="plain link" @click="kit.pressure = { least: 0, full: 1, firmness: 0.5 }">straight</button>
    </p>
  </div>
</template>

<style scoped>
.paper {
  position: relative;
  margin-top: 8px;
  border: 1px solid var(--rule);
  border-radius: 6px;
  background: var(--paper);
  overflow: hidden;
  touch-action: none;
  cursor: crosshair;
}

.paper canvas {
  position: absolute;
  left: 0;
  top: 0;
}

.paper .track {
  color: var(--rust);
  opacity: 0.6;
  pointer-events: none;
}

.said {
  font-size: 12.5px;
  min-height: 1.5em;
}

.curve {
  display: grid;
  grid-template-columns: 64px 1fr;
  gap: 2px 12px;
  align-items: center;
}

.curve svg {
  grid-row: span 3;
  border-left: 1px solid var(--rule);
  border-bottom: 1px solid var(--rule);
}

.curve polyline {
  fill: none;
  stroke: var(--green);
  stroke-width: 1.6;
}

label {
  display: grid;
  grid-template-columns: 128px 1fr 40px;
  gap: 8px;
  font-size: 12.5px;
}

label b {
  text-align: right;
}

input[type='range'] {
  min-height: 24px;
  accent-color: var(--green);
  min-width: 0;
}

.acts {
  display: flex;
  gap: 14px;
}

.link {
  color: var(--green);
  padding-left: 0;
}
</style>
