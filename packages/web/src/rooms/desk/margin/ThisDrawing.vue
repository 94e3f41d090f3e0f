<script setup lang="ts">
import { plannedPlace, ROLES, type Role } from '@unhurried/core/document'
import { valueOf } from '@unhurried/core/chart'
import { meetsChart } from '@unhurried/core/measure'
import { counted, framesTold, secondsOf } from '@unhurried/core/time'
import { computed } from 'vue'
import type { Commands } from '../commands.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useMeasure } from '../../../stores/measure.ts'
import { useShot } from '../../../stores/shot.ts'
import VolumeStrip from './VolumeStrip.vue'

/** What is known of the drawing one stands on, and what can be done with the sheet. */
const props = defineProps<{ commands: Commands }>()
const shot = useShot()
const desk = useDesk()
const measure = useMeasure()
const fps = computed(() => shot.document?.format.fps ?? 24)
const drawing = computed(() => desk.drawing)
const frames = computed(() => {
  const run = desk.run
  return run ? framesTold(run.start, run.start + run.frames) : ''
})
const shown = computed(() => {
  const run = desk.run
  if (!run) return ''
  const at = (f: number) => secondsOf(f, fps.value).toFixed(2)
  return `${at(run.start)}–${at(run.start + run.frames)} s`
})
const place = computed(() => {
  const { document, take } = shot
  const item = document && take && drawing.value ? plannedPlace(document, take, drawing.value) : null
  if (!item) return null
  const planned = valueOf(item.at)
  const reading = measure.reading?.chart.id === item.chart.id ? measure.reading : null
  const read = reading?.ticks[item.tick] ?? null
  const [from, to] = [shot.drawing(item.chart.from), shot.drawing(item.chart.to)]
  return {
    planned,
    read,
    met: read ? meetsChart(read, planned, reading?.within) : true,
    from: from?.number,
    to: to?.number,
  }
})
const openAt = computed(() => measure.openAt(drawing.value))
const volume = computed(() => (drawing.value ? measure.volumeOf(drawing.value) : null))
/** Sheets that have no part of their own in the action: a background, and paint under a line drawing. */
const isBackground = computed(() => desk.layer?.kind === 'background' || desk.over !== null)
const role = computed({
  get: () => drawing.value?.role ?? 'inbetween',
  set: (next: Role) => props.commands.setRole(next),
})
</script>

<template>
  <div class="this">
    <template v-if="drawing">
      <p class="big">
        <b class="sheet-number" :class="isBackground ? '' : role">{{ drawing.number }}</b>
        <small>{{ isBackground ? desk.layer?.name : role }}, {{ frames }}</small>
      </p>
      <div
        v-if="desk.mayEdit && !isBackground"
        class="roles"
        role="radiogroup"
        :aria-label="commands.tip('role', 'Role')"
      >
        <button
          v-for="r in ROLES"
          :key="r"
          class="plain"
          role="radio"
          :aria-checked="r === role"
          :class="{ on: r === role }"
          @click="role = r"
        >
          {{ r }}
        </button>
      </div>
      <dl>
        <dt>shown</dt>
        <dd>{{ shown }}</dd>
        <template v-if="desk.places > 1">
          <dt>shared</dt>
          <dd>in {{ desk.places }} places</dd>
        </template>
        <template v-if="desk.otherTakes.length">
          <dt>also in {{ desk.otherTakes.map(t => t.name).join(', ') }}</dt>
          <dd>
            <button
              v-if="desk.mayEdit"
              class="plain own"
              :title="commands.tip('own', 'Changed here, it changes there too; its own copy here leaves them theirs')"
              @click="commands.get('own').run()"
            >
              own copy
            </button>
          </dd>
        </template>
        <template v-if="place">
          <dt>way from {{ place.from }} to {{ place.to }}</dt>
          <dd v-if="place.read" :class="place.met ? 'ok' : 'rust'">
            {{ place.read.share.toFixed(2) }} of {{ place.planned.toFixed(2) }}
          </dd>
          <dd v-else>– of {{ place.planned.toFixed(2) }}</dd>
          <template v-if="place.read">
            <dt>off the arc</dt>
            <dd>{{ Math.round(place.read.offPx) }} px</dd>
          </template>
        </template>
        <template v-if="volume && measure.reference && !isBackground">
          <dt>
            {{ desk.layer?.volume === 'round' ? 'volume' : 'area' }} against drawing {{ measure.reference.number }}
          </dt>
          <dd :class="volume.verdict === 'kept' ? 'ok' : 'rust'">
            {{ Math.round(volume.share * 100) }} %{{ volume.verdict === 'kept' ? '' : `, ${volume.verdict}` }}
          </dd>
        </template>
        <template v-if="openAt && !isBackground">
          <dt class="rust">outline open here</dt>
          <dd class="rust">{{ Math.round(openAt.x) }}, {{ Math.round(openAt.y) }}</dd>
        </template>
      </dl>
      <VolumeStrip v-if="!isBackground && desk.layer?.volume !== 'off'" />
      <div v-if="desk.mayEdit" class="acts">
        <button
          class="plain"
          :title="commands.tip('clear', 'Lines off, the sheet and its frames stay')"
          @click="commands.get('clear').run()"
        >
          clear
        </button>
        <button
          class="plain"
          :title="
            commands.tip(
              'remove',
              desk.over
                ? 'The sheet of paint goes, the line stays'
                : `The sheet goes, later drawings move up by ${counted(desk.run?.frames ?? 0, 'frame')}`,
            )
          "
          @click="commands.get('remove').run()"
        >
          remove
        </button>
        <button
          v-if="drawing"
          class="plain"
          :title="commands.tip('history', 'Earlier versions, and its making played')"
          @click="commands.get('history').run()"
        >
          history
        </button>
      </div>
    </template>
    <p v-else-if="desk.over" class="soft">
      No paint under <b>{{ desk.over.number }}</b> yet.
    </p>
    <p v-else class="soft">Frame {{ desk.frame + 1 }}: nothing is exposed here.</p>
    <div v-if="desk.mayEdit" class="acts">
      <button class="plain" :title="commands.tip('new', 'A new empty drawing')" @click="commands.get('new').run()">
        new
      </button>
      <button
        class="plain"
        :disabled="!desk.source"
        :title="commands.tip('copy', 'A new drawing that starts as a copy; changing it changes only itself')"
        @click="commands.get('copy').run()"
      >
        copy {{ desk.source?.number }}
      </button>
      <button
        class="plain"
        :disabled="!desk.source"
        :title="commands.tip('share', 'The same drawing shown again; changing it changes it everywhere')"
        @click="commands.get('share').run()"
      >
        share {{ desk.source?.number }}
      </button>
      <button
        class="plain"
        :title="
          commands.tip(
            'bring-in',
            'Pictures: PNG, JPEG, WebP, GIF, AVIF, SVG, or a zip of them; or drop them on the paper, or paste',
          )
        "
        @click="commands.get('bring-in').run()"
      >
        bring in
      </button>
    </div>
  </div>
</template>

<style scoped>
/* As high for a frame without a drawing: what lies below must not jump. */
.this {
  min-height: 252px;
}

.big {
  display: flex;
  align-items: baseline;
  gap: 10px;
  margin-top: 4px;
}

.big b {
  font: 400 27px var(--serif);
}

.big small {
  font-size: 13px;
  color: var(--soft);
}

.roles {
  display: flex;
  gap: 4px;
  margin: 6px 0 0 -4px;
  font-size: 12px;
}

.roles .plain {
  color: var(--soft);
  border-radius: 0;
}

.roles .on {
  color: var(--ink);
  font-weight: 700;
  border-bottom: 2px solid var(--green);
}

dl {
  display: grid;
  grid-template-columns: 1fr auto;
  row-gap: 3px;
  margin-top: 8px;
  font-size: 13px;
}

dt {
  color: var(--soft);
}

dd {
  text-align: right;
}

.ok {
  color: var(--green);
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  margin: 6px 0 0 -4px;
  font-size: 13px;
}

.acts .plain {
  color: var(--green);
  text-decoration: underline;
  text-decoration-color: var(--rule);
  text-underline-offset: 4px;
}

.acts .plain:disabled {
  color: var(--soft);
}
</style>
