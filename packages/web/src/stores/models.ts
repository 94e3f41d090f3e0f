import { Models, type ModelCard } from '@unhurried/contract'
import { MODEL_LIMITS, type ModelHeight, type ModelSheet, type ModelView } from '@unhurried/core/models'
import { LRUCache } from 'lru-cache'
import { defineStore } from 'pinia'
import { ref, shallowRef, watch } from 'vue'
import { Refused } from '../api/ask.ts'
import * as calls from '../api/calls.ts'
import { kept } from '../local/kept.ts'
import { hashOf } from '../local/hash.ts'
import { newId } from '../local/ids.ts'
import { useMedia } from './media.ts'
import { useShot } from './shot.ts'

/** Pixels of pictures of model sheets that are kept at a time. */
const MOST_PIXELS = 60_000_000

/** As often a change is made once more where others were faster. */
const MOST_TRIES = 3

/** A picture that becomes a side: PNG, its size, and its two points. */
export type FreshView = Omit<ModelView, 'id' | 'media'> & { readonly bytes: Uint8Array<ArrayBuffer> }

/** Pictures of sides, as they are wanted. */
function keptPictures(bytesOf: (id: string, name: string) => Promise<Uint8Array>) {
  /** goes up whenever another picture has come */
  const come = ref(0)
  const pictures = new LRUCache<string, ImageBitmap>({
    maxSize: MOST_PIXELS,
    sizeCalculation: picture => Math.max(1, picture.width * picture.height),
    dispose: picture => picture.close(),
  })
  const asked = new Set<string>()
  async function fetchPicture(id: string, name: string): Promise<void> {
    const bytes = await bytesOf(id, name).catch(() => null)
    const bitmap =
      bytes && (await createImageBitmap(new Blob([bytes.slice()], { type: 'image/png' })).catch(() => null))
    if (!bitmap) return
    pictures.set(id, bitmap)
    asked.delete(id)
    come.value++
  }
  return {
    come,
    /** What could not be had is asked for once more. */
    askAgain: () => asked.clear(),
    /** The picture of a side, if it is here; else it is fetched, and `come` tells when it is. */
    picture({ media }: ModelView, name: string): ImageBitmap | null {
      const here = pictures.get(media)
      if (!here && !asked.has(media)) {
        asked.add(media)
        void fetchPicture(media, name)
      }
      return here ?? null
    },
  }
}

type Change = (card: ModelCard, how: (now: ModelSheet) => Partial<ModelSheet>) => Promise<ModelCard | null>

const changeOne = <T extends { readonly id: string }>(all: readonly T[], id: string, patch: Partial<NoInfer<T>>): T[] =>
  all.map(one => (one.id === id ? { ...one, ...patch } : one))

/** What is changed of a model sheet, each of it alone. */
const edits = (change: Change) => ({
  rename: (card: ModelCard, name: string) => change(card, () => ({ name })),
  changeView: (card: ModelCard, id: string, patch: Partial<Omit<ModelView, 'id' | 'media'>>) =>
    change(card, now => ({ views: changeOne(now.views, id, patch) })),
  removeView: (card: ModelCard, id: string) =>
    change(card, now => ({ views: now.views.filter(view => view.id !== id) })),
  addHeight(card: ModelCard, height: Omit<ModelHeight, 'id'>) {
    const id = newId()
    return change(card, now => ({ heights: [...now.heights.filter(one => one.id !== id), { ...height, id }] }))
  },
  changeHeight: (card: ModelCard, id: string, patch: Partial<Omit<ModelHeight, 'id'>>) =>
    change(card, now => ({ heights: changeOne(now.heights, id, patch) })),
  removeHeight: (card: ModelCard, id: string) =>
    change(card, now => ({ heights: now.heights.filter(one => one.id !== id) })),
})

const keptOf = (film: string) => kept(`models ${film}`)
function seenBefore(film: string): readonly ModelCard[] {
  const read = Models.safeParse(keptOf(film).read())
  return read.success ? read.data.models : []
}

/** Model sheets of the film: read while one of its shots lies on the desk, changed one by one on the server, their pictures kept like clips. */
export const useModels = defineStore('models', () => {
  const shot = useShot()
  const media = useMedia()
  const all = shallowRef<readonly ModelCard[]>([])
  const chosen = ref<string | null>(null)
  const isThere = ref(false)
  const pictures = keptPictures((id, name) => media.bytesOf(shot.film, id, name))

  /** What the server has told is also kept here. */
  function take(models: readonly ModelCard[]): void {
    all.value = models
    keptOf(shot.film).write({ models })
  }

  async function read(): Promise<void> {
    const { film } = shot
    if (!film) return
    const told = await calls.models.read(film).catch(() => null)
    if (shot.film !== film) return
    isThere.value = told !== null
    if (told) take(told.models)
    // Without the server they are looked at as they were last seen here.
    else if (all.value.length === 0) all.value = seenBefore(film)
  }
  watch(
    () => shot.film,
    () => {
      all.value = []
      chosen.value = null
      pictures.askAgain()
      void read()
    },
    { immediate: true },
  )
  // What somebody else changed is seen when this desk is looked at again.
  globalThis.addEventListener?.('focus', () => {
    pictures.askAgain()
    void read()
  })

  const told = (why: string) => {
    shot.notice = why
    return null
  }

  /** Keeps a model sheet as it is now wished; 'moved-on' where somebody else changed it meanwhile, with all read anew. */
  async function keep(id: string, turn: number, model: ModelSheet): Promise<ModelCard | 'moved-on' | null> {
    const { film } = shot
    if (!shot.mayDraw) return told('Reviewers look and do not draw.')
    try {
      const card = await calls.models.keep(film, id, turn, model)
      if (shot.film !== film) return null
      take(turn === 0 ? [...all.value, card] : all.value.map(one => (one.id === id ? card : one)))
      return card
    } catch (error) {
      await read()
      const isOlder = error instanceof Refused && error.code === 'moved-on'
      return isOlder && turn > 0 ? 'moved-on' : told((error as Error).message)
    }
  }

  /**
   * Changes are made one after the other, each on the newest turn: what somebody else changed meanwhile stays, and only what is changed here is
   * changed once more.
   */
  let last: Promise<unknown> = Promise.resolve()
  function change({ id }: ModelCard, how: (now: ModelSheet) => Partial<ModelSheet>): Promise<ModelCard | null> {
    const mine = last.then(async () => {
      for (let times = 0; times < MOST_TRIES; times++) {
        const now = all.value.find(one => one.id === id)
        if (!now) return told('This model sheet is gone.')
        const model = { ...now.model, ...how(now.model) }
        if (JSON.stringify(model) === JSON.stringify(now.model)) return now
        const kept = await keep(id, now.turn, model)
        if (kept !== 'moved-on') return kept
      }
      return told('Others change this model sheet at the moment: nothing was done.')
    })
    last = mine.catch(() => undefined)
    return mine
  }

  async function addView(card: ModelCard, { bytes, ...view }: FreshView): Promise<ModelCard | null> {
    if (card.model.views.length >= MODEL_LIMITS.views) {
      return told(`A model sheet holds ${MODEL_LIMITS.views} sides; ${card.model.name} has no room any more.`)
    }
    const [id, stored] = [newId(), await hashOf(bytes)]
    const why = await media.keep(shot.film, stored, `${card.model.name}, ${view.name}`, bytes)
    if (why !== null) return told(why)
    return change(card, now => ({ views: [...now.views.filter(one => one.id !== id), { ...view, id, media: stored }] }))
  }

  return {
    all,
    chosen,
    isThere,
    come: pictures.come,
    picture: pictures.picture,
    read,
    async add(name: string): Promise<ModelCard | null> {
      const made = await keep(newId(), 0, { name, views: [], heights: [] })
      return made === 'moved-on' ? null : made
    },
    addView,
    ...edits(change),
    async remove(card: ModelCard): Promise<void> {
      try {
        await calls.models.remove(shot.film, card.id)
        take(all.value.filter(one => one.id !== card.id))
      } catch (error) {
        told((error as Error).message)
      }
    },
  }
})
