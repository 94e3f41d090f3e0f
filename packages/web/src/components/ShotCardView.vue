<script setup lang="ts">
import type { ShotCard } from '@unhurried/contract'
import { secondsLabel } from '@unhurried/core/time'
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { Ellipsis } from 'lucide-vue-next'
import { computed, shallowRef } from 'vue'
import { RouterLink } from 'vue-router'
import type { ContactSheet } from '../stores/contactSheet.ts'
import ShotThumbnail from './ShotThumbnail.vue'

defineProps<{ shot: ShotCard; mayChange: boolean }>()
const emit = defineEmits<{ rename: []; duplicate: []; remove: [] }>()
const sheet = shallowRef<ContactSheet | null>(null)
const progress = computed(() => {
  const count = sheet.value?.count
  if (!count) return ''
  if (count.drawings === 0) return 'nothing drawn yet'
  return count.left
    ? `${count.drawn} of ${count.drawings} drawings, ${count.left} to go`
    : `${count.drawings} drawings, all drawn`
})
const share = computed(() => (sheet.value?.count.drawings ? sheet.value.count.drawn / sheet.value.count.drawings : 0))

function chosen(command: 'rename' | 'duplicate' | 'remove'): void {
  if (command === 'rename') emit('rename')
  else if (command === 'duplicate') emit('duplicate')
  else emit('remove')
}
</script>

<template>
  <article class="card">
    <RouterLink
      :to="{ name: 'desk', params: { shot: shot.id }, query: { frame: 1 } }"
      :aria-label="`Open ${shot.name}`"
    >
      <ShotThumbnail :shot="shot" @known="now => (sheet = now)" />
    </RouterLink>
    <div class="words">
      <RouterLink class="name" :to="{ name: 'desk', params: { shot: shot.id }, query: { frame: 1 } }" tabindex="-1">{{
        shot.name
      }}</RouterLink>
      <ElDropdown v-if="mayChange" trigger="click" @command="chosen">
        <button class="plain more" :aria-label="`More for ${shot.name}`">
          <Ellipsis :size="18" aria-hidden="true" />
        </button>
        <template #dropdown>
          <ElDropdownMenu>
            <ElDropdownItem command="rename">Rename …</ElDropdownItem>
            <ElDropdownItem command="duplicate">Duplicate</ElDropdownItem>
            <ElDropdownItem command="remove">Remove</ElDropdownItem>
          </ElDropdownMenu>
        </template>
      </ElDropdown>
      <p v-if="sheet" class="soft">
        {{ sheet.frames }} frames · {{ secondsLabel(sheet.frames, sheet.fps) }} at {{ sheet.fps }} ·
        {{ sheet.size.width }} × {{ sheet.size.height }}
      </p>
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
  padding-right: 28px;
}

.name:hover {
  text-decoration: underline;
  text-underline-offset: 4px;
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
