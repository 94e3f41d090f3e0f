<script setup lang="ts">
import type { FilmCard, NewShot } from '@unhurried/contract'
import { ElButton, ElMessage, ElMessageBox } from 'element-plus'
import { h, onMounted, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import NightSwitch from '../components/NightSwitch.vue'
import NewShotDialog from '../components/NewShotDialog.vue'
import ShotCardView from '../components/ShotCardView.vue'
import { useSession } from '../stores/session.ts'
import { useShelf, type Removed } from '../stores/shelf.ts'

const shelf = useShelf()
const session = useSession()
const router = useRouter()
const making = ref(false)
const film = shallowRef<FilmCard | null>(null)

onMounted(shelf.refresh)

/** Asks for a name; null when nothing was typed or the question was closed. */
async function askName(title: string, now = ''): Promise<string | null> {
  try {
    const { value } = await ElMessageBox.prompt('', title, {
      inputValue: now,
      inputValidator: text =>
        !text?.trim() ? 'A name, please.' : text.trim().length <= 80 || 'At most 80 characters.',
      confirmButtonText: 'So be it',
      cancelButtonText: 'Not now',
    })
    return value.trim()
  } catch {
    return null
  }
}

async function attempt(doing: () => Promise<unknown>): Promise<void> {
  try {
    await doing()
  } catch (error) {
    ElMessage({ message: (error as Error).message, type: 'warning', showClose: true })
  }
}

async function newFilm(): Promise<void> {
  const name = await askName('A new film')
  if (name) await attempt(() => shelf.newFilm(name))
}
async function rename(now: string, how: (name: string) => Promise<unknown>): Promise<void> {
  const name = await askName('Rename', now)
  if (name && name !== now) await attempt(() => how(name))
}
function startShot(on: FilmCard): void {
  film.value = on
  making.value = true
}
async function make(shot: NewShot): Promise<void> {
  if (!film.value) return
  const { id } = await shelf.newShot(film.value.id, shot)
  await router.push({ name: 'desk', params: { shot: id }, query: { frame: 1 } })
}
async function remove(how: () => Promise<Removed>): Promise<void> {
  await attempt(async () => {
    const removed = await how()
    const message = ElMessage({
      duration: 12_000,
      showClose: true,
      message: h('span', [
        `${removed.words} `,
        h(
          'button',
          { class: 'plain undo-remove', onClick: () => (message.close(), void attempt(removed.putBack)) },
          'put it back',
        ),
      ]),
    })
  })
}
async function signOut(): Promise<void> {
  await attempt(session.signOut)
  await router.push({ name: 'sign-in' })
}
</script>

<template>
  <div class="shelf-room">
    <header>
      <h1>Unhurried Sketch</h1>
      <span class="soft promise">You draw; it measures.</span>
      <span class="who soft">{{ session.account?.name }}</span>
      <NightSwitch />
      <button class="plain leave" @click="signOut">sign out</button>
    </header>
    <main aria-label="Shelf">
      <p v-if="shelf.problem" class="rust" role="alert">
        {{ shelf.problem }} <button class="plain" @click="shelf.refresh">try again</button>
      </p>
      <section v-for="f in shelf.films" :key="f.id" class="film">
        <div class="title">
          <h2>{{ f.name }}</h2>
          <span class="soft">{{ f.shots.length }} {{ f.shots.length === 1 ? 'shot' : 'shots' }}</span>
          <template v-if="f.role !== 'reviewer'">
            <button class="plain act" @click="startShot(f)">new shot</button>
            <button class="plain act" @click="rename(f.name, name => shelf.renameFilm(f.id, name))">rename</button>
          </template>
          <button v-if="f.role === 'owner'" class="plain act" @click="remove(() => shelf.removeFilm(f.id, f.name))">
            remove
          </button>
        </div>
        <div class="shots">
          <ShotCardView
            v-for="s in f.shots"
            :key="s.id"
            :shot="s"
            :may-change="f.role !== 'reviewer'"
            @rename="rename(s.name, name => shelf.renameShot(s.id, name))"
            @duplicate="attempt(() => shelf.duplicateShot(s.id))"
            @remove="remove(() => shelf.removeShot(s.id, s.name))"
          />
          <button v-if="f.role !== 'reviewer'" class="blank" @click="startShot(f)">
            <b>A new shot</b>
            <span class="soft">size, frames a second, length, paper</span>
          </button>
        </div>
      </section>
      <section v-if="shelf.known && !shelf.problem" class="film">
        <p v-if="shelf.films.length === 0" class="serif first">
          The shelf is empty. A film holds shots; begin with one, and lay its first shot on the desk.
        </p>
        <ElButton :type="shelf.films.length ? 'default' : 'primary'" @click="newFilm">New film</ElButton>
      </section>
    </main>
    <NewShotDialog v-model="making" :make="make" />
  </div>
</template>

<style scoped>
.shelf-room {
  min-height: 100%;
}

header {
  position: sticky;
  top: 0;
  z-index: 2;
  display: flex;
  align-items: center;
  gap: 16px;
  padding: 9px 44px 10px;
  background: var(--edge);
  border-bottom: 1px solid var(--rule);
}

h1 {
  font: 500 19px var(--serif);
}

.promise {
  font: italic 14px var(--serif);
}

.who {
  margin-left: auto;
}

.leave,
.act {
  color: var(--green);
}

main {
  max-width: 1320px;
  margin: 0 auto;
  padding: 26px 44px 60px;
}

.film {
  margin-bottom: 34px;
}

.title {
  display: flex;
  align-items: baseline;
  gap: 14px;
  margin-bottom: 12px;
}

h2 {
  font: 500 23px var(--serif);
}

.shots {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
  gap: 22px;
}

.blank {
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 4px;
  min-height: 180px;
  border: 1.5px dashed var(--past);
  border-radius: 8px;
  background: none;
  cursor: pointer;
}

.blank:hover {
  background: var(--edge);
}

.first {
  font-size: 18px;
  margin-bottom: 16px;
}
</style>

<style>
.undo-remove {
  color: var(--green);
  font-weight: 700;
}

.el-message-box {
  --el-messagebox-border-radius: 12px;
  background: var(--edge);
}

.el-message-box__title {
  font: 500 19px var(--serif);
}
</style>
