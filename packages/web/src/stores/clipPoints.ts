import {
  addPoint,
  guideAlong,
  LIMITS,
  pointsOf,
  seenAt,
  seenOn,
  wayOfSeen,
  type ClipPoint,
  type FilmClip,
  type Operation,
} from '@unhurried/core/document'
import { momentUnder, pictureAt } from '@unhurried/core/clip'
import { inverse, map, type Point } from '@unhurried/core/geometry'
import type { Track } from '@unhurried/core/measure'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { newId } from '../local/ids.ts'
import { useClipFollowing } from './clipFollowing.ts'
import { useClips } from './clips.ts'
import { useDesk } from './desk.ts'
import { useShot } from './shot.ts'

/** Points of the clip in the hand that are followed from picture to picture. */
export const useClipPoints = defineStore('clip-points', () => {
  const shot = useShot()
  const desk = useDesk()
  const clips = useClips()
  const chosen = ref<string | null>(null)
  /** the name of a new point that the next press on the paper puts */
  const asks = ref<string | null>(null)
  const { following, follow, callOff, lostOn } = useClipFollowing(chosen)

  const known = computed<ClipPoint[]>(() => (shot.document && clips.one ? pointsOf(shot.document, clips.one.id) : []))
  /** the points as they are, and as they will be with what has been found so far */
  const all = computed<ClipPoint[]>(() => {
    const now = following.value
    if (!now || now.point.clip !== clips.one?.id) return known.value
    const seen = { ...now.point, places: [...now.seen].sort((a, b) => a.s - b.s) }
    return now.isNew ? [...known.value, seen] : known.value.map(point => (point.id === seen.id ? seen : point))
  })
  const one = computed(() => all.value.find(point => point.id === chosen.value) ?? all.value[0] ?? null)
  watch(
    () => shot.id,
    () => {
      callOff()
      chosen.value = asks.value = following.value = null
    },
  )

  /** The moment of the clip in the hand at which the picture under the present frame begins; null where none lies there. */
  function momentHere(clip: FilmClip): number | null {
    const times = clips.openedOf(clip)?.times.value ?? []
    const moment = shot.document ? momentUnder(clip, shot.document.format.fps, desk.frame) : null
    const number = moment === null ? null : pictureAt(times, moment)
    return number === null ? null : (times[number] ?? null)
  }

  /** Puts a point (a new one by its name) somewhere on the paper, and follows it from there. */
  async function put(which: ClipPoint | string, at: Point): Promise<void> {
    const { one: clip } = clips
    const back = clip && inverse(clip.matrix)
    const s = clip && momentHere(clip)
    asks.value = null
    if (!shot.document || !shot.mayDraw || !clip || !back || s === null || following.value) return
    const here = { s, ...map(back, at) }
    if (here.x < 0 || here.y < 0 || here.x >= clip.widthPx || here.y >= clip.heightPx) {
      shot.notice = 'There is nothing of the clip there.'
      return
    }
    if (typeof which !== 'string') return follow(clip, which, here, false)
    if (Object.keys(shot.document.points).length >= LIMITS.points) {
      shot.notice = `A shot has ${LIMITS.points} followed points at most.`
      return
    }
    const [op] = addPoint(shot.document, clip, { id: newId(), name: which }, here)
    if (op?.kind === 'point.add') await follow(clip, op.point, here, true)
  }

  const seenHere = (point: ClipPoint): Point | null => {
    const draft = following.value?.point.id === point.id
    if (!shot.document || draft) return null
    return seenOn(shot.document, point, desk.frame)
  }
  const commit = (label: string, ops: readonly Operation[]) => shot.mayDraw && shot.commit(label, ops)

  return {
    all,
    one,
    chosen,
    asks,
    following,
    put,
    callOff,
    lostOn,
    seenHere,
    /** how sure a point is on the present frame, 0–1; above 1 where the hand put it; null where it is not seen */
    sureHere(point: ClipPoint): number | null {
      const { one: clip } = clips
      const s = clip && momentHere(clip)
      return s === null ? null : (seenAt(point, s)?.sure ?? null)
    },
    /** the ways of all points of the clip, frame by frame, on the paper */
    tracks: computed<Track[]>(() => {
      const { document, take } = shot
      if (!document || !take) return []
      return known.value.map(({ id, name, ...point }) => ({
        id,
        name,
        places: wayOfSeen(document, { id, name, ...point }, 0, take.length),
      }))
    }),
    rename: (point: ClipPoint, name: string) =>
      name && name !== point.name && commit(name, [{ kind: 'point.set', id: point.id, patch: { name } }]),
    remove: (point: ClipPoint) => commit(`remove ${point.name}`, [{ kind: 'point.remove', id: point.id }]),
    /** The way of a point as a guide for the layer in the hand. */
    asGuide(point: ClipPoint) {
      const { document, take } = shot
      if (!document || !take) return
      const where = { take: take.id, layer: desk.timedLayer, from: desk.frame }
      const ops = guideAlong(document, point, where, newId())
      if (ops.length === 0) shot.notice = `${point.name} is not seen on a frame of this take.`
      else commit(`the way of ${point.name}`, ops)
    },
  }
})
