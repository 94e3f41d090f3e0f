<script setup lang="ts">
import { counted } from '@unhurried/core/time'
import { ref } from 'vue'
import { useSending, type Sending } from './useSending.ts'

/** What a telephone shows that was pointed at the code of a desk: photographs are taken and sent there, and nothing else. */
const { desk, shut, photos, arrived, before, add, again } = useSending(window.location.hash.slice(1))
const camera = ref<HTMLInputElement | null>(null)
const album = ref<HTMLInputElement | null>(null)
function chosen(input: HTMLInputElement | null): void {
  if (!input?.files) return
  add([...input.files])
  // The same one may be chosen again.
  input.value = ''
}
const WORDS = { waits: 'waits', goes: 'on its way …', sent: 'sent', 'not sent': 'not sent', 'no picture': 'no picture' }
const told = (photo: Sending) => (arrived(photo.id) ? 'on the desk' : WORDS[photo.way])
const left = (seconds: number) => (seconds > 90 ? `${Math.round(seconds / 60)} minutes` : counted(seconds, 'second'))
</script>

<template>
  <main>
    <h1>Unhurried Sketch</h1>
    <p v-if="shut" class="rust" role="alert">{{ shut }}</p>
    <template v-else-if="desk">
      <p class="to">
        Photographs of sheets for <em>{{ desk.shot }}</em><br /><span class="soft">{{ desk.film }}</span>
      </p>
      <button class="strong" @click="camera?.click()">Take a photograph</button>
      <button class="plain other" @click="album?.click()">choose from this telephone</button>
      <input
        ref="camera"
        class="hush"
        type="file"
        accept="image/*"
        capture="environment"
        aria-label="A photograph by the camera"
        tabindex="-1"
        @change="chosen(camera)"
      />
      <input
        ref="album"
        class="hush"
        type="file"
        accept="image/*"
        multiple
        aria-label="Photographs from this telephone"
        tabindex="-1"
        @change="chosen(album)"
      />
      <ul v-if="photos.length" aria-label="Photographs">
        <li v-for="photo in [...photos].reverse()" :key="photo.id">
          <img v-if="photo.url" :src="photo.url" :alt="photo.name" />
          <span v-else class="blank" aria-hidden="true" />
          <span class="told">
            <span class="name">{{ photo.name }}</span>
            <strong :class="{ there: arrived(photo.id), rust: photo.way.startsWith('no') }">{{ told(photo) }}</strong>
            <span v-if="photo.way === 'not sent'">
              {{ photo.why }} <button class="plain word" @click="again(photo)">send it again</button>
            </span>
          </span>
        </li>
      </ul>
      <p v-else class="soft way">
        Lay the sheet flat, in even light, and hold the telephone straight above it. All of the sheet should be seen,
        with its holes or crosses.
      </p>
      <p class="soft">
        <template v-if="before">{{ counted(before, 'photograph') }} sent before. </template>The code is good for
        {{ left(desk.seconds) }} more.
      </p>
    </template>
    <p v-else class="soft" role="status">looking for the desk …</p>
  </main>
</template>

<style scoped>
main {
  min-height: 100%;
  max-width: 560px;
  margin: 0 auto;
  padding: 28px 20px 40px;
  display: flex;
  flex-direction: column;
  gap: 14px;
  background: var(--edge);
  font-size: 16px;
}

h1 {
  font: 500 22px var(--serif);
  color: var(--soft);
}

.to {
  font: 20px/1.35 var(--serif);
}

.to span {
  font: 15px var(--sans);
}

.strong {
  min-height: 68px;
  font-size: 19px;
}

.other {
  min-height: 48px;
  color: var(--green);
  border: 1px solid var(--rule);
  border-radius: 8px;
}

ul {
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: 92px 1fr;
  gap: 12px;
  align-items: center;
  padding: 8px 0;
  border-top: 1px solid var(--rule);
}

img,
.blank {
  width: 92px;
  height: 69px;
  object-fit: cover;
  border-radius: 4px;
  background: var(--rule-faint);
}

.told {
  min-width: 0;
  display: grid;
}

.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

strong {
  color: var(--soft);
}

strong.there {
  color: var(--green);
}

strong.rust {
  color: var(--rust);
}

.word {
  color: var(--green);
  min-height: 44px;
}

.way {
  font: italic 16px/1.5 var(--serif);
}
</style>
