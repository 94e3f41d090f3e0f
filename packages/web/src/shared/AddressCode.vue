<script setup lang="ts">
import { ElInput } from 'element-plus'
import qrcode from 'qrcode-generator'
import { computed, ref, useId, watch } from 'vue'
import { kept } from '../local/kept.ts'

/** The address of the desk, or of something in it, as a code to photograph with another device. */
const props = defineProps<{
  /** what the device is called: tablet, telephone */
  device: string
  /** what stands behind the address of the desk; empty for the desk itself */
  path?: string
}>()
const { hostname, origin } = window.location
const isOnlyHere = /^(127\.|localhost$|\[::1\]$)/.test(hostname)
/** The address as it is reached from other devices is typed once; where the desk is opened by such an address, that one counts. */
const own = kept('address')
const before = own.read()
const address = ref(isOnlyHere && typeof before === 'string' ? before : origin)
watch(address, now => own.write(now))
const field = useId()
/** A code holds so many characters with ease. */
const MOST = 200
const QUIET = 4

const whole = computed(() => address.value.trim().replace(/\/+$/, '') + (props.path ?? ''))
const code = computed(() => {
  if (!/^https?:\/\/[^\s/]+/.test(address.value.trim()) || address.value.length > MOST) return null
  const made = qrcode(0, 'M')
  made.addData(whole.value)
  made.make()
  const n = made.getModuleCount()
  const dark = Array.from({ length: n * n }, (_, i) => i).filter(i => made.isDark(Math.floor(i / n), i % n))
  return {
    size: n + 2 * QUIET,
    path: dark.map(i => `M${(i % n) + QUIET} ${Math.floor(i / n) + QUIET}h1v1h-1z`).join(''),
  }
})
</script>

<template>
  <div class="both">
    <svg v-if="code" :viewBox="`0 0 ${code.size} ${code.size}`" role="img" :aria-label="`Code for ${address}`">
      <rect :width="code.size" :height="code.size" fill="#fff" />
      <path :d="code.path" fill="#000" />
    </svg>
    <p v-else class="none soft">An address begins with http:// or https://.</p>
    <div>
      <slot />
      <label :for="field" class="soft">address of this desk</label>
      <ElInput :id="field" v-model="address" :maxlength="MOST" spellcheck="false" />
      <p v-if="isOnlyHere" class="soft">
        As it runs now, this desk answers on this machine only. The guide says how it answers on your own network, with
        TLS; then type here by which address the {{ device }} reaches it.
      </p>
      <slot name="after" />
    </div>
  </div>
</template>

<style scoped>
.both {
  display: grid;
  grid-template-columns: var(--code-size, 168px) 1fr;
  gap: 20px;
  align-items: start;
}

svg {
  width: 100%;
  border-radius: 4px;
}

p,
:slotted(p) {
  margin-bottom: 10px;
}

.el-input {
  margin-bottom: 6px;
}

label {
  display: block;
  margin-bottom: 3px;
}
</style>
