<script setup lang="ts">
import { drawingOrder, valueOf } from '@unhurried/core/chart'
import { ElButton, ElDialog } from 'element-plus'
import { computed, ref } from 'vue'
import { useChart } from '../../../stores/chart.ts'
import { useShot } from '../../../stores/shot.ts'

/** The chart as the small ruler that lies beside a paper drawing: to be printed, or kept as a picture. */
const shown = defineModel<boolean>({ required: true })
const shot = useShot()
const chart = useChart()
const picture = ref<SVGSVGElement | null>(null)
/** millimetres on paper */
const [LONG, SIDE, TOP] = [90, 34, 16]

const reach = computed(() => Math.max(1, ...chart.ticks.map(tick => valueOf(tick.at))))
const yOf = (t: number) => TOP + (t / reach.value) * LONG
const order = computed(() => drawingOrder(chart.ticks))
const ticks = computed(() =>
  chart.ticks.map((tick, i) => ({
    y: yOf(valueOf(tick.at)),
    number: shot.drawing(tick.drawing)?.number ?? `·${order.value.indexOf(i) + 1}`,
    third: tick.ratio === '1/3' || tick.ratio === '2/3',
    breakdown: tick.depth === 0,
  })),
)
const title = computed(() => `${shot.name}: ${chart.pair?.from.number}–${chart.pair?.to.number}`)

function source(): string {
  return new XMLSerializer().serializeToString(picture.value as SVGSVGElement)
}

function keep(): void {
  const url = URL.createObjectURL(new Blob([source()], { type: 'image/svg+xml' }))
  const link = document.createElement('a')
  link.href = url
  link.download = `chart-${chart.pair?.from.number}-${chart.pair?.to.number}.svg`
  link.click()
  setTimeout(() => URL.revokeObjectURL(url), 1000)
}

/** Prints the ruler alone, at its real size, from a frame of its own. */
function print(): void {
  const frame = document.createElement('iframe')
  frame.style.cssText = 'position:fixed;width:0;height:0;border:0'
  document.body.append(frame)
  const inside = frame.contentDocument
  if (!inside || !frame.contentWindow) return
  inside.body.append(inside.importNode(picture.value as SVGSVGElement, true))
  frame.contentWindow.addEventListener('afterprint', () => frame.remove())
  frame.contentWindow.print()
}
</script>

<template>
  <ElDialog v-model="shown" title="Paper ruler" width="320px" align-center append-to-body>
    <svg
      ref="picture"
      xmlns="http://www.w3.org/2000/svg"
      :width="`${SIDE + 26}mm`"
      :height="`${LONG + TOP + 14}mm`"
      :viewBox="`0 0 ${SIDE + 26} ${LONG + TOP + 14}`"
      font-family="sans-serif"
      font-size="4"
      fill="#2f2c28"
    >
      <text x="4" y="6" font-size="3.4">{{ title }}</text>
      <g fill="none" stroke="#2f2c28" stroke-width="0.35">
        <line :x1="SIDE" :x2="SIDE" :y1="yOf(0)" :y2="yOf(reach)" />
        <g v-for="(key, i) in [0, 1]" :key="key">
          <line :x1="SIDE - 6" :x2="SIDE + 6" :y1="yOf(i)" :y2="yOf(i)" />
          <circle :cx="SIDE + 13" :cy="yOf(i)" r="4.4" />
        </g>
        <g v-for="(tick, i) in ticks" :key="i">
          <line :x1="SIDE - 4" :x2="SIDE + 4" :y1="tick.y" :y2="tick.y" />
          <path v-if="tick.third" :d="`M${SIDE - 1.6} ${tick.y} l1.6 -1.6 l1.6 1.6 l-1.6 1.6 z`" fill="#fff" />
          <line v-if="tick.breakdown" :x1="SIDE + 6" :x2="SIDE + 13" :y1="tick.y + 2" :y2="tick.y + 2" />
        </g>
      </g>
      <g text-anchor="middle">
        <text :x="SIDE + 13" :y="yOf(0) + 1.4">{{ chart.pair?.from.number }}</text>
        <text :x="SIDE + 13" :y="yOf(1) + 1.4">{{ chart.pair?.to.number }}</text>
        <text v-for="(tick, i) in ticks" :key="i" :x="SIDE + 9.5" :y="tick.y + 1.4">{{ tick.number }}</text>
      </g>
      <text x="4" :y="LONG + TOP + 10" font-size="3">a diamond marks a third</text>
    </svg>
    <template #footer>
      <ElButton @click="keep">keep as SVG</ElButton>
      <ElButton type="primary" @click="print">print</ElButton>
    </template>
  </ElDialog>
</template>

<style scoped>
svg {
  display: block;
  margin: 0 auto;
  background: #fff;
  box-shadow: 0 1px 6px rgb(90 74 48 / 22%);
}
</style>
