<script setup lang="ts">
import { RouterLink } from 'vue-router'
</script>

<template>
  <main>
    <h1 class="serif">There is no such room.</h1>
    <RouterLink :to="{ name: 'shelf' }">To the shelf</RouterLink>
  </main>
</template>

<style scoped>
main {
  padding: 100px;
}
</style>
