<script setup lang="ts">
import { RouterView } from 'vue-router'
import { useFirstField } from './keys/firstField.ts'
import { useHabits } from './stores/habits.ts'

// The desk is as one likes it from the first moment on.
useHabits()
useFirstField()
</script>

<template>
  <RouterView />
</template>
