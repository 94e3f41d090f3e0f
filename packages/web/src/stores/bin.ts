import type { Bin } from '@unhurried/contract'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import * as calls from '../api/calls.ts'

/** Something that lies in the bin: what it is, what it belongs to, and what can be done with it. */
export interface Binned {
  readonly kind: 'film' | 'shot'
  readonly id: string
  readonly name: string
  /** "with 3 shots" of a film is told by the number; a shot's film by its name */
  readonly film: string | null
  readonly shots: number | null
  readonly removedAt: string
  readonly leavesAt: string
  readonly mayThrowAway: boolean
}

/** What was removed from the shelf and can be put back. */
export const useBin = defineStore('bin', () => {
  const read = shallowRef<Bin | null>(null)
  const problem = ref('')

  async function refresh(): Promise<void> {
    try {
      read.value = await calls.bin.read()
      problem.value = ''
    } catch (error) {
      problem.value = (error as Error).message
    }
  }
  async function change(doing: Promise<unknown>): Promise<void> {
    try {
      await doing
    } finally {
      await refresh()
    }
  }

  const things = computed<Binned[]>(() => {
    const films = (read.value?.films ?? []).map((film): Binned => ({
      ...film,
      kind: 'film',
      film: null,
      mayThrowAway: true,
    }))
    const shots = (read.value?.shots ?? []).map((shot): Binned => ({ ...shot, kind: 'shot', shots: null }))
    return [...films, ...shots].sort((a, b) => b.removedAt.localeCompare(a.removedAt))
  })

  return {
    known: computed(() => read.value !== null),
    days: computed(() => read.value?.days ?? 30),
    problem,
    things,
    refresh,
    putBack: ({ kind, id }: Binned) =>
      change(kind === 'film' ? calls.shelf.restoreFilm(id) : calls.shelf.restoreShot(id)),
    throwAway: ({ kind, id }: Binned) =>
      change(kind === 'film' ? calls.bin.throwFilmAway(id) : calls.bin.throwShotAway(id)),
    empty: () => change(calls.bin.empty()),
  }
})
