import type { FilmCard, NewShot } from '@unhurried/contract'
import { defineStore } from 'pinia'
import { ref } from 'vue'
import * as calls from '../api/calls.ts'

/** Something removed from the shelf that can be put back. */
export interface Removed {
  readonly words: string
  putBack(): Promise<void>
}

/** Films and their shots as they lie on the shelf. */
export const useShelf = defineStore('shelf', () => {
  const films = ref<FilmCard[]>([])
  const known = ref(false)
  const problem = ref('')

  async function refresh(): Promise<void> {
    try {
      films.value = (await calls.shelf.read()).films
      problem.value = ''
    } catch (error) {
      problem.value = (error as Error).message
    }
    known.value = true
  }

  /** Does something on the server, then shows the shelf as it is. Failures are told, and thrown to the asker. */
  async function change<T>(doing: Promise<T>): Promise<T> {
    try {
      return await doing
    } finally {
      await refresh()
    }
  }

  async function removeShot(id: string, name: string): Promise<Removed> {
    await change(calls.shelf.removeShot(id))
    return { words: `“${name}” is removed.`, putBack: async () => void (await change(calls.shelf.restoreShot(id))) }
  }
  async function removeFilm(id: string, name: string): Promise<Removed> {
    await change(calls.shelf.removeFilm(id))
    return { words: `“${name}” is removed.`, putBack: async () => void (await change(calls.shelf.restoreFilm(id))) }
  }

  return {
    films,
    known,
    problem,
    refresh,
    newFilm: (name: string) => change(calls.shelf.newFilm(name)),
    renameFilm: (id: string, name: string) => change(calls.shelf.renameFilm(id, name)),
    newShot: (film: string, shot: NewShot) => change(calls.shelf.newShot(film, shot)),
    renameShot: (id: string, name: string) => change(calls.shelf.renameShot(id, name)),
    duplicateShot: (id: string) => change(calls.shelf.duplicateShot(id)),
    removeShot,
    removeFilm,
  }
})
