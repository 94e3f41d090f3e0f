<script setup lang="ts">
import { CUT_NAMES, cutTo, type CutName } from '@unhurried/core/document'
import { cutBox, cutInWords, hasShape } from '@unhurried/core/work'
import { ElButton, ElInputNumber, ElProgress, ElRadioButton, ElRadioGroup, ElSwitch } from 'element-plus'
import { computed, reactive, watch } from 'vue'
import SendOffBefore from './SendOffBefore.vue'
import SendOffClips from './SendOffClips.vue'
import SendOffFormats from './SendOffFormats.vue'
import SendOffFacts from './SendOffFacts.vue'
import SendOffPreview from './SendOffPreview.vue'
import SendOffSound from './SendOffSound.vue'
import { FORMATS, type FormatName } from '../../send/formats/table.ts'
import { picturesOf, underKey } from '../../send/pictures.ts'
import WordChoice from '../../shared/WordChoice.vue'
import { useShot } from '../../stores/shot.ts'
import { useDelivered } from '../../stores/delivered.ts'
import { useClips } from '../../stores/clips.ts'
import { useSound } from '../../stores/sound.ts'
import { useSending } from './useSending.ts'

const MOST_TURNS = 100

const shot = useShot()
const sound = useSound()
const clips = useClips()
const delivered = useDelivered()
const { running, progress, problem, made, start, forget } = useSending()
const form = reactive({
  format: 'gif' as FormatName,
  stretch: 'whole' as 'loop' | 'whole' | 'some',
  from: 1,
  to: shot.take?.length ?? 1,
  width: 640,
  cut: null as CutName | null,
  paper: true,
  sound: true,
  turns: 1,
  forEver: true,
})
const wanted = computed(() => FORMATS[form.format])
const paper = computed(() => form.paper || !wanted.value.seeThrough)
/** null is for ever, where the format can */
const turns = computed(() => {
  if (wanted.value.turns === 'none') return 1
  return wanted.value.turns === 'for ever' && form.forEver ? null : form.turns
})
const format = computed(() => shot.document?.format ?? { width: 1280, height: 720, fps: 24, paper: '#fdfaf3' })
/** What of the picture goes out: all of it, or the shape that it is cut to. */
const part = computed(() =>
  form.cut
    ? cutBox(format.value, form.cut)
    : { left: 0, top: 0, right: format.value.width, bottom: format.value.height },
)
const mostWide = computed(() => Math.round(part.value.right - part.value.left))
const size = computed(() => {
  const { left, top, right, bottom } = part.value
  return wanted.value.size(form.width, Math.max(1, Math.round((form.width * (bottom - top)) / (right - left))))
})
const cuts = computed(() =>
  [null, ...CUT_NAMES.filter(cut => !hasShape(format.value, cut))].map(value => ({
    value,
    words: value === null ? 'no' : cutInWords(value),
  })),
)
/** What a shape cuts off is asked once the shot says that it is cut to it. */
const isAsked = computed(() => form.cut === null || (shot.document?.cuts.includes(form.cut) ?? false))
function askOf(cut: CutName): void {
  if (shot.document) shot.commit(`cut to ${cutInWords(cut)} too`, cutTo(shot.document, cut, true))
}
const length = computed(() => shot.take?.length ?? 1)
const range = computed(() => {
  const whole = { from: 0, to: length.value }
  if (form.stretch === 'loop') return shot.take?.loop ?? whole
  if (form.stretch === 'whole') return whole
  const from = Math.max(0, Math.min(form.from - 1, length.value - 1))
  return { from, to: Math.max(from + 1, Math.min(form.to, length.value)) }
})
const under = computed(() => (delivered.withClips ? clips.toSend : []))
/** What lies under the drawings, as a text that tells frames from one another. */
const beneath = (frame: number) => underKey(under.value.map(clip => clips.numberUnder(clip, frame)))
const pictures = computed(() =>
  shot.document && shot.take ? picturesOf(shot.document, shot.take, range.value, beneath) : [],
)
const figures = computed(() =>
  wanted.value.figures({ pictures: pictures.value, fps: format.value.fps, turns: turns.value }),
)
const sizes = computed(() => [...new Set([mostWide.value, 1280, 640, 320])].filter(w => w <= mostWide.value))

watch(mostWide, w => (form.width = Math.min(form.width, w)), { immediate: true })
// A loop that is all of the take is the take; one that cuts it is never chosen unasked.
watch([form, pictures, under], forget, { deep: true })

async function send(): Promise<void> {
  const { document, take } = shot
  if (!document || !take) return
  const { extension, type, sound: goes } = wanted.value
  const mix = () => (form.sound && goes !== 'none' ? sound.mixOfOwn(range.value) : Promise.resolve(null))
  const wish = {
    document,
    take,
    range: range.value,
    format: form.format,
    ...size.value,
    part: part.value,
    paper: paper.value,
    turns: turns.value,
  }
  await start(wish, { extension, type, mix, clips: under.value, cut: form.cut })
}
const sizeWords = (bytes: number) => (bytes < 1e6 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1e6).toFixed(1)} MB`)
</script>

<template>
  <div class="send">
    <main class="stage" aria-label="Preview">
      <SendOffPreview
        :range="range"
        :paper="paper"
        :width="size.width"
        :height="size.height"
        :part="part"
        :audible="form.sound && wanted.sound !== 'none'"
        :with-clips="delivered.withClips"
      />
    </main>
    <aside class="side" aria-label="What to send">
      <h2>Send off</h2>
      <SendOffFormats v-model="form.format" :disabled="!!running" />
      <section>
        <span id="which" class="label">frames</span>
        <ElRadioGroup v-model="form.stretch" aria-labelledby="which" :disabled="!!running">
          <ElRadioButton value="loop">the loop</ElRadioButton>
          <ElRadioButton value="whole">the whole shot</ElRadioButton>
          <ElRadioButton value="some">some</ElRadioButton>
        </ElRadioGroup>
        <div v-if="form.stretch === 'some'" class="size some">
          <ElInputNumber
            v-model="form.from"
            :min="1"
            :max="length"
            size="small"
            controls-position="right"
            :disabled="!!running"
            aria-label="From frame"
          />
          –
          <ElInputNumber
            v-model="form.to"
            :min="1"
            :max="length"
            size="small"
            controls-position="right"
            :disabled="!!running"
            aria-label="To frame"
          />
        </div>
      </section>
      <p
        v-if="form.stretch === 'whole' && shot.take?.loop && shot.take.loop.to - shot.take.loop.from < length"
        class="soft small"
      >
        The loop goes over frames {{ shot.take.loop.from + 1 }}–{{ shot.take.loop.to }} only.
      </p>
      <section>
        <label class="label" for="wide">wide</label>
        <div class="size">
          <ElInputNumber
            id="wide"
            v-model="form.width"
            :min="8"
            :max="mostWide"
            :step="10"
            controls-position="right"
            :disabled="!!running"
            aria-label="Width in pixels"
          />
          <span>× {{ size.height }} px</span>
        </div>
        <p class="sizes">
          <button
            v-for="w in sizes"
            :key="w"
            class="plain"
            :class="{ on: w === form.width }"
            :disabled="!!running"
            @click="form.width = w"
          >
            {{ w }}
          </button>
        </p>
      </section>
      <section class="row">
        <span class="label">cut to</span>
        <WordChoice v-model="form.cut" :inert="!!running" label="Cut to another shape" :options="cuts" />
      </section>
      <p v-if="form.cut && !isAsked" class="soft small">
        Nothing is said yet of what that cuts off.
        <button v-if="shot.mayDraw" class="plain ask" @click="askOf(form.cut)">have it measured</button>
      </p>
      <p v-if="size.width !== form.width" class="soft small">
        This format has even numbers of pixels: {{ size.width }} × {{ size.height }}.
      </p>
      <section v-if="wanted.turns !== 'none'" class="row">
        <span class="label">goes round</span>
        <span class="turns">
          <label v-if="wanted.turns === 'for ever'">
            <input v-model="form.forEver" type="checkbox" :disabled="!!running" /> for ever
          </label>
          <template v-if="wanted.turns === 'times' || !form.forEver">
            <ElInputNumber
              v-model="form.turns"
              :min="1"
              :max="MOST_TURNS"
              size="small"
              controls-position="right"
              :disabled="!!running"
              aria-label="How often it goes round"
            />
            {{ form.turns === 1 ? 'time' : 'times' }}
          </template>
        </span>
      </section>
      <section class="row">
        <label class="label" for="paper">with the paper</label>
        <ElSwitch
          id="paper"
          :model-value="paper"
          :disabled="!!running || !wanted.seeThrough"
          :title="wanted.seeThrough ? '' : 'This format cannot be see-through'"
          aria-label="With the paper"
          @update:model-value="on => (form.paper = Boolean(on))"
        />
      </section>
      <SendOffSound v-model="form.sound" :format="wanted" :range="range" :disabled="!!running" />
      <SendOffClips v-model="delivered.withClips" :range="range" :disabled="!!running" />
      <SendOffFacts :range="range" :pictures="pictures" :figures="figures" />
      <SendOffBefore :range="range" />
      <div class="go">
        <template v-if="running">
          <ElProgress :percentage="Math.round(progress * 100)" :stroke-width="8" />
          <ElButton size="large" @click="running.cancel()">Stop</ElButton>
        </template>
        <ElButton v-else type="primary" size="large" :disabled="pictures.length === 0" @click="send">{{
          wanted.make
        }}</ElButton>
        <p v-if="problem" class="rust" role="alert">{{ problem }}</p>
        <p v-if="made" class="made" role="status">
          Done: {{ sizeWords(made.bytes) }}.
          <a :href="made.url" :download="made.name">Save {{ made.name }}</a>
        </p>
      </div>
    </aside>
  </div>
</template>

<style scoped>
.send {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  min-height: 0;
}

.stage {
  min-width: 0;
  min-height: 0;
  display: grid;
  place-items: center;
  padding: 30px;
}

.side {
  background: var(--edge);
  border-left: 1px solid var(--rule);
  padding: 16px 28px;
  display: flex;
  flex-direction: column;
  gap: 9px;
  overflow: auto;
}

h2 {
  font: 500 21px var(--serif);
}

.label {
  display: block;
  color: var(--soft);
  margin-bottom: 4px;
}

.some {
  margin-top: 8px;
}

.some .el-input-number {
  width: 96px;
}

.turns {
  display: flex;
  align-items: center;
  gap: 10px;
}

.turns input {
  accent-color: var(--green);
}

.turns .el-input-number {
  width: 84px;
}

.ask {
  color: var(--green);
  font-weight: 700;
}

.row .label {
  margin: 0;
}

.row {
  display: flex;
  align-items: center;
  justify-content: space-between;
}

.size {
  display: flex;
  align-items: center;
  gap: 10px;
}

.sizes {
  display: flex;
  gap: 10px;
  margin: 4px 0 0 -4px;
  color: var(--soft);
}

.sizes .on {
  color: var(--ink);
  font-weight: 700;
  border-bottom: 2px solid var(--green);
  border-radius: 0;
}

/* It stays in sight, whatever there is to be told above it. */
.go {
  position: sticky;
  bottom: -16px;
  display: flex;
  flex-direction: column;
  gap: 7px;
  margin: auto 0 -16px;
  padding: 8px 0 12px;
  background: var(--edge);
}

.made a {
  font-weight: 700;
}
</style>
