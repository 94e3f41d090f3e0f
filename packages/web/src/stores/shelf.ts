import type { FilmCard, NewShot, ShotCard } from '@unhurried/contract'
import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { Unreachable } from '../api/ask.ts'
import * as calls from '../api/calls.ts'
import { copies } from '../local/copies.ts'

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
  /** shots that open without a server, while it does not answer */
  const here = shallowRef<Awaited<ReturnType<typeof copies>>>([])

  async function refresh(): Promise<void> {
    try {
      films.value = (await calls.shelf.read()).films
      problem.value = ''
      here.value = []
    } catch (error) {
      problem.value = (error as Error).message
      if (error instanceof Unreachable) here.value = await copies().catch(() => [])
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

  /** Lays the shots of a film in an order: seen at once, and as it was again when the server does not take it. */
  async function order(film: string, shots: readonly ShotCard[]): Promise<void> {
    films.value = films.value.map(one => (one.id === film ? { ...one, shots: [...shots] } : one))
    await change(
      calls.shelf.order(
        film,
        shots.map(shot => shot.id),
      ),
    )
  }

  async function removeShot(id: string, name: string): Promise<Removed> {
    await change(calls.shelf.removeShot(id))
    return {
      words: `“${name}” lies in the bin.`,
      putBack: async () => void (await change(calls.shelf.restoreShot(id))),
    }
  }
  async function removeFilm(id: string, name: string): Promise<Removed> {
    await change(calls.shelf.removeFilm(id))
    return {
      words: `“${name}” lies in the bin.`,
      putBack: async () => void (await change(calls.shelf.restoreFilm(id))),
    }
  }

  return {
    films,
    known,
    problem,
    here,
    refresh,
    newFilm: (name: string) => change(calls.shelf.newFilm(name)),
    renameFilm: (id: string, name: string) => change(calls.shelf.changeFilm(id, { name })),
    studyFilm: (id: string, study: string) => change(calls.shelf.changeFilm(id, { study })),
    newShot: (film: string, shot: NewShot) => change(calls.shelf.newShot(film, shot)),
    renameShot: (id: string, name: string) => change(calls.shelf.renameShot(id, name)),
    duplicateShot: (id: string) => change(calls.shelf.duplicateShot(id)),
    order,
    removeShot,
    removeFilm,
  }
})
