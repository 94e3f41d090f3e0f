<script setup lang="ts">
import { studyOf, type FilmClip } from '@unhurried/core/document'
import { ElButton, ElInputNumber, ElProgress, ElRadioButton, ElRadioGroup, ElSwitch } from 'element-plus'
import { computed, onBeforeUnmount, reactive, ref, watch } from 'vue'
import SendOffBefore from './SendOffBefore.vue'
import SendOffClips from './SendOffClips.vue'
import SendOffFacts from './SendOffFacts.vue'
import SendOffPreview from './SendOffPreview.vue'
import SendOffSound from './SendOffSound.vue'
import type { SentClip } from '../../protocols/export.ts'
import { FORMAT_NAMES, FORMATS, type FormatName } from '../../send/formats/table.ts'
import { picturesOf, underKey } from '../../send/pictures.ts'
import { startExport, type Running } from '../../send/run.ts'
import { useShot } from '../../stores/shot.ts'
import { studyInName } from '../../words/study.ts'
import { useClips } from '../../stores/clips.ts'
import { useMedia } from '../../stores/media.ts'
import { useSound } from '../../stores/sound.ts'

const MOST_TURNS = 100

const shot = useShot()
const sound = useSound()
const clips = useClips()
const media = useMedia()
const form = reactive({
  format: 'gif' as FormatName,
  stretch: 'whole' as 'loop' | 'whole' | 'some',
  from: 1,
  to: shot.take?.length ?? 1,
  width: 640,
  paper: true,
  sound: true,
  clips: false,
  turns: 1,
  forEver: true,
})
const running = ref<Running | null>(null)
const progress = ref(0)
const problem = ref('')
const made = ref<{ name: string; url: string; bytes: number } | null>(null)

const wanted = computed(() => FORMATS[form.format])
const paper = computed(() => form.paper || !wanted.value.seeThrough)
/** null is for ever, where the format can */
const turns = computed(() => {
  if (wanted.value.turns === 'none') return 1
  return wanted.value.turns === 'for ever' && form.forEver ? null : form.turns
})
const format = computed(() => shot.document?.format ?? { width: 1280, height: 720, fps: 24, paper: '#fdfaf3' })
const size = computed(() =>
  wanted.value.size(form.width, Math.max(1, Math.round((form.width * format.value.height) / format.value.width))),
)
const length = computed(() => shot.take?.length ?? 1)
const range = computed(() => {
  const whole = { from: 0, to: length.value }
  if (form.stretch === 'loop') return shot.take?.loop ?? whole
  if (form.stretch === 'whole') return whole
  const from = Math.max(0, Math.min(form.from - 1, length.value - 1))
  return { from, to: Math.max(from + 1, Math.min(form.to, length.value)) }
})
const under = computed(() => (form.clips ? clips.toSend : []))
/** What lies under the drawings, as a text that tells frames from one another. */
const beneath = (frame: number) => underKey(under.value.map(clip => clips.numberUnder(clip, frame)))
const pictures = computed(() =>
  shot.document && shot.take ? picturesOf(shot.document, shot.take, range.value, beneath) : [],
)
const figures = computed(() =>
  wanted.value.figures({ pictures: pictures.value, fps: format.value.fps, turns: turns.value }),
)
const sizes = computed(() => [...new Set([format.value.width, 1280, 640, 320])].filter(w => w <= format.value.width))

watch(
  () => format.value.width,
  w => (form.width = Math.min(form.width, w)),
  { immediate: true },
)
// A loop that is all of the take is the take; one that cuts it is never chosen unasked.
watch([form, pictures], forget, { deep: true })

function forget(): void {
  if (made.value) URL.revokeObjectURL(made.value.url)
  made.value = null
  problem.value = ''
}

async function send(): Promise<void> {
  const { document, take } = shot
  if (!document || !take || running.value) return
  forget()
  progress.value = 0
  const { extension, type, sound: goes } = wanted.value
  const mix = form.sound && goes !== 'none' ? await sound.mixOfOwn(range.value) : null
  const sent = await withBytes(under.value)
  if (!sent) return
  const job = startExport(
    {
      document,
      take,
      range: range.value,
      format: form.format,
      ...size.value,
      paper: paper.value,
      turns: turns.value,
      sound: mix,
      clips: sent,
      bytesOf: shot.strokeBytes,
    },
    share => (progress.value = share),
  )
  running.value = job
  try {
    const bytes = await job.done
    if (!bytes) return
    const url = URL.createObjectURL(new Blob([bytes], { type }))
    const words = shot.name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
    made.value = {
      name: `${words || 'shot'}${studyInName(studyOf(document, shot.filmStudy))}.${extension}`,
      url,
      bytes: bytes.length,
    }
  } catch (error) {
    problem.value = `That did not work: ${(error as Error).message}`
  } finally {
    running.value = null
  }
}
/** The films of clips that go out; null, with a word on it, where one of them is not to be had. */
async function withBytes(wanted: readonly FilmClip[]): Promise<SentClip[] | null> {
  const sent: SentClip[] = []
  for (const clip of wanted) {
    const bytes = await media.bytesOf(shot.film, clip.media, clip.name).catch(() => null)
    if (!bytes) {
      problem.value = `“${clip.name}” is not here yet, and would be missing.`
      return null
    }
    sent.push({ clip, bytes })
  }
  return sent
}
const sizeWords = (bytes: number) => (bytes < 1e6 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1e6).toFixed(1)} MB`)

onBeforeUnmount(() => {
  running.value?.cancel()
  forget()
})
</script>

<template>
  <div class="send">
    <main class="stage" aria-label="Preview">
      <SendOffPreview
        :range="range"
        :paper="paper"
        :width="size.width"
        :height="size.height"
        :audible="form.sound && wanted.sound !== 'none'"
        :with-clips="form.clips"
      />
    </main>
    <aside class="side" aria-label="What to send">
      <h2>Send off</h2>
      <section>
        <span id="as" class="label">as</span>
        <div class="formats" role="radiogroup" aria-labelledby="as">
          <button
            v-for="name in FORMAT_NAMES"
            :key="name"
            class="format"
            role="radio"
            :aria-checked="form.format === name"
            :class="{ on: form.format === name }"
            :disabled="!!running"
            @click="form.format = name"
          >
            <b>{{ FORMATS[name].words }}</b>
            <span class="soft">{{ FORMATS[name].says }}</span>
          </button>
        </div>
      </section>
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
            :max="format.width"
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
      <SendOffClips v-model="form.clips" :range="range" :disabled="!!running" />
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
  gap: 12px;
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

.formats {
  display: flex;
  flex-direction: column;
  margin: 0 -8px;
}

.format {
  display: grid;
  grid-template-columns: 112px 1fr;
  align-items: baseline;
  gap: 10px;
  min-height: 27px;
  padding: 3px 8px;
  border: 0;
  border-radius: 7px;
  background: none;
  text-align: left;
  font-size: 12.5px;
  cursor: pointer;
}

.format b {
  font-size: 13.5px;
  font-weight: 400;
}

.format.on {
  background: var(--green-wash);
}

.format.on b {
  font-weight: 700;
  color: var(--green);
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
  gap: 10px;
  margin: auto 0 -16px;
  padding: 10px 0 16px;
  background: var(--edge);
}

.made a {
  font-weight: 700;
}
</style>
