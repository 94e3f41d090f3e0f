<script setup lang="ts">
import {
  changeRate,
  changeSize,
  doBatch,
  keepOnly,
  lengthen,
  LIMITS,
  resizing,
  setFormat,
  sheetChange,
  type Proposal,
  type Resizing,
} from '@unhurried/core/document'
import { isEmptyBox, map } from '@unhurried/core/geometry'
import { counted, readLength, secondsLabel, timecode, type LengthReading } from '@unhurried/core/time'
import { DESTINATIONS, ratioInWords } from '@unhurried/core/work'
import { ElInput, ElInputNumber, ElOption, ElSelect } from 'element-plus'
import { computed, ref, watch } from 'vue'
import { useShot } from '../../stores/shot.ts'
import { lengthInWords, scaleInWords } from '../../words/lengths.ts'
import { whyNotInWords } from '../../words/refusals.ts'

/** The sheet the film is drawn on, and how long it is, in every unit at once. */
const shot = useShot()
const format = computed(() => shot.document?.format ?? { width: 1280, height: 720, fps: 24, paper: '#fdfaf3' })
const frames = computed(() => shot.take?.length ?? 1)
const RATES = [6, 8, 10, 12, 15, 24, 25, 30, 50, 60]
const rates = computed(() => [...new Set([...RATES, format.value.fps])].sort((a, b) => a - b))
const where = computed(
  () => DESTINATIONS.find(d => d.width === format.value.width && d.height === format.value.height)?.id ?? 'own',
)

function set(patch: Partial<typeof format.value>, label: string): void {
  shot.commit(label, setFormat(patch))
}
/** Whether there is anything that a change of rate or size would do something to. */
const hasDrawings = computed(() => Object.keys(shot.document?.drawings ?? {}).length > 0)
/** What is asked before it is done: another rate, another size, or a length that leaves drawings out. */
const asked = ref<
  { rate: number } | { width: number; height: number; words: string } | { frames: number; gone: string } | null
>(null)

function goWhere(id: string): void {
  const place = DESTINATIONS.find(d => d.id === id)
  if (place) resize(place.width, place.height, `size for ${place.words}`)
}
const size = (which: 'width' | 'height') => (value: number | undefined) => {
  if (!value || value === format.value[which]) return
  const { width, height } = format.value
  if (which === 'width') resize(value, height, which)
  else resize(width, value, which)
}
function resize(width: number, height: number, words: string): void {
  if (hasDrawings.value) asked.value = { width, height, words }
  else set({ width, height }, words)
}
function rate(fps: number): void {
  if (fps === format.value.fps) return
  if (hasDrawings.value) asked.value = { rate: fps }
  else set({ fps }, `${fps} frames a second`)
}

const rateWays = computed(() => {
  const now = asked.value
  if (!now || !('rate' in now) || !shot.document) return []
  const { document } = shot
  return (['frames', 'seconds'] as const).map(keep => {
    const change = changeRate(document, now.rate, keep)
    const [was, is] = change.frames
    const lasts = `${counted(is, 'frame')}, ${secondsLabel(is, now.rate)}`
    const rounding =
      change.rounded === 0
        ? 'every exposure as long as before'
        : `${change.rounded} of ${change.exposures} exposures rounded, by ${(1000 * change.worstSeconds).toFixed(0)} ms at most`
    const words =
      keep === 'frames'
        ? `keep the frames: ${lasts}, instead of ${secondsLabel(was, document.format.fps)}`
        : change.step.ok
          ? `keep the seconds: ${lasts}; ${rounding}; beats, notes, loop and cycles follow`
          : `keep the seconds: ${whyNotInWords(change.step)}`
    return { keep, words, step: change.step }
  })
})
function takeRate(step: Proposal): void {
  const now = asked.value
  if (step.ok && now && 'rate' in now && !shot.commit(`${now.rate} frames a second`, step.ops)) asked.value = null
}

const SIZE_WORDS: Record<Resizing, string> = {
  fit: 'scale the drawings to fit',
  centre: 'centre them as large as they are',
  leave: 'leave them where they are',
}
/** How many drawings would reach over the edge of the new paper in each way. */
const sizeWays = computed(() => {
  const now = asked.value
  const { document } = shot
  if (!now || !('width' in now) || !document) return []
  return (['fit', 'centre', 'leave'] as const).map(how => {
    const through = resizing(document, now.width, now.height, how)
    const out = Object.values(document.drawings).filter(drawing => {
      const box = shot.book.boxOf(drawing)
      if (isEmptyBox(box)) return false
      const [a, b] = [map(through, { x: box.left, y: box.top }), map(through, { x: box.right, y: box.bottom })]
      return a.x < 0 || a.y < 0 || b.x > now.width || b.y > now.height
    }).length
    const words = out === 0 ? 'all inside' : `${counted(out, 'drawing reaches', 'drawings reach')} over the edge`
    return { how, words: `${SIZE_WORDS[how]}: ${words}` }
  })
})
function takeSize(how: Resizing): void {
  const now = asked.value
  if (!now || !('width' in now) || !shot.document) return
  if (!shot.commit(now.words, changeSize(shot.document, now.width, now.height, how))) asked.value = null
}

const wish = ref('')
watch(frames, () => (wish.value = ''))
const reading = computed<LengthReading | null>(() =>
  wish.value.trim() ? readLength(wish.value, format.value.fps) : null,
)
const becomes = computed(() => (reading.value ? lengthInWords(reading.value, format.value.fps) : ''))

/** A longer shot holds what it ends on; a shorter one loses its last frames, and says which drawings go with them. */
function setLength(): void {
  const { take, document } = shot
  if (!reading.value?.ok || !take || !document) return
  const next = reading.value.frames
  const by = next - take.length
  wish.value = ''
  if (by > 0) {
    shot.commit('longer shot', lengthen(take, by))
  }
  if (by >= 0) return
  const kept = doBatch(document, keepOnly(take, 0, next))
  const gone = kept.ok ? sheetChange(document, kept.document).gone : []
  if (gone.length) asked.value = { frames: next, gone: gone.join(', ') }
  else shorten(next)
}
function shorten(frames: number): void {
  if (shot.take && !shot.commit('shorter shot', keepOnly(shot.take, 0, frames))) asked.value = null
}
const milliseconds = computed(() => Math.round((1000 * frames.value) / format.value.fps))
const perFrame = computed(() => (1000 / format.value.fps).toFixed(1))
</script>

<template>
  <section aria-label="Format">
    <h2>Format</h2>
    <p class="size">
      <b>{{ format.width }} × {{ format.height }}</b
      >&ensp;
      <span class="soft">{{ ratioInWords(format.width, format.height) }}</span>
    </p>
    <div v-if="shot.mayDraw" class="fields">
      <label class="label" for="where">shown as</label>
      <ElSelect id="where" :model-value="where" size="small" aria-label="Where it is shown" @change="goWhere">
        <ElOption v-for="place in DESTINATIONS" :key="place.id" :value="place.id" :label="place.words" />
        <ElOption value="own" label="a size of its own" disabled />
      </ElSelect>
      <span class="label">px</span>
      <span class="pair">
        <ElInputNumber
          :model-value="format.width"
          size="small"
          :min="1"
          :max="LIMITS.sizePx"
          :controls="false"
          aria-label="Width in pixels"
          @change="size('width')"
        />
        ×
        <ElInputNumber
          :model-value="format.height"
          size="small"
          :min="1"
          :max="LIMITS.sizePx"
          :controls="false"
          aria-label="Height in pixels"
          @change="size('height')"
        />
      </span>
      <label class="label" for="rate">delivery rate</label>
      <ElSelect id="rate" :model-value="format.fps" size="small" aria-label="Frames a second" @change="rate">
        <ElOption v-for="fps in rates" :key="fps" :value="fps" :label="`${fps} frames a second`" />
      </ElSelect>
      <label class="label" for="paper">paper</label>
      <input
        id="paper"
        type="color"
        :value="format.paper"
        @change="set({ paper: ($event.target as HTMLInputElement).value }, 'paper')"
      />
    </div>
    <div v-if="asked" class="asks" role="group" aria-label="What is kept">
      <template v-if="'rate' in asked">
        <p>
          From {{ format.fps }} to <b>{{ asked.rate }}</b> frames a second, with drawings on the sheet:
        </p>
        <button
          v-for="way in rateWays"
          :key="way.keep"
          class="plain word"
          :disabled="!way.step.ok"
          @click="takeRate(way.step)"
        >
          {{ way.words }}
        </button>
      </template>
      <template v-else-if="'width' in asked">
        <p>
          From {{ format.width }} × {{ format.height }} to <b>{{ asked.width }} × {{ asked.height }}</b
          >:
        </p>
        <button v-for="way in sizeWays" :key="way.how" class="plain word" @click="takeSize(way.how)">
          {{ way.words }}
        </button>
      </template>
      <template v-else>
        <p>With {{ counted(asked.frames, 'frame') }} {{ asked.gone }} would no longer be shown.</p>
        <button class="plain word" @click="shorten(asked.frames)">make it shorter all the same</button>
      </template>
      <button class="plain soft" @click="asked = null">leave it as it is</button>
    </div>
    <p v-if="shot.document?.scale" class="soft">{{ scaleInWords(shot.document.scale, format.fps) }}</p>
    <dl>
      <dt>frames</dt>
      <dd>{{ frames }}</dd>
      <dt>seconds</dt>
      <dd>{{ secondsLabel(frames, format.fps) }}</dd>
      <dt>milliseconds</dt>
      <dd>
        {{ milliseconds }} <small class="soft">({{ perFrame }} a frame)</small>
      </dd>
      <dt>timecode</dt>
      <dd>{{ timecode(frames, format.fps) }}</dd>
    </dl>
    <form v-if="shot.mayDraw" class="length" @submit.prevent="setLength">
      <ElInput v-model="wish" size="small" placeholder="another length: 0.2 s" aria-label="Another length" />
      <button class="plain word" :disabled="!reading?.ok">set</button>
    </form>
    <p v-if="becomes" class="small" :class="reading?.ok ? 'soft' : 'rust'">{{ becomes }}</p>
  </section>
</template>

<style scoped>
.size b {
  font-size: 16px;
}

.fields {
  display: grid;
  grid-template-columns: max-content minmax(0, 1fr);
  gap: 5px 12px;
  align-items: center;
  margin: 8px 0;
}

.asks {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  margin: 4px 0 10px;
  padding: 8px 10px;
  border-radius: 8px;
  background: var(--green-wash);
  font-size: 13px;
}

.asks .plain.word,
.asks .plain {
  white-space: normal;
  text-align: left;
  margin-left: -4px;
}

.pair {
  display: flex;
  align-items: center;
  gap: 6px;
}

.pair .el-input-number {
  flex: 1;
  width: 0;
  min-width: 0;
}

input[type='color'] {
  width: 44px;
  height: 24px;
  padding: 1px;
  border: 1px solid var(--rule);
  border-radius: 5px;
  background: var(--paper);
}

dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 1px 12px;
  font-size: 13.5px;
  border-top: 1px solid var(--rule-faint);
  padding-top: 7px;
}

dt {
  color: var(--soft);
}

dd {
  text-align: right;
}

.length {
  display: flex;
  gap: 10px;
  margin-top: 7px;
}
</style>
