<script setup lang="ts">
import { settingsOf } from '../tool.ts'
import { Box } from './settings.ts'

const box = settingsOf('box', Box)
</script>

<template>
  <button
    class="beside"
    :aria-pressed="box.painted"
    :class="{ on: box.painted }"
    @click="box = { painted: !box.painted }"
  >
    painted
  </button>
</template>
