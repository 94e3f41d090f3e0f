import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'

/** Whether photographed sheets are worked on, and the photographs it begins with. */
export const usePhotographs = defineStore('photographs', () => {
  const shown = ref(false)
  const files = shallowRef<readonly File[]>([])
  return {
    shown,
    files,
    open(some: readonly File[] = []) {
      files.value = some
      shown.value = true
    },
  }
})
