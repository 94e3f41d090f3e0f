<script setup lang="ts">
import { FORMAT_NAMES, FORMATS, type FormatName } from '../../send/formats/table.ts'

/** What it is sent off as. */
const format = defineModel<FormatName>({ required: true })
defineProps<{ disabled: boolean }>()
</script>

<template>
  <section>
    <span id="as" class="label">as</span>
    <div class="formats" role="radiogroup" aria-labelledby="as">
      <button
        v-for="name in FORMAT_NAMES"
        :key="name"
        class="format"
        role="radio"
        :aria-checked="format === name"
        :class="{ on: format === name }"
        :disabled="disabled"
        @click="format = name"
      >
        <b>{{ FORMATS[name].words }}</b>
        <span class="soft">{{ FORMATS[name].says }}</span>
      </button>
    </div>
  </section>
</template>

<style scoped>
.label {
  display: block;
  color: var(--soft);
  margin-bottom: 4px;
}

.formats {
  display: flex;
  flex-direction: column;
  margin: 0 -8px;
}

.format {
  display: grid;
  grid-template-columns: 112px 1fr;
  align-items: baseline;
  gap: 10px;
  min-height: 27px;
  padding: 3px 8px;
  border: 0;
  border-radius: 7px;
  background: none;
  text-align: left;
  font-size: 12.5px;
  cursor: pointer;
}

.format b {
  font-size: 13.5px;
  font-weight: 400;
}

.format.on {
  background: var(--green-wash);
}

.format.on b {
  font-weight: 700;
  color: var(--green);
}
</style>
