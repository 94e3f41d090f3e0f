<script setup lang="ts">
import type { ShotCard } from '@unhurried/contract'
import { counted, secondsLabel } from '@unhurried/core/time'
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { Ellipsis, GripVertical } from 'lucide-vue-next'
import { computed, ref, shallowRef } from 'vue'
import { RouterLink } from 'vue-router'
import type { ContactSheet } from '../../stores/contactSheet.ts'
import { studyInWords } from '../../words/study.ts'
import ShotThumbnail from './ShotThumbnail.vue'

defineProps<{ shot: ShotCard; mayChange: boolean; mayOrder: boolean; first: boolean; last: boolean }>()
const emit = defineEmits<{ rename: []; duplicate: []; remove: []; move: [by: -1 | 1] }>()
/** One stop of the Tab key for a card: what more there is to do comes in reach when the card is. */
const inReach = ref(false)
const sheet = shallowRef<ContactSheet | null>(null)
const progress = computed(() => {
  const count = sheet.value?.count
  if (!count) return ''
  if (count.drawings === 0) return 'nothing drawn yet'
  return count.left
    ? `${count.drawn} of ${counted(count.drawings, 'drawing')}, ${count.left} to go`
    : `${counted(count.drawings, 'drawing')}, all drawn`
})
const share = computed(() => (sheet.value?.count.drawings ? sheet.value.count.drawn / sheet.value.count.drawings : 0))

type Chosen = 'rename' | 'duplicate' | 'remove' | 'earlier' | 'later'
function chosen(command: Chosen): void {
  if (command === 'rename') emit('rename')
  else if (command === 'earlier') emit('move', -1)
  else if (command === 'later') emit('move', 1)
  else if (command === 'duplicate') emit('duplicate')
  else emit('remove')
}
</script>

<template>
  <article class="card" @focusin="inReach = true" @focusout="inReach = false">
    <RouterLink
      class="opens"
      :to="{ name: 'desk', params: { shot: shot.id }, query: { frame: 1 } }"
      :aria-label="`Open ${shot.name}`"
      draggable="false"
    >
      <ShotThumbnail :shot="shot" @known="now => (sheet = now)" />
    </RouterLink>
    <div class="words">
      <RouterLink class="name" :to="{ name: 'desk', params: { shot: shot.id }, query: { frame: 1 } }" tabindex="-1">{{
        shot.name
      }}</RouterLink>
      <ElDropdown v-if="mayChange" trigger="click" @command="chosen">
        <button class="plain more" :tabindex="inReach ? 0 : -1" :aria-label="`More for ${shot.name}`">
          <Ellipsis :size="18" aria-hidden="true" />
        </button>
        <template #dropdown>
          <ElDropdownMenu>
            <ElDropdownItem command="rename">Rename …</ElDropdownItem>
            <ElDropdownItem command="duplicate">Duplicate</ElDropdownItem>
            <ElDropdownItem v-if="mayOrder" command="earlier" :disabled="first">Lay it earlier</ElDropdownItem>
            <ElDropdownItem v-if="mayOrder" command="later" :disabled="last">Lay it later</ElDropdownItem>
            <ElDropdownItem command="remove" divided>Remove</ElDropdownItem>
          </ElDropdownMenu>
        </template>
      </ElDropdown>
      <span v-if="mayOrder" class="grip" title="Drag to lay it elsewhere" aria-hidden="true">
        <GripVertical :size="16" />
      </span>
      <p v-if="sheet" class="soft">
        {{ counted(sheet.frames, 'frame') }} · {{ secondsLabel(sheet.frames, sheet.fps) }} at {{ sheet.fps }} ·
        {{ sheet.size.width }} × {{ sheet.size.height }}
      </p>
      <p v-if="sheet?.study.length" class="study">{{ studyInWords(sheet.study) }}</p>
      <p class="soft">{{ progress }}</p>
      <div class="bar" aria-hidden="true"><i :style="{ width: `${share * 100}%` }" /></div>
    </div>
  </article>
</template>

<style scoped>
.card {
  background: var(--paper);
  border: 1px solid var(--rule);
  border-radius: 8px;
  overflow: hidden;
}

.words {
  position: relative;
  padding: 10px 14px 14px;
  border-top: 1px solid var(--rule);
  font-size: 13px;
}

.name {
  display: block;
  font: 500 16px/1.5 var(--serif);
  color: var(--ink);
  text-decoration: none;
  padding-right: 56px;
}

.name:hover {
  text-decoration: underline;
  text-underline-offset: 4px;
}

.study {
  color: var(--rust);
}

.el-dropdown {
  position: absolute;
  right: 10px;
  top: 10px;
}

.more {
  line-height: 0;
  color: var(--soft);
}

.grip {
  position: absolute;
  right: 40px;
  top: 13px;
  line-height: 0;
  color: var(--soft);
  opacity: 0;
  cursor: grab;
}

.card:hover .grip {
  opacity: 1;
}

.card:focus-within {
  border-color: var(--green);
  box-shadow: 0 0 0 2px var(--green-wash);
}

.bar {
  height: 3px;
  margin-top: 9px;
  background: var(--rule-faint);
  border-radius: 2px;
}

.bar i {
  display: block;
  height: 100%;
  background: var(--green);
  border-radius: 2px;
}
</style>
