<script setup lang="ts">
import { useDevicePixelRatio } from '@vueuse/core'
import { onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { inksOf, paintColumns, type PaintedColumn, type SheetInks } from './sheetPaint.ts'
import { useHabits } from '../../../stores/habits.ts'

/** What is written on the columns of the sheet, for the rows in sight and some around them. */
const props = defineProps<{
  columns: readonly PaintedColumn[]
  rowPx: number
  first: number
  last: number
}>()
const habits = useHabits()
const canvas = ref<HTMLCanvasElement | null>(null)
const inks = shallowRef<SheetInks | null>(null)
const { pixelRatio } = useDevicePixelRatio()

onMounted(async () => {
  await document.fonts.load('12.5px "Atkinson Hyperlegible"')
  if (canvas.value) inks.value = inksOf(canvas.value)
})

function paint(): void {
  const sheet = canvas.value
  const pen = sheet?.getContext('2d')
  const [start, end] = [props.columns[0], props.columns.at(-1)]
  if (!sheet || !pen || !start || !end || !inks.value) return
  const width = end.left + end.width - start.left
  const height = (props.last - props.first) * props.rowPx
  const [w, h] = [Math.ceil(width * pixelRatio.value), Math.ceil(height * pixelRatio.value)]
  if (sheet.width !== w || sheet.height !== h) {
    sheet.width = w
    sheet.height = h
    sheet.style.width = `${width}px`
    sheet.style.height = `${height}px`
  }
  const top = props.first * props.rowPx
  sheet.style.transform = `translate(${start.left}px, ${top}px)`
  pen.setTransform(1, 0, 0, 1, 0, 0)
  pen.clearRect(0, 0, w, h)
  pen.setTransform(pixelRatio.value, 0, 0, pixelRatio.value, -start.left * pixelRatio.value, 0)
  paintColumns(pen, props.columns, props.rowPx, top, inks.value)
}
watch(
  () => habits.night,
  () => (inks.value = canvas.value && inksOf(canvas.value)),
  { flush: 'post' },
)
/** Written with the next picture of the screen: an edit and its writing are then two short tasks instead of a long one. */
let asked = 0
function paintSoon(): void {
  if (asked) return
  asked = requestAnimationFrame(() => {
    asked = 0
    paint()
  })
}
onBeforeUnmount(() => cancelAnimationFrame(asked))
watch([() => props.columns, () => props.rowPx, () => props.first, () => props.last, pixelRatio, inks], paintSoon, {
  flush: 'post',
})
</script>

<template>
  <canvas ref="canvas" class="ink" aria-hidden="true" />
</template>

<style scoped>
.ink {
  position: absolute;
  left: 0;
  top: 0;
  pointer-events: none;
}
</style>
