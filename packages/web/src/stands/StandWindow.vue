<script setup lang="ts">
import { shareOf } from '@unhurried/core/models'
import type { Point } from '@unhurried/core/geometry'
import { useElementSize } from '@vueuse/core'
import { FlipHorizontal2, Maximize, Minus, Pipette, Plus, RotateCcw, RotateCw, X } from 'lucide-vue-next'
import { computed, ref, watch } from 'vue'
import { arrowOf } from '../keys/arrows.ts'
import NumberField from '../shared/NumberField.vue'
import { useModels } from '../stores/models.ts'
import { useShot } from '../stores/shot.ts'
import { useStands } from '../stores/stands.ts'
import { colourAt, SOURCES } from './sources.ts'
import { PLAIN_VIEW, STAND_PX, type Stand, type Step } from '../paint/stand.ts'
import StandColour from './StandColour.vue'
import StandPicture from './StandPicture.vue'

/** A small window beside the paper: dragged by its head, pulled at its corner; what stands in it is looked at more nearly, and colours are taken from it. */
const props = defineProps<{ stand: Stand; frame: number }>()
const shot = useShot()
const models = useModels()
const stands = useStands()
const source = SOURCES[props.stand.of]()
const words = computed(() => source.words(props.stand, props.frame))
const seen = computed(() => source.seen(props.stand, props.frame))
const card = computed(() => models.all.find(one => one.id === props.stand.id) ?? null)
const sides = computed(() => (props.stand.of === 'model' ? (card.value?.model.views ?? []) : []))
const side = computed(() => sides.value.find(view => view.id === props.stand.side) ?? sides.value[0] ?? null)
const change = (patch: Partial<Omit<Stand, 'key'>>) => stands.change(props.stand.key, patch)
const picture = ref<InstanceType<typeof StandPicture> | null>(null)

// As large as it was pulled, from one evening to the next.
const room = ref<HTMLElement | null>(null)
const { width, height } = useElementSize(room)
watch([width, height], ([w, h]) => {
  if (w > 0 && h > 0)
    change({ width: Math.max(STAND_PX.least, Math.round(w)), height: Math.max(STAND_PX.least, Math.round(h)) })
})

let held: { readonly pointer: number; readonly x: number; readonly y: number } | null = null
function take(event: PointerEvent): void {
  if ((event.target as Element).closest('button, input, select')) return
  held = { pointer: event.pointerId, x: event.clientX - props.stand.x, y: event.clientY - props.stand.y }
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}
const window = ref<HTMLElement | null>(null)
/** Its head always stays where it can be taken. */
function put(x: number, y: number): void {
  const around = window.value?.offsetParent?.getBoundingClientRect()
  const most = { x: (around?.width ?? 800) - 60, y: (around?.height ?? 600) - 30 }
  change({
    x: Math.round(Math.max(-props.stand.width + 80, Math.min(most.x, x))),
    y: Math.round(Math.max(0, Math.min(most.y, y))),
  })
}
function drag(event: PointerEvent): void {
  if (held?.pointer === event.pointerId) put(event.clientX - held.x, event.clientY - held.y)
}
/** An arrow key moves the window by so many screen pixels. */
const NUDGE_PX = 12
function nudge(event: KeyboardEvent): void {
  const by = arrowOf(event)
  if (!by || event.target !== event.currentTarget) return
  event.preventDefault()
  event.stopPropagation()
  put(props.stand.x + NUDGE_PX * by.x, props.stand.y + NUDGE_PX * by.y)
}

/** What a press into the picture is for, besides shifting it. */
const asks = ref<'colour' | 'height' | null>(null)
const points = ref(false)
const toggle = (what: 'colour' | 'height') => (asks.value = asks.value === what ? null : what)
const taken = ref<string | null>(null)
function place(at: Point): void {
  if (asks.value === 'height' && card.value && side.value) {
    const share = Math.round(shareOf(side.value, at) * 1000) / 1000
    void models.addHeight(card.value, { name: `height ${card.value.model.heights.length + 1}`, share })
    asks.value = null
  } else if (asks.value === 'colour' && seen.value) taken.value = colourAt(seen.value, at)
}
const STEP_WORDS: Record<Step, string> = { laid: 'as it is laid', frame: 'same frame', second: 'same second' }
function movePoint(which: 'low' | 'high', at: Point): void {
  const view = side.value
  if (!card.value || !view) return
  const within = (n: number, most: number) => Math.round(Math.max(0, Math.min(most, n)) * 10) / 10
  moved.value = {
    ...(moved.value ?? { low: view.low, high: view.high }),
    [which]: { x: within(at.x, view.widthPx), y: within(at.y, view.heightPx) },
  }
}
/** The two points in the hand; they are kept once it lets go. */
const moved = ref<{ readonly low: Point; readonly high: Point } | null>(null)
async function keepPoints(): Promise<void> {
  const [now, view, to] = [card.value, side.value, moved.value]
  if (now && view && to) await models.changeView(now, view.id, to)
  if (moved.value === to) moved.value = null
}
const shownSeen = computed(() => {
  const one = seen.value
  return one?.view && moved.value ? { ...one, view: { ...one.view, view: { ...one.view.view, ...moved.value } } } : one
})
</script>

<template>
  <section
    v-if="words"
    ref="window"
    class="stand"
    :style="{ left: `${stand.x}px`, top: `${stand.y}px` }"
    :aria-label="`${words.title}, beside the paper`"
  >
    <header
      tabindex="0"
      role="group"
      :aria-label="`${words.title}: move this window with the arrow keys`"
      @pointerdown="take"
      @pointermove="drag"
      @pointerup="held = null"
      @pointercancel="held = null"
      @keydown="nudge"
    >
      <b>{{ words.title }}</b>
      <span v-if="words.told" class="soft told">{{ words.told }}</span>
      <button
        class="plain icon"
        :aria-label="`Put ${words.title} away`"
        title="Put it away"
        @click="stands.remove(stand.key)"
      >
        <X :size="14" />
      </button>
    </header>
    <p v-if="sides.length > 1" class="sides" role="radiogroup" aria-label="Side">
      <button
        v-for="view in sides"
        :key="view.id"
        class="plain"
        role="radio"
        :aria-checked="view.id === side?.id"
        :class="{ on: view.id === side?.id }"
        @click="change({ side: view.id })"
      >
        {{ view.name }}
      </button>
    </p>
    <div ref="room" class="room" :style="{ width: `${stand.width}px`, height: `${stand.height}px` }">
      <StandPicture
        ref="picture"
        :stand="stand"
        :seen="shownSeen"
        :width="width || stand.width"
        :height="height || stand.height"
        :name="words.title"
        :asks="asks !== null"
        :points="points"
        @place="place"
        @low="at => movePoint('low', at)"
        @high="at => movePoint('high', at)"
        @done="keepPoints"
        @lost="moved = null"
      />
    </div>
    <footer>
      <button class="plain icon" aria-label="Nearer" title="Nearer (or the wheel)" @click="picture?.zoomBy(1.25)">
        <Plus :size="14" />
      </button>
      <button class="plain icon" aria-label="Farther" title="Farther" @click="picture?.zoomBy(0.8)">
        <Minus :size="14" />
      </button>
      <button class="plain icon" aria-label="Turn it left" title="Turn it left" @click="picture?.turnBy(-15)">
        <RotateCcw :size="14" />
      </button>
      <button class="plain icon" aria-label="Turn it right" title="Turn it right" @click="picture?.turnBy(15)">
        <RotateCw :size="14" />
      </button>
      <button
        class="plain icon"
        aria-label="Mirrored"
        title="Mirrored"
        :aria-pressed="stand.mirrored"
        @click="change({ mirrored: !stand.mirrored })"
      >
        <FlipHorizontal2 :size="14" />
      </button>
      <button class="plain icon" aria-label="All of it" title="All of it, straight" @click="change(PLAIN_VIEW)">
        <Maximize :size="14" />
      </button>
      <button
        v-if="shot.mayDraw"
        class="plain icon"
        aria-label="Take a colour"
        title="Take a colour: press on it"
        :aria-pressed="asks === 'colour'"
        @click="toggle('colour')"
      >
        <Pipette :size="14" />
      </button>
      <label class="bright" title="Brightened, for looking">
        <input
          type="range"
          min="0"
          max="1"
          step="0.05"
          :value="stand.bright"
          aria-label="Brightened, for looking"
          @input="event => change({ bright: Number((event.target as HTMLInputElement).value) })"
        />
      </label>
    </footer>
    <p v-if="stand.of === 'model' && shot.mayDraw && side" class="more">
      <button class="plain word" :aria-pressed="asks === 'height'" @click="toggle('height')">
        {{ asks === 'height' ? 'press where it lies' : 'a height' }}
      </button>
      <button
        class="plain word"
        :aria-pressed="points"
        title="Two points that mean the same on all sides: sole and crown"
        @click="points = !points"
      >
        its two points
      </button>
    </p>
    <p v-if="stand.of === 'clip'" class="more">
      <select
        :value="stand.step"
        aria-label="Which of its pictures"
        @change="event => change({ step: (event.target as HTMLSelectElement).value as Step })"
      >
        <option v-for="(said, step) in STEP_WORDS" :key="step" :value="step">{{ said }}</option>
      </select>
      <NumberField
        :value="stand.offset"
        :take="n => n !== null && change({ offset: Math.round(n) })"
        :least="-10000"
        :most="10000"
        :step="1"
        label="Frames ahead"
      />
      <span class="soft">frames ahead</span>
    </p>
    <StandColour
      v-if="taken"
      class="more"
      :colour="taken"
      :from="words.title"
      @done="((taken = null), (asks = null))"
    />
  </section>
</template>

<style scoped>
.stand {
  position: absolute;
  border: 1px solid var(--rule);
  border-radius: 9px;
  background: var(--edge);
  box-shadow: 0 3px 14px var(--shadow);
  font-size: 12.5px;
  overflow: hidden;
}

header {
  display: flex;
  align-items: baseline;
  gap: 8px;
  padding: 3px 4px 3px 10px;
  cursor: move;
  touch-action: none;
}

header b {
  white-space: nowrap;
}

.told {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 11.5px;
}

.icon {
  width: 24px;
  min-height: 24px;
  padding: 0;
  line-height: 0;
}

header .icon {
  margin-left: auto;
  align-self: center;
}

.icon[aria-pressed='true'] {
  color: var(--green);
  background: var(--green-wash);
  border-radius: 5px;
}

.sides {
  display: flex;
  flex-wrap: wrap;
  gap: 0 4px;
  padding: 0 6px 2px;
}

.sides .on {
  font-weight: 700;
  box-shadow: inset 0 -2px var(--green);
  border-radius: 0;
}

.room {
  overflow: hidden;
  resize: both;
  min-width: 120px;
  min-height: 120px;
  max-width: 70vw;
  max-height: 70vh;
}

footer,
.more {
  display: flex;
  align-items: center;
  gap: 2px;
  padding: 2px 6px;
}

.more {
  gap: 4px 10px;
  flex-wrap: wrap;
}

.bright {
  margin-left: auto;
  display: flex;
}

.bright input {
  width: 64px;
  accent-color: var(--green);
}

.word {
  padding-left: 4px;
  color: var(--green);
}

select {
  min-height: 24px;
  border: 1px solid var(--rule);
  border-radius: 5px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
}
</style>
