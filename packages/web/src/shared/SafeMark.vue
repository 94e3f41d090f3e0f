<script setup lang="ts">
import { computed, ref } from 'vue'
import { useMedia } from '../stores/media.ts'
import { useShot } from '../stores/shot.ts'
import SetAsidePanel from './SetAsidePanel.vue'

/** Whether what is done here is stored; and what the server did not take. */
const shot = useShot()
const media = useMedia()
const looking = ref(false)
const MB = 1024 * 1024
/** What takes a while: a step with many pictures first, and recordings and clips behind it. */
const way = computed(() => {
  if (shot.ahead) return shareOf(shot.ahead.sentBytes, shot.ahead.ofBytes)
  const going = media.onTheirWay.filter(one => one.refused === null)
  const [sent, of] = [going.reduce((sum, one) => sum + one.sent, 0), going.reduce((sum, one) => sum + one.of, 0)]
  return going.length && shareOf(sent, of)
})
const shareOf = (sent: number, of: number) => ({ share: Math.floor((100 * sent) / of), mb: Math.ceil(of / MB) })
const refused = computed(() => media.onTheirWay.find(one => one.refused !== null) ?? null)
const SAYS = {
  safe: { words: 'safe', more: 'Everything is stored.' },
  sending: { words: 'sending', more: 'On its way to the server; kept on this machine meanwhile.' },
  'kept-here': {
    words: 'on this machine only',
    more: 'The server does not answer. Everything is kept on this machine and sent as soon as it does.',
  },
}
/** Strokes come first; what is brought in is on its way behind them. */
const state = computed(() => {
  if (shot.safe !== 'safe') return shot.safe
  return refused.value ? 'kept-here' : way.value ? 'sending' : 'safe'
})
const says = computed(() => {
  if (shot.safe === 'safe' && refused.value) {
    const { name, refused: why } = refused.value
    return { ...SAYS['kept-here'], more: `The server does not take “${name}”: ${why} It is kept on this machine.` }
  }
  if (shot.safe === 'safe' && way.value) {
    const more = `${way.value.mb} MB of recordings and clips on their way; kept on this machine meanwhile.`
    return { words: `sending ${way.value.share} %`, more }
  }
  if (shot.safe === 'sending' && shot.ahead && way.value) {
    const more = `“${shot.ahead.label}”: ${way.value.mb} MB on their way; kept on this machine meanwhile.`
    return { words: `sending ${way.value.share} %`, more }
  }
  const said = SAYS[shot.safe]
  const waits = shot.waiting && `${shot.waiting} Everything is kept on this machine, and sent when the server takes it.`
  return { ...said, more: shot.safe === 'kept-here' && waits ? waits : said.more }
})
</script>

<template>
  <button v-if="shot.parked.length" class="aside" title="Changes the server did not take" @click="looking = true">
    {{ shot.parked.length }} set aside
  </button>
  <span class="mark" :class="state" role="status" :title="says.more">
    <svg width="11" height="11" viewBox="0 0 11 11" aria-hidden="true">
      <circle v-if="state === 'safe'" cx="5.5" cy="5.5" r="5" fill="currentColor" />
      <path
        v-else-if="state === 'sending'"
        d="M5.5 .5 A5 5 0 0 1 5.5 10.5"
        fill="none"
        stroke="currentColor"
        stroke-width="1.6"
      />
      <rect v-else x="1.2" y="1.2" width="8.6" height="8.6" fill="none" stroke="currentColor" stroke-width="1.8" />
    </svg>
    {{ says.words }}
  </span>
  <button
    v-if="shot.ahead && shot.safe !== 'safe'"
    class="plain word"
    :title="`Send “${shot.ahead.label}” no more: it is set aside, and nothing is lost`"
    @click="shot.stopSending"
  >
    stop
  </button>
  <SetAsidePanel v-model="looking" />
</template>

<style scoped>
.mark {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-width: 78px;
  color: var(--green);
}

.mark.kept-here {
  color: var(--rust);
  font-weight: 700;
}

.aside {
  min-height: 26px;
  padding: 2px 10px;
  border: 1.5px solid var(--rust);
  border-radius: 6px;
  background: none;
  color: var(--rust);
  font: inherit;
  font-weight: 700;
  cursor: pointer;
}

.aside:hover {
  background: var(--desk);
}
</style>
