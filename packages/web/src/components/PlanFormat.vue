<script setup lang="ts">
import { LIMITS } from '@unhurried/core/document'
import { readLength, secondsLabel, timecode, type LengthReading } from '@unhurried/core/time'
import { DESTINATIONS, ratioInWords } from '@unhurried/core/work'
import { ElInput, ElInputNumber, ElOption, ElSelect } from 'element-plus'
import { computed, ref, watch } from 'vue'
import { useShot } from '../stores/shot.ts'

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
  shot.commit(label, [{ kind: 'format.set', patch }])
}
function goWhere(id: string): void {
  const place = DESTINATIONS.find(d => d.id === id)
  if (place) set({ width: place.width, height: place.height }, `size for ${place.words}`)
}
const size = (which: 'width' | 'height') => (value: number | undefined) => {
  if (value && value !== format.value[which]) set({ [which]: value }, which)
}

const wish = ref('')
watch(frames, () => (wish.value = ''))
const reading = computed<LengthReading | null>(() =>
  wish.value.trim() ? readLength(wish.value, format.value.fps) : null,
)
const WRONG: Record<Extract<LengthReading, { ok: false }>['code'], string> = {
  empty: '',
  'not-a-length': 'Frames (36), seconds (1.5 s), milliseconds (200 ms), or seconds and frames (1:12).',
  'too-short': 'At least one frame.',
  'too-long': 'That is longer than a shot can be.',
  'past-sixty': 'Seconds and minutes go up to 59 here.',
  'fraction-of-a-frame': 'There is no part of a frame. Seconds may have parts.',
}
const becomes = computed(() => {
  const r = reading.value
  if (!r) return ''
  if (!r.ok) return WRONG[r.code]
  const words = `${r.frames} frames, ${r.seconds.toFixed(3)} s`
  return r.exact ? `${words} exactly` : `${r.wished.toFixed(1)} frames: becomes ${words}`
})

/** A longer shot holds what it ends on; a shorter one loses its last frames. */
function setLength(): void {
  const { take } = shot
  if (!reading.value?.ok || !take) return
  const by = reading.value.frames - take.length
  if (by > 0)
    shot.commit('longer shot', [{ kind: 'frames.insert', take: take.id, at: take.length, count: by, fill: {} }])
  if (by < 0) shot.commit('shorter shot', [{ kind: 'frames.remove', take: take.id, at: take.length + by, count: -by }])
  wish.value = ''
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
      <ElSelect
        id="rate"
        :model-value="format.fps"
        size="small"
        aria-label="Frames a second"
        @change="(fps: number) => set({ fps }, `${fps} frames a second`)"
      >
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
