import { mediaForm, MEDIA_FORMS } from '@unhurried/core/assets'
import {
  addBeats,
  addSound,
  changeSound,
  LIMITS,
  trimSoundEnd,
  trimSoundStart,
  type Operation,
  type Sound,
  type SoundChange,
} from '@unhurried/core/document'
import { frameOfMoment } from '@unhurried/core/sound'
import { counted, tempoBeats } from '@unhurried/core/time'
import { defineStore } from 'pinia'
import { ref } from 'vue'
import { newId } from '../local/ids.ts'
import { readSound } from '../sound/reading.ts'
import { outInWords, type NotIn } from '../words/bringing.ts'
import { nameOfFile } from '../words/oneLine.ts'
import { useMedia } from './media.ts'
import { useShot } from './shot.ts'
import { useSound } from './sound.ts'

const HEAD_BYTES = 64

/** Whether a file is a recording or a clip, by how it begins. */
export async function isMedia(file: Blob): Promise<boolean> {
  const form = mediaForm(new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer()))
  return form !== null && MEDIA_FORMS[form].of !== 'picture'
}

/** What is done with sounds, each one step. */
export const useSoundActs = defineStore('sound acts', () => {
  const shot = useShot()
  const media = useMedia()
  const sound = useSound()
  /** the name of what is being read; empty for nothing */
  const reading = ref('')

  const commit = (label: string, ops: readonly Operation[], joins = false) =>
    ops.length > 0 && shot.mayDraw && shot.commit(label, ops, { joins })

  /** Brings recordings in, one track each, from a frame (from 0) on. What cannot be read is told by name. */
  async function bring(
    files: readonly { readonly blob: Blob; readonly name: string }[],
    from: number,
    mine = false,
  ): Promise<void> {
    const { id, film } = shot
    const out: NotIn[] = []
    for (const { blob, name } of files) {
      reading.value = name
      const read = await readSound(blob).finally(() => (reading.value = ''))
      if (shot.id !== id || !shot.document) return
      if (!read.ok) {
        out.push({ name, why: read.why })
        continue
      }
      if (Object.keys(shot.document.sounds).length >= LIMITS.sounds) {
        shot.notice = `A shot holds ${LIMITS.sounds} sounds; “${name}” has no room any more.`
        return
      }
      const { bytes, id: recording } = read.sound
      const why = await media.keep(film, recording, name, bytes)
      if (why !== null) shot.notice = why
      if (why !== null || shot.id !== id || !shot.document) return
      const made = { id: newId(), name: nameOfFile(name, 'sound'), media: recording, seconds: read.seconds, mine }
      commit(`bring in ${made.name}`, addSound(shot.document, made, from))
    }
    if (out.length) shot.notice = outInWords(out)
  }

  const fps = () => shot.document?.format.fps ?? 24
  /** Takes moments of a recording, in seconds, as beats of the shot. */
  function takeBeats(one: Sound, seconds: readonly number[], word: string): void {
    if (!shot.document) return
    const frames = seconds.flatMap(s => frameOfMoment(one, fps(), s) ?? [])
    const length = shot.take?.length ?? 0
    const inside = [...new Set(frames)].filter(frame => frame < length)
    const ops = addBeats(shot.document, inside, word, newId)
    if (ops.length === 0) shot.notice = 'There are beats on all of these frames already.'
    else commit(counted(ops.length, 'beat'), ops)
  }

  return {
    reading,
    bring,
    change: (one: Sound, change: SoundChange, joins = false) => commit(one.name, changeSound(one, change), joins),
    trimStart: (one: Sound, frame: number) => commit(`trim ${one.name}`, trimSoundStart(one, fps(), frame), true),
    trimEnd: (one: Sound, frame: number) => commit(`trim ${one.name}`, trimSoundEnd(one, fps(), frame), true),
    remove(one: Sound): void {
      commit(`remove ${one.name}`, [{ kind: 'sound.remove', id: one.id }])
      // What is still on its way, and could not be taken, is wanted no more.
      const way = media.onTheirWay.find(other => other.id === one.media)
      const isUsed = Object.values(shot.document?.sounds ?? {}).some(other => other.media === one.media)
      if (way?.refused && !isUsed) void media.letGo(way.film, way.id)
    },
    takeBeats,
    /** Beats of a tempo, from the moment of the recording on which its first one lies. */
    takeTempo(one: Sound): void {
      const tempo = sound.tempo(one.media)
      if (!tempo || !shot.document) return
      const apart = 60 / tempo.bpm
      // The first beat that is heard.
      const first = tempo.firstS + Math.max(0, Math.ceil((one.skip - tempo.firstS) / apart)) * apart
      const frame = frameOfMoment(one, fps(), first)
      const end = Math.min(shot.take?.length ?? 0, one.from + Math.ceil(one.use * fps()))
      if (frame !== null)
        commit('beats of a tempo', addBeats(shot.document, tempoBeats(tempo.bpm, fps(), frame, end), 'beat', newId))
    },
  }
})
