<script setup lang="ts">
import type { ShotCard } from '@unhurried/contract'
import { useElementHover, useElementVisibility } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import { makePlayback } from '../../paint/playback.ts'
import { contactSheet, type ContactSheet } from '../../stores/contactSheet.ts'

const props = defineProps<{ shot: ShotCard }>()
const emit = defineEmits<{ known: [sheet: ContactSheet] }>()
const box = ref<HTMLElement | null>(null)
const canvas = ref<HTMLCanvasElement | null>(null)
const sheet = shallowRef<ContactSheet | null>(null)
const failed = ref(false)
const visible = useElementVisibility(box)
const hovered = useElementHover(box)
const still = matchMedia('(prefers-reduced-motion: reduce)').matches

function lay(now: ContactSheet): void {
  sheet.value = now
  emit('known', now)
}

watch(
  [visible, () => props.shot.seq],
  async ([seen]) => {
    if (!seen) return
    try {
      lay(await contactSheet(props.shot, lay))
    } catch {
      failed.value = true
    }
  },
  { immediate: true },
)

const total = computed(() => sheet.value?.pictures.reduce((sum, p) => sum + p.frames, 0) ?? 1)

function show(frame: number): void {
  const brush = canvas.value?.getContext('2d')
  if (!sheet.value || !brush) return
  let passed = 0
  const picture = sheet.value.pictures.find(p => (passed += p.frames) > frame)
  if (picture) brush.drawImage(picture.bitmap, 0, 0)
}

const playback = makePlayback({ show })
watch([sheet, visible, hovered], ([now, seen]) => {
  playback.stop()
  if (!now || !seen) return
  requestAnimationFrame(() => {
    if (still && !hovered.value) show(0)
    else if (now.pictures.length > 1) playback.start(0, now.fps, { from: 0, to: total.value }, true)
    else show(0)
  })
})
onBeforeUnmount(playback.stop)
const pixels = computed(() => sheet.value?.pictures[0]?.bitmap)
</script>

<template>
  <div ref="box" class="thumb">
    <canvas v-if="pixels" ref="canvas" :width="pixels.width" :height="pixels.height" aria-hidden="true" />
    <span v-else-if="sheet" class="plain-sheet soft" :style="{ background: sheet.paper }">
      {{ sheet.state === 'painting' ? 'being painted …' : 'too much on it to be painted small' }}
    </span>
    <span v-else-if="failed" class="soft">cannot be read</span>
  </div>
</template>

<style scoped>
.thumb {
  aspect-ratio: 16 / 10;
  background: var(--desk);
  display: grid;
  place-items: center;
  padding: 12px;
  overflow: hidden;
}

.plain-sheet {
  width: 100%;
  height: 100%;
  display: grid;
  place-items: center;
  padding: 14px;
  text-align: center;
  font-size: 13px;
  box-shadow: 0 1px 5px rgb(90 74 48 / 20%);
}

canvas {
  max-width: 100%;
  max-height: 100%;
  min-height: 0;
  box-shadow: 0 1px 5px rgb(90 74 48 / 20%);
}
</style>
