<script setup lang="ts">
import { CHECKS, nameOf, type Found } from '@unhurried/core/measure'
import { framesTold } from '@unhurried/core/time'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import { useInSight } from '../../shared/inSight.ts'
import { SEVERITY_SIGNS } from '../../shared/severities.ts'
import { useMeasure } from '../../stores/measure.ts'
import { useShot } from '../../stores/shot.ts'
import MeasureLimits from './MeasureLimits.vue'
import type { Measuring } from './useMeasuring.ts'

/** The findings, one after the other: each leads to its frame, can be put right where that is one step, or is meant so. */
const props = defineProps<{ measuring: Measuring; keysOf: (name: string) => string }>()
const shot = useShot()
const measure = useMeasure()
const list = ref<HTMLElement | null>(null)
const reason = ref('')
const asking = ref(false)
const field = shallowRef<HTMLInputElement | null>(null)
const where = (found: Found) => {
  const layer = found.layer === null ? 'the picture' : (shot.document?.layers[found.layer]?.name ?? '')
  return `${layer}, ${framesTold(found.from, found.to)}`
}
// All is found anew whenever the hand rests: what one is writing about is still there.
watch(
  () => props.measuring.one.value && nameOf(props.measuring.one.value),
  () => {
    asking.value = false
    reason.value = ''
  },
)
useInSight(list, props.measuring.one)
async function ask(): Promise<void> {
  if (!props.measuring.one.value || !shot.mayDraw) return
  asking.value = true
  await nextTick()
  field.value?.focus()
}
function accept(): void {
  props.measuring.accept(reason.value)
  asking.value = false
  reason.value = ''
  field.value?.blur()
}
const noneWords = computed(() => {
  const name = props.measuring.check.value
  if (name === null) return 'Nothing found.'
  const { asks, view } = CHECKS[name]
  return view === 'ranked' ? asks : `Nothing found. ${asks}`
})
defineExpose({ ask })
</script>

<template>
  <aside class="findings" aria-label="Findings">
    <p class="head">
      <span v-if="measuring.list.value.length" class="soft">
        {{ Math.min(measuring.at.value + 1, measuring.list.value.length) }} of {{ measuring.list.value.length }}
      </span>
      <button
        v-if="measuring.check.value !== null && measuring.fixes.value.length > 1"
        class="plain word"
        @click="measuring.doAll()"
      >
        put all {{ measuring.fixes.value.length }} right
      </button>
      <label v-if="measure.meant.size"
        ><input type="checkbox" :checked="measuring.withMeant.value" @change="measuring.seeMeant()" /> those that are
        meant so, too</label
      >
    </p>
    <ol v-show="measuring.list.value.length" ref="list">
      <li
        v-for="found in measuring.list.value"
        :key="nameOf(found)"
        :class="{ on: found === measuring.one.value, meant: measure.meant.has(found) }"
      >
        <button
          class="plain finding"
          :aria-current="found === measuring.one.value ? 'true' : undefined"
          @click="measuring.show(found)"
        >
          <component :is="SEVERITY_SIGNS[found.severity].icon" :size="15" aria-hidden="true" />
          <span>
            <span class="hush">{{ SEVERITY_SIGNS[found.severity].words }}: </span>{{ found.words }}
            <span class="soft where">{{ CHECKS[found.check].words }} · {{ where(found) }}</span>
            <span v-if="measure.meant.has(found)" class="soft where">
              meant so{{ measure.meant.get(found)?.reason ? `: ${measure.meant.get(found)?.reason}` : '' }}
            </span>
          </span>
        </button>
        <div v-if="found === measuring.one.value && shot.mayDraw" class="acts">
          <button v-if="measuring.fix.value" class="plain word" @click="measuring.doFix()">
            {{ measuring.fix.value.words }} <kbd>{{ keysOf('fix') }}</kbd>
          </button>
          <button v-if="measuring.other.value" class="plain word" @click="measuring.doOther()">
            {{ measuring.other.value.words }} <kbd>{{ keysOf('other-fix') }}</kbd>
          </button>
          <button v-if="measure.meant.has(found)" class="plain word" @click="measuring.ask(found)">ask again</button>
          <button v-else-if="!asking" class="plain word" @click="ask">
            it is meant so <kbd>{{ keysOf('accept') }}</kbd>
          </button>
          <form v-else @submit.prevent="accept">
            <input
              :ref="element => (field = element as HTMLInputElement | null)"
              v-model="reason"
              type="text"
              maxlength="500"
              placeholder="why, in a word"
              aria-label="Why it is meant so"
              @keydown.escape.stop="asking = false"
            />
            <button class="plain word">keep</button>
          </form>
        </div>
      </li>
    </ol>
    <p v-if="!measuring.list.value.length" class="soft none">
      {{ noneWords }}
    </p>
    <MeasureLimits v-if="measuring.check.value !== null" :check="measuring.check.value" class="at-foot" />
  </aside>
</template>

<style scoped>
.findings {
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: var(--edge);
  border-left: 1px solid var(--rule);
}

.head {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  min-height: 38px;
  align-items: center;
  padding: 0 16px;
  font-size: 12.5px;
}

ol {
  flex: 1;
  margin: 0;
  padding: 0 8px 12px;
  overflow-y: auto;
  list-style: none;
}

li {
  border-top: 1px solid var(--rule-faint);
}

li.on {
  background: var(--green-wash);
}

.finding {
  display: grid;
  grid-template-columns: 18px 1fr;
  gap: 6px;
  width: 100%;
  padding: 7px 8px;
  text-align: left;
  font-size: 13.5px;
  line-height: 1.35;
}

.finding svg {
  margin-top: 2px;
  color: var(--rust);
}

.meant .finding svg {
  color: var(--soft);
}

.on .finding {
  font-weight: 700;
}

.where {
  display: block;
  font-size: 12px;
  font-weight: 400;
}

.acts {
  padding: 0 8px 8px 30px;
}

.head .word {
  color: var(--green);
}

.acts .word {
  display: block;
  color: var(--green);
  text-align: left;
}

form {
  display: flex;
  gap: 6px;
}

input[type='text'] {
  flex: 1;
  min-width: 0;
  padding: 3px 8px;
  border: 1px solid var(--rule);
  border-radius: 5px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
}

input[type='checkbox'] {
  accent-color: var(--green);
}

/* What a check asks from stands below what it finds. */
.at-foot {
  margin-top: auto;
}

.none {
  padding: 4px 18px;
}
</style>
