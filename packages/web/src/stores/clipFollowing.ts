import {
  BY_HAND,
  followedAnew,
  withPlaces,
  type ClipPoint,
  type FilmClip,
  type Operation,
  type SeenPlace,
} from '@unhurried/core/document'
import { frameOver, pictureAt } from '@unhurried/core/clip'
import { shallowRef, type Ref } from 'vue'
import type { FollowEnd, FoundPlace } from '../protocols/clip.ts'
import { useClips } from './clips.ts'
import { useShot } from './shot.ts'

/** A point that is being followed: the places that are known so far. */
interface Following {
  readonly point: ClipPoint
  readonly isNew: boolean
  readonly seen: readonly SeenPlace[]
  readonly of: number
}

/** What is known anew: where it was called off, or nothing could be followed, all that was known beyond stays. */
function reached(ways: readonly FollowEnd[], anew: ReturnType<typeof followedAnew>, seen: readonly SeenPlace[]) {
  if (!ways.some(way => way === 'off' || way === 'flat')) return anew
  const moments = seen.map(place => place.s)
  return { after: Math.min(...moments) - HAIR_S, before: Math.max(...moments) + HAIR_S }
}
const HAIR_S = 0.0005

/** Following one point at a time through its clip; `chosen` is the id of the point that is looked at. */
export function useClipFollowing(chosen: Ref<string | null>) {
  const shot = useShot()
  const clips = useClips()
  const following = shallowRef<Following | null>(null)
  let isOff = false

  /** Where a point is not seen any more, as frames of the shot. */
  function lostOn(point: ClipPoint): number | null {
    const { one: clip } = clips
    const last = point.places[point.places.length - 1]
    if (!clip || !last || !shot.document) return null
    const times = clips.openedOf(clip)?.times.value ?? []
    const next = times.find(time => time > last.s + 0.002)
    return next === undefined || next >= clip.outS - 1e-6 ? null : frameOver(clip, shot.document.format.fps, next)
  }
  function tellLost(id: string, end: FollowEnd): void {
    const point = shot.document?.points[id]
    const frame = point && end === 'lost' ? lostOn(point) : null
    if (point && frame !== null) {
      shot.notice = `${point.name} is lost from frame ${frame + 1} on. Go there, and put it where it is.`
    }
  }

  /** Follows a point on from where the hand put it, and takes it in as one step. */
  async function follow(
    clip: FilmClip,
    point: ClipPoint,
    here: Omit<SeenPlace, 'sure'>,
    isNew: boolean,
  ): Promise<void> {
    const opened = clips.openedOf(clip)
    if (!opened) return
    const { id } = shot
    const times = opened.times.value
    const anew = followedAnew(point, here.s)
    const from = pictureAt(times, here.s) ?? 0
    const until = times.findIndex(time => time >= Math.min(anew.before, clip.outS) - 1e-6)
    const end = until < 0 ? times.length : until
    const begin = Math.max(0, pictureAt(times, clip.inS) ?? 0) - 1
    const goesBack = anew.after === -Infinity
    let seen: SeenPlace[] = [{ ...here, sure: BY_HAND }]
    const of = end - from + (goesBack ? from - begin - 1 : 0)
    isOff = false
    chosen.value = point.id
    following.value = { point, isNew, seen, of }
    const told = (found: readonly FoundPlace[]): boolean => {
      seen = [...seen, ...found.map(({ number, x, y, sure }) => ({ s: times[number] as number, x, y, sure }))]
      following.value = { point, isNew, seen, of }
      return !isOff
    }
    const ways: FollowEnd[] = []
    try {
      ways.push(await opened.follow(from, end, here, told))
      if (goesBack && !isOff && ways[0] !== 'flat') ways.push(await opened.follow(from, begin, here, told))
    } catch {
      shot.notice = `“${clip.name}” cannot be looked through here.`
    }
    following.value = null
    if (shot.id !== id || !shot.document?.clips[clip.id]) return
    if (ways.includes('flat')) shot.notice = 'It is all alike there: put the point where something can be told apart.'
    if (ways.includes('flat') && isNew) return
    const held = { ...point, places: isNew ? [] : (shot.document.points[point.id]?.places ?? []) }
    const ops: Operation[] = [
      ...(isNew ? [{ kind: 'point.add' as const, point: { ...point, places: [] } }] : []),
      ...withPlaces(held, seen, reached(ways, anew, seen)),
    ]
    shot.commit(isNew ? `follow ${point.name}` : `follow ${point.name} from here`, ops)
    tellLost(point.id, ways[0] ?? 'off')
  }

  return { following, follow, lostOn, callOff: () => void (isOff = true) }
}
