<script setup lang="ts">
import type { Role } from '@unhurried/core/document'

defineProps<{ number: number; role: Role }>()
</script>

<template>
  <span class="sheet-number" :class="role" :title="role">{{ number }}</span>
</template>
