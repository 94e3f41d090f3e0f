<script setup lang="ts">
import { find } from '@unhurried/core/document'
import { counted, readLength, secondsLabel, timecode } from '@unhurried/core/time'
import { ElInput, ElInputNumber } from 'element-plus'
import { computed, ref } from 'vue'
import { EXPOSURES } from '../../../words/exposures.ts'
import type { Commands } from '../commands.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useShot } from '../../../stores/shot.ts'
import { lengthInWords } from '../../../words/lengths.ts'
import CyclePanel from './CyclePanel.vue'

/** Everything that can be done with marked frames: by mouse, or from field to field with the keyboard. */
const props = defineProps<{ commands: Commands; wide?: boolean }>()
const shot = useShot()
const desk = useDesk()
const { sheet } = props.commands
const fps = computed(() => shot.document?.format.fps ?? 24)
const marked = computed(() => props.commands.marked.value)
const frames = computed(() => (marked.value ? marked.value.to - marked.value.from : 0))
const names = computed(() =>
  (marked.value?.layers ?? []).map(id => shot.document && find(shot.document.layers, id)?.name).join(', '),
)
const span = computed(() => {
  const m = marked.value
  if (!m) return ''
  // First and last frame as they are read on the sheet, not the moment after the last.
  return `${timecode(m.from, fps.value)} to ${timecode(m.to - 1, fps.value)}, first to last frame`
})
const exposure = ref(desk.exposure)
const times = ref(2)
const wish = ref('')
const count = ref(1)
const reading = computed(() => (wish.value.trim() ? readLength(wish.value, fps.value) : null))
const becomes = computed(() => {
  return reading.value ? lengthInWords(reading.value, fps.value) : ''
})

function stretch(): void {
  if (reading.value?.ok) sheet.retimeMarked({ kind: 'stretch', frames: reading.value.frames })
}

const from = computed({
  get: () => (marked.value?.from ?? 0) + 1,
  set: (n: number | undefined) => mark((n ?? 1) - 1, marked.value?.to ?? 1),
})
const to = computed({
  get: () => marked.value?.to ?? 1,
  set: (n: number | undefined) => mark(marked.value?.from ?? 0, n ?? 1),
})
function mark(a: number, b: number): void {
  const last = shot.take?.length ?? 1
  const start = Math.max(0, Math.min(a, last - 1))
  desk.selection = {
    layers: marked.value?.layers ?? [desk.layerId],
    from: start,
    to: Math.max(start + 1, Math.min(b, last)),
  }
}
const run = (id: string) => props.commands.get(id).run()
</script>

<template>
  <div class="acts" :class="{ wide }">
    <section>
      <p class="what">
        <b>{{ counted(frames, 'frame') }}</b> · {{ secondsLabel(frames, fps) }}
        <span class="soft">on {{ names }}</span>
      </p>
      <p class="soft small">{{ span }}</p>
      <div class="row">
        <label for="mark-from">from</label>
        <ElInputNumber
          id="mark-from"
          v-model="from"
          size="small"
          :min="1"
          :max="shot.take?.length"
          controls-position="right"
          aria-label="Mark from frame"
        />
        <label for="mark-to">to</label>
        <ElInputNumber
          id="mark-to"
          v-model="to"
          size="small"
          :min="1"
          :max="shot.take?.length"
          controls-position="right"
          aria-label="Mark to frame"
        />
      </div>
      <div class="row">
        <span>later drawings</span>
        <button
          class="plain word"
          role="switch"
          :aria-checked="desk.following === 'ripple'"
          :title="commands.tip('following', 'Whether later drawings move along with a change, or stay on their frames')"
          @click="run('following')"
        >
          {{ desk.following === 'ripple' ? 'move along' : 'stay where they are' }}
        </button>
        <span class="soft small">{{
          desk.following === 'ripple' ? 'into free frames' : 'and are not covered unasked'
        }}</span>
      </div>
    </section>

    <section aria-label="Exposure of what is marked">
      <h3>exposure</h3>
      <div class="row words">
        <button v-for="(w, i) in EXPOSURES" :key="w" class="plain word" @click="sheet.exposeOn(i + 1)">{{ w }}</button>
      </div>
      <div class="row">
        <button class="plain word" @click="sheet.exposeOn(exposure)">{{ exposure }} frames each</button>
        <ElInputNumber
          v-model="exposure"
          size="small"
          :min="1"
          :max="200"
          controls-position="right"
          aria-label="Frames for each drawing"
        />
      </div>
      <div class="row words">
        <button class="plain word" :title="commands.tip('longer', 'One frame longer')" @click="run('longer')">
          hold longer
        </button>
        <button class="plain word" :title="commands.tip('shorter', 'One frame shorter')" @click="run('shorter')">
          shorter
        </button>
      </div>
      <div class="row words">
        <button class="plain word" :title="commands.tip('hold-next')" @click="run('hold-next')">
          hold to the next
        </button>
        <button class="plain word" :title="commands.tip('hold-here')" @click="run('hold-here')">up to here</button>
        <button class="plain word" :title="commands.tip('hold-end')" @click="run('hold-end')">to the end</button>
      </div>
      <div class="row words">
        <button class="plain word" :title="commands.tip('begins-here')" @click="run('begins-here')">
          begin it here
        </button>
        <button class="plain word" :title="commands.tip('ends-here')" @click="run('ends-here')">end it here</button>
      </div>
    </section>

    <section aria-label="Order and length">
      <h3>order and length</h3>
      <div class="row words">
        <button class="plain word" :title="commands.tip('reverse')" @click="run('reverse')">reverse</button>
        <button class="plain word" :title="commands.tip('there-and-back')" @click="run('there-and-back')">
          there and back
        </button>
      </div>
      <div class="row">
        <button class="plain word" @click="sheet.retimeMarked({ kind: 'repeat', times })">repeat</button>
        <ElInputNumber
          v-model="times"
          size="small"
          :min="2"
          :max="200"
          controls-position="right"
          aria-label="Times altogether"
        />
        <span class="soft">times</span>
      </div>
      <form class="row" @submit.prevent="stretch">
        <button class="plain word" :disabled="!reading?.ok">stretch to</button>
        <ElInput v-model="wish" size="small" placeholder="36, 1.5 s, 1:12" aria-label="Length to stretch to" />
      </form>
      <p v-if="becomes" class="soft small" :class="{ rust: !reading?.ok }">{{ becomes }}</p>
      <div class="row words">
        <button class="plain word" :title="commands.tip('loop-marked')" @click="run('loop-marked')">loop these</button>
        <button class="plain word" :title="commands.tip('show')" @click="run('show')">show a number here</button>
      </div>
      <div class="row words">
        <button class="plain word" :title="commands.tip('key-earlier')" @click="sheet.slideBy(-1)">slide up</button>
        <button class="plain word" :title="commands.tip('key-later')" @click="sheet.slideBy(1)">slide down</button>
      </div>
    </section>

    <section aria-label="Frames put in and taken out">
      <h3>frames</h3>
      <div class="row">
        <button class="plain word" @click="sheet.insertFrames(count)">insert</button>
        <ElInputNumber
          v-model="count"
          size="small"
          :min="1"
          :max="2000"
          controls-position="right"
          aria-label="Frames to insert"
        />
        <span class="soft">on all layers</span>
      </div>
      <div class="row words">
        <button class="plain word" @click="run('take-out')">take out, all layers</button>
        <button class="plain word" @click="sheet.takeOutMarked">only here</button>
      </div>
      <div class="row words">
        <button class="plain word" @click="sheet.keepMarked">keep only {{ from }}–{{ to }}</button>
      </div>
    </section>

    <section aria-label="Copying">
      <h3>copy and paste</h3>
      <div class="row words">
        <button class="plain word" :title="commands.tip('copy-frames')" @click="run('copy-frames')">copy</button>
        <button class="plain word" :title="commands.tip('cut-frames')" @click="run('cut-frames')">cut</button>
      </div>
      <div class="row words">
        <button
          class="plain word"
          :title="commands.tip('paste-share', 'The same drawings shown again, where they come from this layer')"
          @click="run('paste-share')"
        >
          paste the same
        </button>
        <button
          class="plain word"
          :title="commands.tip('paste-copies', 'New drawings of their own')"
          @click="run('paste-copies')"
        >
          paste copies
        </button>
      </div>
    </section>

    <CyclePanel :commands="commands" />
  </div>
</template>

<style scoped>
.acts {
  display: flex;
  flex-direction: column;
  gap: 10px;
  font-size: 13px;
}

/* In a dialog: two columns, so that everything is in sight at once. */
.acts.wide {
  display: block;
  columns: 2;
  column-gap: 40px;
}

.acts.wide :deep(section) {
  break-inside: avoid;
  margin-bottom: 10px;
}

.acts :deep(section) {
  border-bottom: 1px solid var(--rule);
  padding-bottom: 10px;
}

.acts :deep(h3) {
  font: 500 14px var(--serif);
  color: var(--soft);
  margin-bottom: 3px;
}

.acts :deep(.row) {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 28px;
}

.acts :deep(.row .el-input-number) {
  width: 84px;
}

.acts :deep(.word) {
  white-space: nowrap;
  flex: none;
  color: var(--green);
  margin-left: -4px;
  text-decoration: underline;
  text-decoration-color: var(--rule);
  text-underline-offset: 4px;
}

.acts :deep(.words) {
  gap: 12px;
}

.acts :deep(.small) {
  font-size: 12px;
}

.what {
  font-size: 15px;
}
</style>
