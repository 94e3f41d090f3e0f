<script setup lang="ts">
import { counted } from '@unhurried/core/time'
import { ElInput, ElMessage, ElMessageBox } from 'element-plus'
import { Film, Frame } from 'lucide-vue-next'
import { computed, onMounted, ref } from 'vue'
import { RouterLink } from 'vue-router'
import NightSwitch from '../../shared/NightSwitch.vue'
import { useBin, type Binned } from '../../stores/bin.ts'

/** What was removed, until its days are over: found by name, put back, or thrown away for good. */
const bin = useBin()
const sought = ref('')
onMounted(bin.refresh)

const found = computed(() => {
  const words = sought.value.trim().toLowerCase()
  return words ? bin.things.filter(one => `${one.name} ${one.film ?? ''}`.toLowerCase().includes(words)) : bin.things
})
const mayEmpty = computed(() => bin.things.some(one => one.mayThrowAway))

const DAY_MS = 24 * 60 * 60 * 1000
const WHEN = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', hour: '2-digit', minute: '2-digit' })
function stays({ leavesAt }: Binned): string {
  const days = Math.ceil((Date.parse(leavesAt) - Date.now()) / DAY_MS)
  return days <= 1 ? 'until tomorrow' : `for ${counted(days, 'more day')}`
}
const where = (one: Binned) =>
  one.kind === 'film' ? `a film with ${counted(one.shots ?? 0, 'shot')}` : `a shot of ${one.film}`

async function attempt(doing: () => Promise<unknown>, done: string): Promise<void> {
  try {
    await doing()
    ElMessage({ message: done, offset: 56, type: 'success', duration: 3000 })
  } catch (error) {
    ElMessage({ offset: 56, message: (error as Error).message, type: 'warning', showClose: true })
  }
}

/** What cannot be undone is asked first. */
async function sure(question: string, doing: string): Promise<boolean> {
  const answer = await ElMessageBox.confirm('There is no way back from this.', question, {
    confirmButtonText: doing,
    cancelButtonText: 'Keep it',
  }).catch(() => null)
  return answer !== null
}
async function throwAway(one: Binned): Promise<void> {
  if (await sure(`Throw “${one.name}” away for good?`, 'Throw it away'))
    await attempt(() => bin.throwAway(one), `“${one.name}” is gone.`)
}
async function empty(): Promise<void> {
  const mine = bin.things.filter(one => one.mayThrowAway).length
  if (await sure(`Throw ${counted(mine, 'thing')} away for good?`, 'Empty the bin'))
    await attempt(bin.empty, 'The bin is empty.')
}
</script>

<template>
  <div class="bin-room">
    <header>
      <RouterLink :to="{ name: 'shelf' }" class="back" title="Back to the shelf">Shelf</RouterLink>
      <h1>Bin</h1>
      <ElInput
        v-if="bin.things.length"
        v-model="sought"
        class="seek"
        size="small"
        clearable
        placeholder="find by name"
        aria-label="Find in the bin by name"
      />
      <button v-if="mayEmpty" class="plain act" @click="empty">empty the bin</button>
      <NightSwitch class="night" />
    </header>
    <main aria-label="Bin">
      <p v-if="bin.problem" class="rust" role="alert">
        {{ bin.problem }} <button class="plain" @click="bin.refresh">try again</button>
      </p>
      <p v-else-if="bin.known && !bin.things.length" class="serif first">
        Nothing lies here. Films and shots that are removed stay for {{ counted(bin.days, 'day') }}.
      </p>
      <p v-else-if="bin.known && !found.length" class="soft">Nothing of that name lies here.</p>
      <ul v-if="found.length">
        <li v-for="one in found" :key="`${one.kind} ${one.id}`">
          <component :is="one.kind === 'film' ? Film : Frame" :size="18" :stroke-width="1.5" aria-hidden="true" />
          <div class="what">
            <b class="name">{{ one.name }}</b>
            <span class="soft">{{ where(one) }}</span>
          </div>
          <span class="soft when">removed {{ WHEN.format(new Date(one.removedAt)) }}, lies here {{ stays(one) }}</span>
          <button
            class="plain act back-again"
            :aria-label="`Put ${one.name} back`"
            @click="attempt(() => bin.putBack(one), `“${one.name}” is on the shelf again.`)"
          >
            put it back
          </button>
          <button
            class="plain act"
            :disabled="!one.mayThrowAway"
            :title="one.mayThrowAway ? 'For good: there is no way back' : 'Only the owner of its film can'"
            :aria-label="`Throw ${one.name} away for good`"
            @click="throwAway(one)"
          >
            throw away
          </button>
        </li>
      </ul>
    </main>
  </div>
</template>

<style scoped>
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

.back {
  color: var(--soft);
}

h1 {
  font: 500 19px var(--serif);
}

.seek {
  width: 220px;
}

.act {
  color: var(--green);
}

.back-again {
  font-weight: 700;
}

.act:disabled {
  color: var(--soft);
}

.night {
  margin-left: auto;
}

main {
  max-width: 980px;
  margin: 0 auto;
  padding: 30px 44px 60px;
}

.first {
  font-size: 18px;
}

ul {
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: 22px minmax(0, 1fr) auto auto auto;
  align-items: center;
  gap: 14px;
  padding: 13px 4px;
  border-bottom: 1px solid var(--rule);
}

.what {
  display: flex;
  flex-direction: column;
  min-width: 0;
}

.name {
  font: 500 16px var(--serif);
  overflow: hidden;
  text-overflow: ellipsis;
}

.when {
  font-size: 13px;
}
</style>
