<script setup lang="ts">
/** A colour to choose, as a dab; with `clearable` it may also be none. */
const colour = defineModel<string | null>({ required: true })
defineProps<{ label: string; fresh: string; clearable?: boolean }>()
</script>

<template>
  <span class="tint">
    <label class="dab" :class="{ none: colour === null }" :style="{ background: colour ?? 'none' }" :title="label">
      <input
        type="color"
        :value="colour ?? fresh"
        :aria-label="label"
        @input="event => (colour = (event.target as HTMLInputElement).value)"
      />
    </label>
    <button
      v-if="clearable && colour !== null"
      class="plain"
      :aria-label="`${label}: none`"
      title="Its own colours again"
      @click="colour = null"
    >
      ×
    </button>
  </span>
</template>

<style scoped>
.tint {
  display: inline-flex;
  align-items: center;
  gap: 1px;
}

.dab {
  width: 24px;
  height: 24px;
  border: 1px solid var(--faint-line);
  border-radius: 50% 46% 54% 48%;
  overflow: hidden;
  cursor: pointer;
}

.dab.none {
  border-style: dashed;
}

.dab:focus-within {
  outline: 2px solid var(--green);
  outline-offset: 2px;
}

input {
  width: 100%;
  height: 100%;
  opacity: 0;
  cursor: pointer;
}

.plain {
  padding: 0 3px;
  color: var(--soft);
}
</style>
