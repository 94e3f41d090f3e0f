<script setup lang="ts">
import { counted } from '@unhurried/core/time'
import { ElDialog, ElMessage } from 'element-plus'
import { h, ref } from 'vue'
import type { Parked } from '../local/database.ts'
import { useDesk } from '../stores/desk.ts'
import { useSetAside } from '../stores/setAside.ts'
import { useShot } from '../stores/shot.ts'
import { verdictInWords } from '../words/refusals.ts'
import SetAsidePicture from './SetAsidePicture.vue'

/** Changes that the server did not take: each with its picture, to be laid down again, saved, or let go. */
const shown = defineModel<boolean>({ required: true })
const shot = useShot()
const desk = useDesk()
const aside = useSetAside()
const files = ref<HTMLInputElement | null>(null)
const CLOCK = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })

const say = (message: string, type: 'success' | 'warning') =>
  message && ElMessage({ message, type, duration: 6000, showClose: true })

async function layDown(parked: Parked): Promise<boolean> {
  const { done, words } = await aside.layDown(parked, desk.drawing)
  say(words, done ? 'success' : 'warning')
  return done
}

/** All of them in the order they were done; the first that does not go stops it, for the rest may build on it. */
async function layAllDown(): Promise<void> {
  let laid = 0
  for (const parked of [...shot.parked]) {
    const { done, words } = await aside.layDown(parked, desk.drawing)
    if (!done) {
      say(words, 'warning')
      break
    }
    laid++
  }
  if (laid) say(`${counted(laid, 'change is', 'changes are')} laid down again.`, 'success')
  if (shot.parked.length === 0) shown.value = false
}

async function letGo(parked: Parked): Promise<void> {
  await aside.letGo(parked)
  const back = () => (message.close(), void aside.takeBack(parked))
  const message = ElMessage({
    duration: 12_000,
    showClose: true,
    message: h('span', [
      `“${parked.batch.label}” is let go. `,
      h('button', { class: 'plain undo-remove', onClick: back }, 'keep it after all'),
    ]),
  })
}

async function open(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  for (const file of input.files ?? []) say(await aside.open(file), 'warning')
  input.value = ''
}
</script>

<template>
  <ElDialog v-model="shown" title="Set aside" width="min(760px, 94vw)" align-center append-to-body>
    <p class="soft lead">
      These changes are not in the shot, each for its reason. They are kept on this machine until you decide.
    </p>
    <ul v-if="shot.parked.length">
      <li v-for="parked in shot.parked" :key="parked.key">
        <SetAsidePicture :parked="parked" />
        <div class="words">
          <b>{{ parked.batch.label }}</b>
          <span class="soft">{{ CLOCK.format(new Date(parked.at)) }}</span>
          <p>{{ verdictInWords(parked.code, parked.what) }}</p>
          <div class="acts">
            <button class="strong" :disabled="!shot.mayDraw" @click="layDown(parked)">lay it down again</button>
            <button class="plain" @click="aside.save(parked)">save as a file</button>
            <button class="plain" @click="letGo(parked)">let it go</button>
          </div>
        </div>
      </li>
    </ul>
    <p v-else class="serif none">Nothing is set aside.</p>
    <footer>
      <button class="strong" :disabled="shot.parked.length < 2 || !shot.mayDraw" @click="layAllDown">
        lay all down again
      </button>
      <button class="plain" @click="files?.click()">open a saved one …</button>
      <input ref="files" type="file" accept=".json,application/json" multiple hidden @change="open" />
      <span class="soft where">Strokes whose drawing is gone are laid on the drawing in your hand.</span>
    </footer>
  </ElDialog>
</template>

<style scoped>
.lead {
  margin-bottom: 14px;
}

ul {
  max-height: min(52vh, 430px);
  margin: 0;
  padding: 0;
  overflow-y: auto;
  list-style: none;
  border-top: 1px solid var(--rule);
}

li {
  display: flex;
  gap: 18px;
  padding: 14px 4px;
  border-bottom: 1px solid var(--rule);
}

.words {
  display: flex;
  flex-direction: column;
  gap: 3px;
  min-width: 0;
}

.words .soft {
  font-size: 13px;
}

.acts {
  display: flex;
  gap: 18px;
  align-items: center;
  margin-top: auto;
}

.plain {
  min-height: 24px;
  color: var(--green);
}

footer {
  display: flex;
  gap: 18px;
  align-items: center;
  margin-top: 16px;
}

.where {
  margin-left: auto;
  font-size: 13px;
}

.none {
  padding: 18px 0;
  font-size: 17px;
}
</style>
