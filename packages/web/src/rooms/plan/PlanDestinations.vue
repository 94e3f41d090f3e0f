<script setup lang="ts">
import { CUT_NAMES, cutTo, type CutName } from '@unhurried/core/document'
import {
  cutInWords,
  DESTINATIONS,
  hasShape,
  PHONE_WIDTH_SCREEN_PX,
  ratioInWords,
  safeBox,
  seenOnPhone,
} from '@unhurried/core/work'
import { computed } from 'vue'
import type { BitmapShelf } from '../../paint/bitmaps.ts'
import { useDesk } from '../../stores/desk.ts'
import { useShot } from '../../stores/shot.ts'
import FramePicture from '../../shared/FramePicture.vue'

/** Where it may be shown: the shapes, the picture inside them or cut to them, and how large it is on a phone. */
defineProps<{ bitmaps: BitmapShelf }>()
const shot = useShot()
const desk = useDesk()
const format = computed(() => shot.document?.format ?? { width: 16, height: 9, fps: 24, paper: '#fdfaf3' })
const BOX = 92
/** Sizes whose shape is seen already. */
const ELSEWHERE = ['wide-small', 'sprite']

const cuts = computed(() => shot.document?.cuts ?? [])
/** Shapes that the picture does not have already. */
const others = computed(() => CUT_NAMES.filter(cut => !hasShape(format.value, cut)))

const places = computed(() =>
  DESTINATIONS.filter(place => !ELSEWHERE.includes(place.id)).map(place => {
    const scale = BOX / Math.max(place.width, place.height)
    const [w, h] = [place.width * scale, place.height * scale]
    const [across, down] = [place.width / format.value.width, place.height / format.value.height]
    const isCut = cuts.value.some(cut => hasShape(place, cut))
    const fit = isCut ? Math.max(across, down) : Math.min(across, down)
    const [pw, ph] = [format.value.width * fit * scale, format.value.height * fit * scale]
    const fills = Math.abs(pw - w) < 1 && Math.abs(ph - h) < 1
    const how = fills ? 'fills it' : isCut ? 'cut to it' : 'leaves bars'
    return { ...place, safe: safeBox(w, h), w, h, pw, fills, how, percent: Math.round(fit * 100) }
  }),
)
function toggle(cut: CutName): void {
  const { document } = shot
  if (!document) return
  const on = !cuts.value.includes(cut)
  shot.commit(on ? `cut to ${cutInWords(cut)} too` : `not cut to ${cutInWords(cut)}`, cutTo(document, cut, on))
}
const phone = computed(() => seenOnPhone(format.value.width, format.value.height))
</script>

<template>
  <section aria-label="Where it is shown">
    <h2>Where it is shown</h2>
    <div class="row">
      <figure v-for="place in places" :key="place.id" :class="{ own: place.fills }">
        <div class="box">
          <div class="shape" :style="{ width: `${place.w}px`, height: `${place.h}px` }">
            <FramePicture
              v-if="shot.take"
              :take="shot.take"
              :frame="desk.frame"
              :width="Math.max(1, Math.round(place.pw))"
              :bitmaps="bitmaps"
            />
            <i :style="{ inset: `${place.safe.top}px ${place.safe.left}px` }" />
          </div>
        </div>
        <figcaption>
          {{ place.words }}
          <span class="soft"
            >{{ place.width }} × {{ place.height }}, {{ ratioInWords(place.width, place.height) }}</span
          >
          <span class="soft">{{ place.how }}, at {{ place.percent }} %</span>
        </figcaption>
      </figure>
      <figure v-if="shot.take" class="phone">
        <div class="glass">
          <FramePicture :take="shot.take" :frame="desk.frame" :width="PHONE_WIDTH_SCREEN_PX" :bitmaps="bitmaps" />
        </div>
        <figcaption>
          on a phone held upright
          <span class="soft"
            >{{ phone.widthMm.toFixed(0) }} × {{ phone.heightMm.toFixed(0) }} mm; lines under
            <b>{{ Math.max(1, Math.ceil(phone.thinnestLinePx)) }} px</b> are hardly seen</span
          >
        </figcaption>
      </figure>
    </div>
    <p class="cuts" role="group" aria-label="Also cut to">
      <span class="soft">also cut to</span>
      <label v-for="cut in others" :key="cut">
        <input type="checkbox" :checked="cuts.includes(cut)" :disabled="!shot.mayDraw" @change="toggle(cut)" />
        {{ cutInWords(cut) }}
      </label>
    </p>
    <p class="soft small">
      The dotted line is the safe margin, a twentieth on every side. What a shape cuts off that is not cut off elsewhere
      is found in Measure; Send off makes it in that shape.
    </p>
  </section>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 14px 20px;
  align-items: flex-end;
}

figure {
  margin: 0;
  width: 104px;
}

.phone {
  width: auto;
  margin-left: auto;
}

.box {
  height: 96px;
  display: grid;
  place-items: center;
}

.shape {
  position: relative;
  background: #2f2c28;
  outline: 1px solid var(--rule);
  overflow: hidden;
}

/* In the middle, also where it is larger than what it is cut to. */
.shape :deep(canvas) {
  position: absolute;
  inset: 50% auto auto 50%;
  translate: -50% -50%;
}

.shape i {
  position: absolute;
  border: 1px dotted rgb(60 106 85 / 75%);
}

.own .shape {
  outline: 2px solid var(--green);
  outline-offset: 2px;
}

.glass {
  padding: 6px;
  border: 1px solid var(--rule);
  border-radius: 10px;
  background: var(--edge);
}

.cuts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 16px;
  margin-top: 12px;
  font-size: 13px;
}

.cuts label {
  display: flex;
  align-items: center;
  gap: 5px;
  cursor: pointer;
}

.cuts input {
  accent-color: var(--green);
}

figcaption {
  margin-top: 6px;
  font-size: 12.5px;
  line-height: 1.35;
}

figcaption span {
  display: block;
  font-size: 11.5px;
}
</style>
