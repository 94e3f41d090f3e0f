import { find, strokesOn } from '@unhurried/core/document'
import { defineStore } from 'pinia'
import { computed } from 'vue'
import { lookInWords, PLAINLY } from '../paint/looks.ts'
import { useCarried } from './carried.ts'
import { useDesk } from './desk.ts'
import { useKit } from './kit.ts'
import { useSight } from './sight.ts'
import { useLamp } from './lamp.ts'
import { useFlip } from './flip.ts'
import { useClips } from './clips.ts'
import { useShot } from './shot.ts'
import { useSound } from './sound.ts'
import { useModels } from './models.ts'
import { useStands } from './stands.ts'

/** Something switched on only to look, and the way back. */
export interface InForce {
  readonly id: string
  readonly words: string
  readonly back: () => void
}

const tonesInWords = (tones: number) => (tones === 0 ? 'seen in greys' : `seen in ${tones} tones`)

/** One list of everything temporary. None of it is ever part of what is sent off. */
export const useInForce = defineStore('in force', () => {
  const shot = useShot()
  const desk = useDesk()
  const kit = useKit()
  const sight = useSight()
  const lamp = useLamp()
  const flip = useFlip()
  const carried = useCarried()
  const sound = useSound()
  const clips = useClips()
  const stands = useStands()
  const models = useModels()
  const nameOf = (id: string) => (shot.document && find(shot.document.layers, id)?.name) ?? 'a layer'

  const hasLabels = computed(() =>
    Object.values(shot.document?.drawings ?? {}).some(drawing => strokesOn(drawing).some(stroke => stroke.label)),
  )

  const list = computed<InForce[]>(() => {
    const found: InForce[] = []
    const add = (id: string, words: string, back: () => void) => found.push({ id, words, back })
    for (const [id, look] of Object.entries(sight.looks)) {
      if (shot.document && find(shot.document.layers, id)) {
        add(`look ${id}`, `${nameOf(id)} is ${lookInWords(look)}`, () => sight.setLook(id, PLAINLY))
      }
    }
    if (desk.part !== null && shot.document) {
      const mark = find(shot.document.marks, desk.part)
      if (mark) add('part', `charts are read by ${mark.name}`, () => (desk.part = null))
    }
    if (flip.speed !== 1) add('speed', `played at ${flip.speedWords}`, () => (flip.speed = 1))
    if (sound.sounds.length && !sound.on) add('silent', 'nothing is heard', () => (sound.on = true))
    if (clips.all.length && clips.away) add('clips', 'clips are not seen', () => (clips.away = false))
    if (flip.thereAndBack) add('there', 'played there and back', () => (flip.thereAndBack = false))
    if (flip.only !== 'all') {
      add('only', flip.only === 'keys' ? 'keys only' : 'keys and breakdowns only', () => (flip.only = 'all'))
    }
    if (flip.oneLayer) add('layer', `only ${nameOf(desk.layerId)}`, () => (flip.oneLayer = false))
    if (flip.silhouettes) add('silhouettes', 'silhouettes', () => (flip.silhouettes = false))
    if (flip.size !== 'fit') {
      add('size', flip.size === 'phone' ? 'as large as on a phone' : 'at 100 %', () => (flip.size = 'fit'))
    }
    if (sight.workingColours && hasLabels.value) {
      add('labels', 'near and far in working colours', () => (sight.workingColours = false))
    }
    if (kit.through && kit.changed.length > 1) {
      add('through', `changes go through ${kit.changed.length} drawings`, () => (kit.through = false))
    }
    if (sight.onlyLayer) add('only this', `only ${nameOf(desk.layerId)} is seen`, () => (sight.onlyLayer = false))
    if (carried.atRest && carried.moves) {
      add('rest', 'layers lie where they were drawn', () => (carried.atRest = false))
    }
    if (sight.silhouettes) add('desk silhouettes', 'silhouettes on the desk', () => (sight.silhouettes = false))
    for (const id of Object.keys(lamp.lit)) {
      if (id !== desk.layerId && lamp.lightTable.on && shot.document && find(shot.document.layers, id)) {
        add(`lit ${id}`, `${nameOf(id)} shows through`, () => lamp.setLit(id, 0))
      }
    }
    if (sight.aids.crop) {
      add('crop', 'what lies outside the picture is covered', () => (sight.aids = { ...sight.aids, crop: null }))
    }
    if (stands.over && models.all.some(one => one.id === stands.over?.model))
      add('over', 'a model sheet lies over the paper', () => (stands.over = null))
    if (stands.tones !== null) {
      add('tones', tonesInWords(stands.tones), () => (stands.tones = null))
    }
    if (sight.dim > 0) add('dim', 'the paper is seen darker', () => (sight.dim = 0))
    if (sight.view.mirrored) {
      add('mirrored', 'the paper is seen mirrored', () => (sight.view = { ...sight.view, mirrored: false }))
    }
    if (lamp.pinned.length) {
      const numbers = lamp.pinned.map(id => shot.drawing(id)?.number).filter(n => n !== undefined)
      add('pinned', `${numbers.join(', ')} pinned to the light table`, () => (lamp.pinned = []))
    }
    if (lamp.shifts.size) {
      const numbers = [...lamp.shifts.keys()].map(id => shot.drawing(id)?.number).filter(n => n !== undefined)
      add('shifts', `${numbers.join(', ')} laid elsewhere to trace`, () => (lamp.shifts = new Map()))
    }
    if (desk.skipped.size) {
      add('skipped', `${desk.skipped.size} skipped in the queue`, () => (desk.skipped = new Set()))
    }
    return found
  })

  return { list, clear: () => list.value.forEach(one => one.back()) }
})
