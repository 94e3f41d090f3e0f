<script setup lang="ts">
import { gifDelays, secondsLabel } from '@unhurried/core/time'
import { ElButton, ElInputNumber, ElProgress, ElRadioButton, ElRadioGroup, ElSwitch } from 'element-plus'
import { computed, onBeforeUnmount, reactive, ref, watch } from 'vue'
import SendOffPreview from '../components/SendOffPreview.vue'
import { picturesOf } from '../send/pictures.ts'
import { startExport, type Running } from '../send/run.ts'
import { useShot } from '../stores/shot.ts'

const shot = useShot()
const form = reactive({ kind: 'gif' as 'gif' | 'png', stretch: 'loop' as 'loop' | 'whole', width: 640, paper: true })
const running = ref<Running | null>(null)
const progress = ref(0)
const problem = ref('')
const made = ref<{ name: string; url: string; bytes: number } | null>(null)

const format = computed(() => shot.document?.format ?? { width: 1280, height: 720, fps: 24, paper: '#fdfaf3' })
const height = computed(() => Math.max(1, Math.round((form.width * format.value.height) / format.value.width)))
const range = computed(() => {
  const whole = { from: 0, to: shot.take?.length ?? 1 }
  return form.stretch === 'loop' ? (shot.take?.loop ?? whole) : whole
})
const frames = computed(() => range.value.to - range.value.from)
const pictures = computed(() => (shot.document && shot.take ? picturesOf(shot.document, shot.take, range.value) : []))
const delays = computed(() =>
  gifDelays(
    pictures.value.map(p => p.frames),
    format.value.fps,
  ),
)
const delayWords = computed(() => {
  const all = delays.value.map(d => d.delayCs)
  return all.length > 14 ? `${all.slice(0, 14).join(', ')} …` : all.join(', ')
})
const total = computed(() => delays.value.reduce((sum, d) => sum + d.delayCs, 0))
const sizes = computed(() => [...new Set([format.value.width, 1280, 640, 320])].filter(w => w <= format.value.width))
const blanks = computed(() => pictures.value.filter(p => p.blank).reduce((sum, p) => sum + p.frames, 0))

watch(
  () => format.value.width,
  w => (form.width = Math.min(form.width, w)),
  { immediate: true },
)
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
  const job = startExport(
    {
      document,
      take,
      range: range.value,
      kind: form.kind,
      width: form.width,
      height: height.value,
      paper: form.paper,
      bytesOf: shot.strokeBytes,
    },
    share => (progress.value = share),
  )
  running.value = job
  try {
    const bytes = await job.done
    if (!bytes) return
    const type = form.kind === 'gif' ? 'image/gif' : 'application/zip'
    const url = URL.createObjectURL(new Blob([bytes], { type }))
    const name = `${
      shot.name
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-|-$/g, '') || 'shot'
    }.${form.kind === 'gif' ? 'gif' : 'zip'}`
    made.value = { name, url, bytes: bytes.length }
  } catch (error) {
    problem.value = `That did not work: ${(error as Error).message}`
  } finally {
    running.value = null
  }
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
      <SendOffPreview :range="range" :paper="form.paper" :width="form.width" :height="height" />
    </main>
    <aside class="side" aria-label="What to send">
      <h2>Send off</h2>
      <section>
        <span id="as" class="label">as</span>
        <ElRadioGroup v-model="form.kind" aria-labelledby="as" :disabled="!!running">
          <ElRadioButton value="gif">looping GIF</ElRadioButton>
          <ElRadioButton value="png">numbered PNGs</ElRadioButton>
        </ElRadioGroup>
      </section>
      <section>
        <span id="which" class="label">frames</span>
        <ElRadioGroup v-model="form.stretch" aria-labelledby="which" :disabled="!!running">
          <ElRadioButton value="loop">the loop</ElRadioButton>
          <ElRadioButton value="whole">the whole shot</ElRadioButton>
        </ElRadioGroup>
      </section>
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
          <span>× {{ height }} px</span>
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
        <label class="label" for="paper">with the paper</label>
        <ElSwitch id="paper" v-model="form.paper" :disabled="!!running" aria-label="With the paper" />
      </section>
      <dl>
        <dt>frames {{ range.from + 1 }}–{{ range.to }}</dt>
        <dd>{{ frames }} at {{ format.fps }}</dd>
        <dt>lasts</dt>
        <dd>{{ secondsLabel(frames, format.fps) }}</dd>
        <template v-if="form.kind === 'gif'">
          <dt>pictures</dt>
          <dd>{{ delays.length }}</dd>
          <dt>delays, 1/100 s</dt>
          <dd class="delays">{{ delayWords }}</dd>
          <dt>together</dt>
          <dd>{{ (total / 100).toFixed(2) }} s</dd>
        </template>
        <template v-else>
          <dt>files</dt>
          <dd>{{ frames }}, 0001.png …</dd>
        </template>
      </dl>
      <p v-if="blanks" class="rust">{{ blanks }} of these frames show no drawing: a blink of nothing.</p>
      <div class="go">
        <template v-if="running">
          <ElProgress :percentage="Math.round(progress * 100)" :stroke-width="8" />
          <ElButton size="large" @click="running.cancel()">Stop</ElButton>
        </template>
        <ElButton v-else type="primary" size="large" :disabled="pictures.length === 0" @click="send">{{
          form.kind === 'gif' ? 'Make the GIF' : 'Make the PNGs'
        }}</ElButton>
        <p v-if="problem" class="rust" role="alert">{{ problem }}</p>
        <p v-if="made" class="made" role="status">
          Done: {{ sizeWords(made.bytes) }}.
          <a :href="made.url" :download="made.name">Save {{ made.name }}</a>
        </p>
      </div>
      <p class="care soft">
        Look at it once before sharing: pictures that flash more than three times a second can trigger seizures.
      </p>
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
  padding: 24px 28px;
  display: flex;
  flex-direction: column;
  gap: 15px;
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

dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 4px 14px;
  padding: 12px 0;
  border-top: 1px solid var(--rule);
  border-bottom: 1px solid var(--rule);
}

dt {
  color: var(--soft);
}

dd {
  text-align: right;
}

.go {
  display: flex;
  flex-direction: column;
  gap: 10px;
}

.made a {
  font-weight: 700;
}

.care {
  margin-top: auto;
  font-size: 12.5px;
}
</style>
