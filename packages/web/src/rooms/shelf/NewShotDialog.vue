<script setup lang="ts">
import type { NewShot } from '@unhurried/contract'
import { counted, readLength, secondsLabel, timecode } from '@unhurried/core/time'
import { drawingsNeeded } from '@unhurried/core/work'
import {
  ElButton,
  ElColorPicker,
  ElDialog,
  ElForm,
  ElFormItem,
  ElInput,
  ElInputNumber,
  ElRadioButton,
  ElRadioGroup,
} from 'element-plus'
import { computed, reactive, ref, watch } from 'vue'
import { Refused } from '../../api/ask.ts'
import { lengthFault } from '../../words/lengths.ts'

const props = defineProps<{ make: (shot: NewShot) => Promise<unknown> }>()
const shown = defineModel<boolean>({ required: true })

const DESTINATIONS = [
  { name: 'wide video', width: 1920, height: 1080 },
  { name: 'small wide', width: 1280, height: 720 },
  { name: 'tall, for a phone', width: 1080, height: 1920 },
  { name: 'square post', width: 1080, height: 1080 },
  { name: 'game sprite', width: 64, height: 64 },
]
const RATES = [8, 10, 12, 15, 24, 25, 30]
const PAPERS = ['#fdfaf3', '#ffffff', '#efe6d2', '#dfe6e4', '#2f3a44']
const form = reactive({ name: '', width: 1280, height: 720, fps: 24, length: '36', paper: '#fdfaf3' })
const faults = reactive<Record<string, string>>({})
const busy = ref(false)

const reading = computed(() => readLength(form.length, form.fps))
const said = computed(() => {
  const r = reading.value
  if (!r.ok) return lengthFault(r.code)
  const rounded = r.exact ? '' : `${r.wished.toFixed(1)} frames is no whole number: `
  return `${rounded}${counted(r.frames, 'frame')} · ${secondsLabel(r.frames, form.fps)} · ${timecode(r.frames, form.fps)} · ${counted(drawingsNeeded(r.frames, 2), 'drawing')} on twos, ${r.frames} on ones`
})
const destination = computed(
  () => DESTINATIONS.find(d => d.width === form.width && d.height === form.height)?.name ?? '',
)
const ratio = computed(() => ({
  width: `${(form.width / Math.max(form.width, form.height)) * 54}px`,
  height: `${(form.height / Math.max(form.width, form.height)) * 54}px`,
  background: form.paper,
}))

watch(shown, () => Object.keys(faults).forEach(key => delete faults[key]))

async function submit(): Promise<void> {
  Object.keys(faults).forEach(key => delete faults[key])
  const r = reading.value
  if (!form.name.trim()) faults.name = 'A shot needs a name.'
  if (!r.ok) faults.length = lengthFault(r.code)
  if (!r.ok || faults.name) return
  busy.value = true
  const { width, height, fps, paper } = form
  try {
    await props.make({ name: form.name, format: { width, height, fps, paper }, frames: r.frames })
    shown.value = false
    form.name = ''
  } catch (error) {
    if (error instanceof Refused && error.details.length) {
      for (const { field, problem } of error.details) faults[field.split('.').pop() ?? ''] = problem
    } else faults.name = (error as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <ElDialog v-model="shown" title="A new shot" width="620px" align-center>
    <ElForm label-position="top" @submit.prevent="submit">
      <ElFormItem label="Name" :error="faults.name"
        ><ElInput v-model="form.name" placeholder="Ripples" maxlength="80"
      /></ElFormItem>
      <ElFormItem label="Where it will be shown" :error="faults.width ?? faults.height">
        <div class="places">
          <button
            v-for="d in DESTINATIONS"
            :key="d.name"
            type="button"
            class="place"
            :class="{ on: d.name === destination }"
            :aria-pressed="d.name === destination"
            @click="((form.width = d.width), (form.height = d.height))"
          >
            {{ d.name }}<small>{{ d.width }} × {{ d.height }}</small>
          </button>
        </div>
        <div class="size">
          <ElInputNumber
            v-model="form.width"
            :min="1"
            :max="8192"
            controls-position="right"
            aria-label="Width in pixels"
          />
          <span>×</span>
          <ElInputNumber
            v-model="form.height"
            :min="1"
            :max="8192"
            controls-position="right"
            aria-label="Height in pixels"
          />
          <span class="ratio"><i :style="ratio" /></span>
        </div>
      </ElFormItem>
      <div class="two">
        <ElFormItem label="Frames a second">
          <ElRadioGroup v-model="form.fps" size="small">
            <ElRadioButton v-for="rate in RATES" :key="rate" :value="rate">{{ rate }}</ElRadioButton>
          </ElRadioGroup>
        </ElFormItem>
        <ElFormItem label="Paper">
          <div class="papers">
            <button
              v-for="paper in PAPERS"
              :key="paper"
              type="button"
              class="sheet"
              :class="{ on: paper === form.paper }"
              :style="{ background: paper }"
              :aria-label="`Paper ${paper}`"
              :aria-pressed="paper === form.paper"
              @click="form.paper = paper"
            />
            <ElColorPicker v-model="form.paper" :predefine="PAPERS" aria-label="Paper colour" />
          </div>
        </ElFormItem>
      </div>
      <ElFormItem label="Length, in frames or seconds" :error="faults.length">
        <ElInput v-model="form.length" placeholder="36 or 1.5 s" />
        <p class="said" :class="reading.ok ? 'soft' : 'rust'" role="status">{{ said }}</p>
      </ElFormItem>
      <div class="end">
        <ElButton @click="shown = false">Not now</ElButton>
        <ElButton type="primary" native-type="submit" :loading="busy">Lay it on the desk</ElButton>
      </div>
    </ElForm>
  </ElDialog>
</template>

<style scoped>
.places {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  line-height: 1.3;
}

.place {
  border: 1px solid var(--rule);
  border-radius: 6px;
  background: var(--paper);
  padding: 6px 10px;
  cursor: pointer;
  text-align: left;
}

.place small {
  display: block;
  color: var(--soft);
}

.place.on {
  border-color: var(--green);
  box-shadow: inset 0 0 0 1px var(--green);
}

.size {
  display: flex;
  align-items: center;
  gap: 10px;
  margin-top: 10px;
}

.ratio {
  display: grid;
  place-items: center;
  width: 60px;
  height: 56px;
}

.ratio i {
  display: block;
  border: 1px solid var(--past);
}

.two {
  display: flex;
  justify-content: space-between;
  gap: 20px;
}

.papers {
  display: flex;
  align-items: center;
  gap: 7px;
}

.sheet {
  width: 24px;
  height: 24px;
  border: 1px solid var(--past);
  border-radius: 3px;
  cursor: pointer;
}

.sheet.on {
  box-shadow:
    0 0 0 2px var(--edge),
    0 0 0 4px var(--green);
}

.said {
  line-height: 1.4;
  margin-top: 5px;
  font-size: 13px;
}

.end {
  display: flex;
  justify-content: flex-end;
}
</style>
