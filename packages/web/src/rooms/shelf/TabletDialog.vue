<script setup lang="ts">
import { ElDialog, ElInput } from 'element-plus'
import qrcode from 'qrcode-generator'
import { computed, ref } from 'vue'

/** The address of the desk as a code to photograph with a tablet. */
const shown = defineModel<boolean>({ required: true })
const { hostname, origin } = window.location
const isOnlyHere = /^(127\.|localhost$|\[::1\]$)/.test(hostname)
const address = ref(origin)
/** A code holds so many characters with ease. */
const MOST = 200
const QUIET = 4

const code = computed(() => {
  const text = address.value.trim()
  if (!/^https?:\/\/[^\s/]+/.test(text) || text.length > MOST) return null
  const made = qrcode(0, 'M')
  made.addData(text)
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
  <ElDialog v-model="shown" title="From a tablet" width="460px" align-center>
    <div class="both">
      <svg v-if="code" :viewBox="`0 0 ${code.size} ${code.size}`" role="img" :aria-label="`Code for ${address}`">
        <rect :width="code.size" :height="code.size" fill="#fff" />
        <path :d="code.path" fill="#000" />
      </svg>
      <p v-else class="none soft">An address begins with http:// or https://.</p>
      <div>
        <p>Point the camera of the tablet at the code, and sit down there with the same account.</p>
        <label for="tablet-address" class="soft">address</label>
        <ElInput id="tablet-address" v-model="address" :maxlength="MOST" spellcheck="false" />
        <p v-if="isOnlyHere" class="soft">
          As it runs now, this desk answers on this machine only. The guide says how it answers on your own network,
          with TLS; then type that address here.
        </p>
        <p class="soft">
          On the tablet, “add to home screen” keeps the desk there: it opens without a connection, too.
        </p>
      </div>
    </div>
  </ElDialog>
</template>

<style scoped>
.both {
  display: grid;
  grid-template-columns: 168px 1fr;
  gap: 20px;
  align-items: start;
}

svg {
  width: 168px;
  height: 168px;
  border-radius: 4px;
}

.none {
  width: 168px;
}

p {
  margin-bottom: 10px;
}

label {
  display: block;
  margin-bottom: 3px;
}
</style>
