<script setup lang="ts">
import {
  arriveTogether,
  dragOf,
  glideAlike,
  isHardStop,
  onsetOf,
  onsetTable,
  stopOf,
  type Track,
} from '@unhurried/core/measure'
import { counted } from '@unhurried/core/time'
import { computed } from 'vue'
import { useDesk } from '../../../stores/desk.ts'
import { pxInWords } from '../../../words/lengths.ts'

/** When each part sets out, turns and arrives, in the order of time; and what is to be said of their movement together. The first of `tracks` leads. */
const props = defineProps<{ tracks: readonly Track[] }>()
const desk = useDesk()
const rows = computed(() => onsetTable(props.tracks))
const moving = computed(() => rows.value.filter(row => row.starts !== null))
const nameOf = (id: string) => props.tracks.find(track => track.id === id)?.name ?? ''
const listed = (names: readonly string[]) =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names[names.length - 1]}`

const told = computed(() => {
  const said: string[] = []
  const { tracks } = props
  const together = arriveTogether(tracks.map(onsetOf))
  if (together) {
    const later = together.parts
      .flatMap((id, i) => (together.later[i] ? [`${nameOf(id)} ${together.later[i]}`] : []))
      .join(', ')
    said.push(
      `${listed(together.parts.map(nameOf))} arrive together on ${together.frame + 1}: stiff. Later by, in frames: ${later}.`,
    )
  }
  if (glideAlike(tracks)) said.push('Every part glides alike: all on smooth arcs, and at the same speeds.')
  const [leader, ...others] = tracks
  for (const other of leader ? others : []) {
    const drag = dragOf(leader as Track, other)
    if (drag.told && drag.lagFrames !== 0) {
      const by = counted(Math.abs(drag.lagFrames), 'frame')
      said.push(`${other.name} ${drag.lagFrames > 0 ? 'follows' : 'runs ahead of'} ${(leader as Track).name} by ${by}.`)
    }
  }
  for (const track of tracks) {
    const stop = stopOf(track)
    if (stop && isHardStop(stop)) {
      said.push(
        `${track.name} stops on ${stop.frame + 1} from ${pxInWords(stop.from)} px a frame, and nothing gives: no weight.`,
      )
    }
  }
  return said
})
</script>

<template>
  <table v-if="moving.length">
    <caption>
      when each part moves
    </caption>
    <thead>
      <tr>
        <th scope="col">part</th>
        <th scope="col">sets out</th>
        <th scope="col">turns</th>
        <th scope="col">arrives</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in moving" :key="row.id">
        <th scope="row">{{ row.name }}</th>
        <td>
          <button class="plain" @click="desk.goTo(row.starts!)">{{ row.starts! + 1 }}</button>
        </td>
        <td>
          <button v-for="frame in row.turns.slice(0, 3)" :key="frame" class="plain" @click="desk.goTo(frame)">
            {{ frame + 1 }}
          </button>
          <span v-if="row.turns.length > 3" class="soft"> … {{ row.turns.length }}</span>
        </td>
        <td>
          <button class="plain" @click="desk.goTo(row.stops!)">{{ row.stops! + 1 }}</button>
        </td>
      </tr>
    </tbody>
  </table>
  <p v-for="sentence in told" :key="sentence" class="told">{{ sentence }}</p>
</template>

<style scoped src="./fields.css"></style>
<style scoped>
table {
  width: 100%;
  margin-top: 5px;
  border-collapse: collapse;
  font-size: 12px;
}

caption {
  text-align: left;
  color: var(--soft);
}

th,
td {
  padding: 0 4px 0 0;
  border-top: 1px solid var(--rule);
  text-align: left;
  font-weight: 400;
  font-variant-numeric: tabular-nums;
}

thead th {
  border-top: 0;
  color: var(--soft);
}

tbody th {
  max-width: 74px;
  overflow: hidden;
  text-overflow: ellipsis;
  font-weight: 700;
}

td button {
  min-height: 24px;
  padding: 0 3px;
}
</style>
