import {
  addClip,
  changeClip,
  clipEnds,
  clipsToSend,
  framesOfReading,
  LIMITS,
  removeClip,
  takeItsTiming,
  tracingSetUp,
  untraced,
  type ClipChange,
  type FilmClip,
  type Operation,
  type Proposal,
} from '@unhurried/core/document'
import {
  corrected,
  momentUnder,
  pictureAt,
  readClip,
  thresholdOf,
  type Change,
  type ClipReading,
} from '@unhurried/core/clip'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { openedClip, type OpenedClip } from '../clips/opened.ts'
import { packClip, packPictures } from '../clips/packing.ts'
import { newId } from '../local/ids.ts'
import type { ClipPacked, SequencePicture } from '../protocols/clip.ts'
import { outInWords } from '../words/bringing.ts'
import { nameOfFile, oneLine } from '../words/oneLine.ts'
import { useDesk } from './desk.ts'
import { useMedia } from './media.ts'
import { useShot } from './shot.ts'

/** What was read of a clip, on this desk. */
export interface Read {
  readonly clip: string
  /** the number of the picture that the reading begins with */
  readonly first: number
  readonly changes: readonly Change[]
  readonly reading: ClipReading
}

/** Clips under the paper: brought in, opened while the shot lies here, looked through, traced. */
export const useClips = defineStore('clips', () => {
  const shot = useShot()
  const desk = useDesk()
  const media = useMedia()
  const opened = shallowRef<ReadonlyMap<string, OpenedClip>>(new Map())
  const all = computed<FilmClip[]>(() => Object.values(shot.document?.clips ?? {}))
  const chosen = ref<string | null>(null)
  const one = computed(() => all.value.find(clip => clip.id === chosen.value) ?? all.value[0] ?? null)
  const fps = computed(() => shot.document?.format.fps ?? 24)
  /** for looking: no clip and no wash */
  const away = ref(false)

  async function open(clip: FilmClip): Promise<void> {
    if (opening.has(clip.media)) return
    opening.add(clip.media)
    const bytes = await media.bytesOf(shot.film, clip.media, clip.name).catch(() => null)
    opening.delete(clip.media)
    if (bytes && all.value.some(other => other.media === clip.media)) {
      opened.value = new Map([...opened.value, [clip.media, openedClip(shot.film, clip, bytes)]])
    }
  }
  const opening = new Set<string>()
  watch(
    [all, () => shot.film],
    () => {
      if (!shot.film) return
      for (const clip of all.value) if (!opened.value.has(clip.media)) void open(clip)
      const gone = [...opened.value.values()].filter(old => !all.value.some(clip => clip.media === old.media))
      if (gone.length === 0) return
      for (const old of gone) old.close()
      opened.value = new Map([...opened.value].filter(([, old]) => !gone.includes(old)))
    },
    { immediate: true },
  )

  // What another desk was still sending is asked for again, when this one is looked at again.
  globalThis.addEventListener?.('focus', () => {
    for (const clip of all.value) if (!opened.value.has(clip.media)) void open(clip)
  })

  const openedOf = (clip: FilmClip): OpenedClip | null => opened.value.get(clip.media) ?? null
  /** The number of the picture of a clip that lies under a frame (from 0); null where none does. */
  function numberUnder(clip: FilmClip, frame: number): number | null {
    const moment = momentUnder(clip, fps.value, frame)
    return moment === null ? null : pictureAt(openedOf(clip)?.times.value ?? [], moment)
  }
  /** What lies under the paper on a frame, lowest first. */
  const under = (frame: number, playing = false) => (away.value ? [] : picturesUnder(all.value, frame, playing))
  /** Pictures of some clips that are seen on a frame, as far as they are here; while it plays, the last that is. */
  const picturesUnder = (some: readonly FilmClip[], frame: number, playing = false) =>
    some.flatMap(clip => {
      const number = clip.shown ? numberUnder(clip, frame) : null
      const opened = openedOf(clip)
      if (number === null || !opened) return []
      const bitmap = opened.picture(number, playing) ?? (playing ? opened.before(number) : null)
      return bitmap ? [{ bitmap, clip, number }] : []
    })
  /** one's own, that may be sent off under the drawings */
  const toSend = computed(() => (shot.document ? clipsToSend(shot.document) : []))
  /** goes up whenever another picture has come */
  const come = computed(() => [...opened.value.values()].reduce((sum, clip) => sum + clip.come.value, 0))

  return {
    all,
    one,
    chosen,
    away,
    come,
    openedOf,
    numberUnder,
    under,
    picturesUnder,
    toSend,
    ...clipActs({ shot, desk, media, one, choose: id => (chosen.value = id) }),
    ...clipReading({ shot, one, openedOf }),
  }
})

interface Parts {
  readonly shot: ReturnType<typeof useShot>
  readonly desk: ReturnType<typeof useDesk>
  readonly media: ReturnType<typeof useMedia>
  readonly one: { readonly value: FilmClip | null }
  /** another clip is in the hand */
  choose(id: string): void
}

/** What is done with clips, each one step. */
function clipActs({ shot, desk, media, one, choose }: Parts) {
  const commit = (label: string, ops: readonly Operation[], joins = false) =>
    ops.length > 0 && shot.mayDraw && shot.commit(label, ops, { joins })
  const carryOut = (label: string, step: Proposal) => shot.mayDraw && shot.carryOut(label, step)

  /** Brings a clip in; answers whether the file held pictures that move, so that its sound can be asked for else. */
  async function bring(file: File): Promise<boolean> {
    const { id } = shot
    const packed = await packClip(file)
    return shot.id !== id || !shot.document || keep(file.name, packed)
  }
  /** Pictures that follow one another lie under the paper as a clip. */
  async function bringPictures(name: string, pictures: readonly SequencePicture[]): Promise<void> {
    const { id } = shot
    const packed = await packPictures(pictures)
    if (shot.id === id && shot.document) await keep(name, packed)
  }
  /** Keeps what was packed; answers whether it was pictures that move. */
  async function keep(file: string, packed: ClipPacked): Promise<boolean> {
    const { id, film } = shot
    if (!packed.ok) {
      if (packed.why === 'no-pictures') return false
      shot.notice = outInWords([{ name: file, why: packed.why }])
      return true
    }
    if (Object.keys(shot.document?.clips ?? {}).length >= LIMITS.clips) {
      shot.notice = `A shot holds ${LIMITS.clips} clips; “${file}” has no room any more.`
      return true
    }
    const { bytes, id: stored, widthPx, heightPx, seconds } = packed.clip
    const why = await media.keep(film, stored, file, bytes)
    if (why !== null) shot.notice = why
    if (why !== null || shot.id !== id || !shot.document) return true
    const name = nameOfFile(file, 'clip')
    const made = { id: newId(), name, media: stored, widthPx, heightPx, seconds }
    // What has just come is what one wants to set up.
    if (commit(`bring in ${name}`, addClip(shot.document, made, desk.frame)) === null) choose(made.id)
    return true
  }

  return {
    bring,
    bringPictures,
    change: (clip: FilmClip, change: ClipChange, joins = false) => commit(clip.name, changeClip(clip, change), joins),
    remove: (clip: FilmClip) => shot.document && commit(`remove ${clip.name}`, removeClip(shot.document, clip.id)),
    /** A layer with a blank drawing for every so many frames of a clip, and the clip under it. */
    trace(clip: FilmClip, on: number): void {
      if (!shot.document || !shot.take) return
      const id = newId()
      const named = { id, name: oneLine(`${clip.name} traced`), on }
      const step = tracingSetUp(shot.document, shot.take, clip, named, newId)
      if (!carryOut(`trace ${clip.name}`, step)) return
      desk.layerId = id
      desk.goTo(clip.from)
    },
    /** numbers of drawings of the layer in the hand that are blank under the chosen clip */
    untraced: computed(() =>
      shot.document && shot.take && one.value ? untraced(shot.document, shot.take, desk.layerId, one.value) : [],
    ),
    /** A take in which the layer in the hand changes where the clip does. */
    takeTiming(clip: FilmClip, reading: ClipReading, times: readonly number[]): void {
      if (!shot.document || !shot.take) return
      const frames = framesOfReading(clip, shot.document.format.fps, reading, times)
      const name = oneLine(`as ${clip.name}`)
      const timing = { frames, to: clipEnds(clip, shot.document.format.fps) }
      const step = takeItsTiming(shot.document, shot.take, desk.timedLayer, timing, { id: newId(), name }, newId)
      carryOut(`take the timing of ${clip.name}`, step)
    },
  }
}

/** Looking through a clip for where it changes. */
function clipReading({
  shot,
  one,
  openedOf,
}: Pick<Parts, 'shot' | 'one'> & { openedOf(clip: FilmClip): OpenedClip | null }) {
  const read = shallowRef<Read | null>(null)
  /** how much is done, 0–1; null while nothing is looked through */
  const progress = ref<number | null>(null)
  watch(
    () => [shot.id, one.value?.media, one.value?.inS, one.value?.outS],
    () => (read.value = null),
  )

  async function look(clip: FilmClip): Promise<void> {
    const opened = openedOf(clip)
    if (!opened || progress.value !== null) return
    const times = opened.times.value
    const first = Math.max(0, pictureAt(times, clip.inS) ?? 0)
    const end = times.findIndex(time => time >= clip.outS - 1e-6)
    const to = end < 0 ? times.length : end
    progress.value = 0
    try {
      const changes = await opened.changes(first, to, done => (progress.value = done / Math.max(1, to - first)))
      if (one.value?.id === clip.id) read.value = { clip: clip.id, first, changes, reading: readClip(changes) }
    } catch {
      shot.notice = `“${clip.name}” cannot be looked through here.`
    } finally {
      progress.value = null
    }
  }
  const setReading = (reading: ClipReading) => read.value && (read.value = { ...read.value, reading })

  return {
    read,
    progress,
    look,
    /** Another amount of change from which on a picture is a new drawing; null finds it again. */
    threshold: (amount: number | null) =>
      read.value && setReading(readClip(read.value.changes, amount ?? thresholdOf(read.value.changes))),
    /** A picture (counted from the first that was read) begins a drawing, or does not: the hand knows better. */
    correct: (picture: number) => read.value && setReading(corrected(read.value.reading, picture)),
  }
}
