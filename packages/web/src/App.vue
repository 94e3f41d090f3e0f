<script setup lang="ts">
import { RouterView } from 'vue-router'
import { useHabits } from './stores/habits.ts'

// The desk is as one likes it from the first moment on.
useHabits()
</script>

<template>
  <RouterView />
</template>
