<script setup lang="ts">
import { flightAt, stretchKeepingArea } from '@unhurried/core/motion'
import { presetTicks, valueOf } from '@unhurried/core/chart'

/** A pebble hopping by a real chart: the same numbers the desk works with, as a picture for the door. */
const from = { x: 90, y: 330 }
const to = { x: 610, y: 330 }
const ticks = [0, ...presetTicks('both', 5).map(tick => valueOf(tick.at)), 1]
const bodies = ticks.map((t, i) => {
  const at = flightAt(from, to, 230, t)
  const speed = i === 0 || i === ticks.length - 1 ? -0.24 : 0.42 * Math.abs(t - 0.5)
  const { along, across } = stretchKeepingArea(30, 1 + speed)
  const tilt = (Math.atan2(-4 * 230 * (1 - 2 * t), to.x - from.x) * 180) / Math.PI
  const rests = speed < 0
  return {
    ...at,
    rx: rests ? across : along,
    ry: rests ? along : across,
    tilt: rests ? 0 : tilt,
    key: rests,
    middle: t === 0.5,
    x0: 90 + t * 520,
  }
})
</script>

<template>
  <svg viewBox="0 0 700 500">
    <rect x="10" y="20" width="680" height="360" fill="var(--paper)" />
    <path d="M30 364 H670" stroke="var(--rule)" />
    <path :d="`M90 330 Q350 -130 610 330`" fill="none" stroke="var(--green)" stroke-dasharray="2 6" />
    <ellipse
      v-for="(b, i) in bodies"
      :key="i"
      :cx="b.x"
      :cy="b.y"
      :rx="b.rx"
      :ry="b.ry"
      :transform="`rotate(${b.tilt} ${b.x} ${b.y})`"
      :fill="b.x < 350 && !b.key ? 'var(--past)' : 'none'"
      :fill-opacity="0.22"
      :stroke="b.key || b.middle ? 'var(--ink)' : b.x < 350 ? 'var(--past)' : 'var(--future)'"
      :stroke-width="b.key || b.middle ? 3.4 : 1.5"
    />
    <g font-size="14" text-anchor="middle" fill="var(--ink)">
      <path d="M90 440 H610" stroke="var(--ink)" />
      <g v-for="(b, i) in bodies" :key="i">
        <path
          :d="`M${b.x0} ${b.key ? 430 : 434} V${b.key ? 450 : 446}`"
          stroke="var(--ink)"
          :stroke-width="b.middle ? 2.4 : 1.2"
        />
        <circle v-if="b.key" :cx="b.x0" cy="414" r="12" fill="none" stroke="var(--ink)" />
        <text :x="b.x0" y="419">{{ 2 * i + 1 }}</text>
        <path v-if="b.middle" :d="`M${b.x0 - 8} 424 h16`" stroke="var(--ink)" stroke-width="2" />
        <circle :cx="b.x0" cy="462" r="3.4" fill="var(--green)" />
      </g>
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: min(100%, 760px);
  filter: drop-shadow(0 2px 8px rgb(90 74 48 / 12%));
}
</style>
