import { defineStore } from 'pinia'
import { ref, shallowRef, watch } from 'vue'
import { kept } from '../local/kept.ts'
import { Letters, shapeLetters, type LetterSettings, type ShapedLetters } from '../strokes/letters.ts'

const own = kept('desk letters')

/** The letters in the hand: what is to be written, and its shapes once the typeface is there. */
export const useLetters = defineStore('letters', () => {
  const settings = shallowRef<LetterSettings>(Letters.parse(own.read() ?? {}))
  const shaped = shallowRef<ShapedLetters | null>(null)
  /** the typeface could not be fetched */
  const broken = ref(false)
  let asked = 0

  /** Shapes the letters as they are set now. An answer that comes after newer settings is dropped. */
  async function shape(): Promise<void> {
    const mine = ++asked
    const wanted = settings.value
    try {
      const { fontOf } = await import('../strokes/fontFiles.ts')
      const font = await fontOf(wanted.face)
      if (mine !== asked) return
      shaped.value = shapeLetters(font, wanted)
      broken.value = false
    } catch {
      if (mine === asked) broken.value = true
    }
  }

  watch(settings, now => {
    own.write(now)
    void shape()
  })

  return {
    settings,
    shaped,
    broken,
    shape,
    set: (patch: Partial<LetterSettings>) => (settings.value = Letters.parse({ ...settings.value, ...patch })),
  }
})
