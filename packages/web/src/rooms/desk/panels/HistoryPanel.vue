<script setup lang="ts">
import { counted } from '@unhurried/core/time'
import { restoreOps, type Drawing } from '@unhurried/core/document'
import type { VersionsReply } from '@unhurried/contract'
import { useIntervalFn } from '@vueuse/core'
import { ElDialog, ElSlider } from 'element-plus'
import { Pause, Play } from 'lucide-vue-next'
import { computed, ref, shallowRef, watch } from 'vue'
import { shot as calls } from '../../../api/calls.ts'
import type { BitmapShelf } from '../../../paint/bitmaps.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useShot } from '../../../stores/shot.ts'
import DrawingPicture from './DrawingPicture.vue'

/** A drawing as it was: any earlier version beside the present one, brought back when wanted, and its making played. */
defineProps<{ bitmaps: BitmapShelf }>()
const shown = defineModel<boolean>({ required: true })
const shot = useShot()
const desk = useDesk()
const versions = shallowRef<VersionsReply['versions']>([])
const at = ref(0)
const problem = ref('')
/** the drawing whose history was asked for, by id, for the dialog may outlive its frame */
const asked = ref<string | null>(null)
const now = computed(() => shot.drawing(asked.value))
const version = computed(() => versions.value[at.value] ?? null)
const restoring = computed(() =>
  shot.document && now.value && version.value ? restoreOps(shot.document, now.value, version.value.drawing) : null,
)
const isNow = computed(() => !restoring.value?.ops.length)
/** What of a version cannot come back, because it was removed from the shot since. */
const gone = computed(() => {
  const { marksGone = 0, coloursGone = 0 } = restoring.value ?? {}
  const said: string[] = []
  if (marksGone)
    said.push(`${counted(marksGone, 'mark')} of it ${marksGone === 1 ? 'is' : 'are'} no longer in the shot`)
  if (coloursGone)
    said.push(`the colour of ${counted(coloursGone, 'stroke')} is gone, and the first of the palette stands in for it`)
  return said.join('; ')
})

/** Pictures of the making are shown this fast, whatever time passed between them. */
const PLAY_MS = 120
const { isActive, pause, resume } = useIntervalFn(
  () => {
    if (at.value >= versions.value.length - 1) return pause()
    at.value++
  },
  PLAY_MS,
  { immediate: false },
)
function play(): void {
  if (isActive.value) return pause()
  if (at.value >= versions.value.length - 1) at.value = 0
  resume()
}

watch(shown, async open => {
  pause()
  if (!open) return
  asked.value = desk.drawing?.id ?? null
  versions.value = []
  problem.value = ''
  if (!asked.value) return
  try {
    versions.value = (await calls.versions(shot.id, asked.value)).versions
    at.value = Math.max(0, versions.value.length - 1)
  } catch (error) {
    problem.value = (error as Error).message
  }
})

const CLOCK = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
const strokes = (drawing: Drawing) => counted(Object.keys(drawing.elements).length, 'stroke')

function bringBack(): void {
  if (!now.value || !restoring.value) return
  if (!shot.commit(`bring back an earlier ${now.value.number}`, restoring.value.ops)) shown.value = false
}
</script>

<template>
  <ElDialog v-model="shown" :title="`The making of ${now?.number ?? ''}`" width="min(860px, 94vw)" align-center>
    <p v-if="problem" class="rust" role="alert">{{ problem }}</p>
    <p v-else-if="versions.length === 0" class="soft">Nothing of it is stored yet.</p>
    <template v-else-if="version && now">
      <div class="pair">
        <figure>
          <DrawingPicture :drawing="version.drawing" :bitmaps="bitmaps" :width="396" />
          <figcaption>
            <b>{{ at + 1 }} of {{ versions.length }}</b> · {{ version.label }} <br /><span class="soft"
              >{{ CLOCK.format(new Date(version.at)) }} · {{ strokes(version.drawing) }}</span
            >
          </figcaption>
        </figure>
        <figure>
          <DrawingPicture :drawing="now" :bitmaps="bitmaps" :width="396" />
          <figcaption>
            <b>now</b>
            <br /><span class="soft">{{ strokes(now) }}</span>
          </figcaption>
        </figure>
      </div>
      <div class="row">
        <button class="plain" :aria-label="isActive ? 'Stop' : 'Play the making'" @click="play">
          <component :is="isActive ? Pause : Play" :size="20" aria-hidden="true" />
        </button>
        <ElSlider
          v-model="at"
          :min="0"
          :max="Math.max(1, versions.length - 1)"
          :disabled="versions.length < 2"
          :show-tooltip="false"
          aria-label="Version"
          @input="pause()"
        />
        <button
          class="strong"
          :disabled="isNow || !desk.mayEdit"
          title="The drawing looks as it did then. This can be undone like anything else."
          @click="bringBack"
        >
          bring it back
        </button>
      </div>
      <p v-if="gone" class="soft">Brought back: {{ gone }}.</p>
    </template>
  </ElDialog>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 20px;
}

figure {
  margin: 0;
}

figcaption {
  margin-top: 6px;
  min-height: 40px;
  font-size: 13px;
}

.row {
  display: grid;
  grid-template-columns: 30px 1fr auto;
  gap: 18px;
  align-items: center;
  margin-top: 8px;
}

.row .plain {
  line-height: 0;
  color: var(--green);
}
</style>
