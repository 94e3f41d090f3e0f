<script setup lang="ts">
import { ElMessage } from 'element-plus'
import { onBeforeUnmount, ref, watch } from 'vue'
import { RouterLink, RouterView, useRoute, useRouter } from 'vue-router'
import { Refused } from '../../api/ask.ts'
import NightSwitch from '../../shared/NightSwitch.vue'
import SafeMark from '../../shared/SafeMark.vue'
import { startAfresh } from '../../stores/afresh.ts'
import { useDesk } from '../../stores/desk.ts'
import { useMedia } from '../../stores/media.ts'
import { useShot } from '../../stores/shot.ts'
import { SHOT_ROOMS } from '../rooms.ts'

const props = defineProps<{ shot: string }>()
const opened = useShot()
const desk = useDesk()
const media = useMedia()
const route = useRoute()
const router = useRouter()
const problem = ref('')

/** The frame in the address is counted as people count: from 1. */
const frameInAddress = () => Math.max(0, (Number(route.query.frame) || 1) - 1)

watch(
  () => props.shot,
  async id => {
    problem.value = ''
    try {
      await opened.open(id)
      startAfresh(frameInAddress())
      void media.goOn()
    } catch (error) {
      if (error instanceof Refused && error.status === 401)
        await router.push({ name: 'sign-in', query: { back: route.fullPath } })
      else problem.value = (error as Error).message
    }
  },
  { immediate: true },
)
watch(
  () => desk.frame,
  frame => {
    if (opened.document && route.params.shot === opened.id) {
      void router.replace({ ...route, query: { ...route.query, frame: String(frame + 1) } } as never)
    }
  },
)
/** Words below the header: what they speak of stands in it. */
const BELOW_HEADER_PX = 52
const tell = (message: string, duration: number) =>
  ElMessage({ message, type: 'warning', duration, showClose: true, grouping: true, offset: BELOW_HEADER_PX })

watch(
  () => opened.notice,
  words => {
    if (!words) return
    tell(words, 6000)
    opened.notice = ''
  },
)
watch(
  () => opened.waiting,
  words => {
    if (!words) return
    tell(`${words} What you draw is kept on this machine until the server takes it.`, 12_000)
  },
)
watch(
  () => opened.signedOut,
  out => {
    if (out) tell('You are signed out. What you draw is kept here; sign in again to store it.', 0)
  },
)
onBeforeUnmount(() => opened.close())
</script>

<template>
  <div class="shot-room">
    <header>
      <RouterLink :to="{ name: 'shelf' }" class="film" title="Back to the shelf">{{
        opened.filmName || 'Shelf'
      }}</RouterLink>
      <h1 class="name">{{ opened.name }}</h1>
      <nav aria-label="Rooms of this shot">
        <RouterLink
          v-for="(room, name) in SHOT_ROOMS"
          :key="name"
          :to="{ name, params: { shot: props.shot }, query: { frame: desk.frame + 1 } }"
          >{{ room.words }}</RouterLink
        >
      </nav>
      <SafeMark />
      <NightSwitch />
    </header>
    <main v-if="problem" class="problem">
      <h2 class="serif">This shot cannot be opened.</h2>
      <p>{{ problem }}</p>
      <RouterLink :to="{ name: 'shelf' }">Back to the shelf</RouterLink>
    </main>
    <RouterView v-else-if="opened.document && opened.id === props.shot" />
    <main v-else class="problem soft" aria-busy="true">Laying out the drawings …</main>
  </div>
</template>

<style scoped>
.shot-room {
  height: 100%;
  display: grid;
  grid-template-rows: 44px minmax(0, 1fr);
}

header {
  display: flex;
  align-items: center;
  gap: 20px;
  padding: 0 18px;
  background: var(--edge);
  border-bottom: 1px solid var(--rule);
}

.film {
  font: 500 16px var(--serif);
  color: var(--ink);
  text-decoration: none;
}

.film:hover {
  text-decoration: underline;
  text-underline-offset: 4px;
}

.name {
  font: italic 400 14px var(--serif);
  color: var(--soft);
}

nav {
  display: flex;
  gap: 22px;
  margin-left: auto;
}

nav a {
  padding: 12px 2px 9px;
  color: var(--soft);
  text-decoration: none;
  border-bottom: 2px solid transparent;
}

nav a.router-link-active {
  color: var(--ink);
  font-weight: 700;
  border-color: var(--green);
}

@media (width < 860px) {
  nav {
    gap: 12px;
  }

  .name {
    display: none;
  }
}

.problem {
  padding: 80px;
  display: flex;
  flex-direction: column;
  gap: 12px;
}

@media print {
  .shot-room {
    display: block;
    height: auto;
  }

  .shot-room > header {
    display: none;
  }
}
</style>
