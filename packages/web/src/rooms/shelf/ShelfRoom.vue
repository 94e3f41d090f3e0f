<script setup lang="ts">
import type { FilmCard, NewShot } from '@unhurried/contract'
import { ElButton, ElInput, ElMessage, ElMessageBox } from 'element-plus'
import { computed, h, onBeforeUnmount, onMounted, ref, shallowRef } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import NightSwitch from '../../shared/NightSwitch.vue'
import NewShotDialog from './NewShotDialog.vue'
import FilmShelf from './FilmShelf.vue'
import KeySheet from '../../shared/KeySheet.vue'
import { useKeys } from '../../keys/listen.ts'
import PasswordDialog from './PasswordDialog.vue'
import PeopleDialog from './PeopleDialog.vue'
import TabletDialog from './TabletDialog.vue'
import { useShelfCommands } from './commands.ts'
import { useSession } from '../../stores/session.ts'
import { useShelf, type Removed } from '../../stores/shelf.ts'
import { oneLine } from '../../words/oneLine.ts'

const shelf = useShelf()
const session = useSession()
const router = useRouter()
const making = ref(false)
const film = shallowRef<FilmCard | null>(null)

const sought = ref('')
const words = computed(() => sought.value.trim().toLowerCase())
/** Films that are called so, whole; and of others those shots that are. */
const films = computed(() =>
  shelf.films.filter(one =>
    `${one.name} ${one.shots.map(shot => shot.name).join(' ')}`.toLowerCase().includes(words.value),
  ),
)
const field = ref<InstanceType<typeof ElInput> | null>(null)
const keysShown = ref(false)
const tabletShown = ref(false)
const passwordShown = ref(false)
const peopleOf = shallowRef<FilmCard | null>(null)
const WHEN = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' })
const commands = useShelfCommands({
  seek: () => field.value?.focus(),
  newFilm: () => void newFilm(),
  openBin: () => void router.push({ name: 'bin' }),
  showKeys: () => (keysShown.value = true),
})
useKeys(commands.commands)

onMounted(shelf.refresh)

/** Asks for a name; null when nothing was typed or the question was closed. */
async function askName(title: string, doing: string, now = ''): Promise<string | null> {
  try {
    const { value } = await ElMessageBox.prompt('', title, {
      inputValue: now,
      inputValidator: text =>
        !text?.trim() ? 'A name, please.' : text.trim().length <= 80 || 'At most 80 characters.',
      confirmButtonText: doing,
      cancelButtonText: 'Not now',
    })
    return value.trim()
  } catch {
    return null
  }
}

/** Whose work a film is a study of; an empty answer means one's own. */
async function askStudy(film: FilmCard): Promise<void> {
  const asked = await ElMessageBox.prompt(
    'Redrawn from somebody else’s work, it is for practice only: its shots, and what is sent off from them, say so. Empty: it is your own.',
    'Whose work is it?',
    {
      inputValue: film.study,
      inputPlaceholder: 'whose, and which',
      inputValidator: text => (text ?? '').trim().length <= 80 || 'At most 80 characters.',
      confirmButtonText: 'Say so',
      cancelButtonText: 'Not now',
    },
  ).catch(() => null)
  const study = oneLine(asked?.value ?? film.study)
  if (asked && study !== film.study) await attempt(() => shelf.studyFilm(film.id, study))
}

async function attempt(doing: () => Promise<unknown>): Promise<void> {
  try {
    await doing()
  } catch (error) {
    ElMessage({ message: (error as Error).message, type: 'warning', showClose: true })
  }
}

async function newFilm(): Promise<void> {
  const name = await askName('A new film', 'Make it')
  if (name) await attempt(() => shelf.newFilm(name))
}
async function rename(now: string, how: (name: string) => Promise<unknown>): Promise<void> {
  const name = await askName('Rename', 'Rename', now)
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
/** Words below the header: what they speak of stands in it. */
const BELOW_HEADER_PX = 56
async function remove(how: () => Promise<Removed>): Promise<void> {
  await attempt(async () => {
    const removed = await how()
    const message = ElMessage({
      offset: BELOW_HEADER_PX,
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
// What is said of the shelf is said there.
onBeforeUnmount(() => ElMessage.closeAll())

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
      <ElInput
        ref="field"
        v-model="sought"
        class="seek"
        size="small"
        clearable
        placeholder="find a film or a shot"
        aria-label="Find a film or a shot by name"
        @keydown.esc="sought = ''"
      />
      <RouterLink
        :to="{ name: 'bin' }"
        class="plain act"
        :title="commands.tip('bin', 'What was removed, to be put back')"
        >bin</RouterLink
      >
      <button class="plain act" @click="keysShown = true">keys</button>
      <button class="plain act" title="How this desk is reached from a tablet" @click="tabletShown = true">
        tablet
      </button>
      <button class="plain who soft" title="Another password" @click="passwordShown = true">
        {{ session.account?.name }}
      </button>
      <NightSwitch />
      <button class="plain leave" @click="signOut">sign out</button>
    </header>
    <main aria-label="Shelf">
      <p v-if="shelf.problem" class="rust" role="alert">
        {{ shelf.problem }} <button class="plain" @click="shelf.refresh">try again</button>
      </p>
      <section v-if="shelf.here.length" class="film here" aria-label="On this machine">
        <h2 class="serif">On this machine</h2>
        <p class="soft">These open without the server; what is drawn goes to it when it answers again.</p>
        <ul>
          <li v-for="one in shelf.here" :key="one.shot">
            <RouterLink :to="{ name: 'desk', params: { shot: one.shot }, query: { frame: 1 } }">{{
              one.name
            }}</RouterLink>
            <span class="soft">{{ one.filmName }}, opened {{ WHEN.format(one.at) }}</span>
          </li>
        </ul>
      </section>
      <FilmShelf
        v-for="f in films"
        :key="f.id"
        :film="f"
        :sought="f.name.toLowerCase().includes(words) ? '' : words"
        @start="startShot(f)"
        @study="askStudy(f)"
        @people="peopleOf = f"
        @rename="rename(f.name, name => shelf.renameFilm(f.id, name))"
        @remove="remove(() => shelf.removeFilm(f.id, f.name))"
        @order="shots => attempt(() => shelf.order(f.id, shots))"
        @rename-shot="s => rename(s.name, name => shelf.renameShot(s.id, name))"
        @duplicate-shot="s => attempt(() => shelf.duplicateShot(s.id))"
        @remove-shot="s => remove(() => shelf.removeShot(s.id, s.name))"
      />
      <p v-if="shelf.films.length && !films.length" class="soft">Nothing of that name is on the shelf.</p>
      <section v-if="shelf.known && !shelf.problem" class="film">
        <p v-if="shelf.films.length === 0" class="serif first">
          The shelf is empty. A film holds shots; begin with one, and lay its first shot on the desk.
        </p>
        <ElButton :type="shelf.films.length ? 'default' : 'primary'" @click="newFilm">New film</ElButton>
      </section>
    </main>
    <NewShotDialog v-model="making" :make="make" />
    <TabletDialog v-model="tabletShown" />
    <PasswordDialog v-model="passwordShown" />
    <PeopleDialog v-model="peopleOf" />
    <KeySheet v-model="keysShown" :commands="commands.commands" />
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

.seek {
  width: 210px;
}

.here ul {
  margin-top: 8px;
  list-style: none;
}

.here li {
  display: flex;
  gap: 12px;
  padding: 5px 0;
}

.who {
  margin-left: auto;
}

.leave,
.act {
  color: var(--green);
  text-decoration: none;
}

main {
  max-width: 1320px;
  margin: 0 auto;
  padding: 26px 44px 60px;
}

.film {
  margin-bottom: 34px;
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
