import {
  AddedMember,
  AtTelephone,
  Bin,
  FromTelephone,
  Habits,
  JournalReply,
  MediaRoom,
  MediaState,
  Members,
  ModelCard,
  Models,
  MOST_SAMPLE_IDS,
  PictureNames,
  SessionState,
  Shelf,
  ShotCard,
  Telephone,
  unpackStrokes,
  VersionsReply,
  type NewMember,
  type NewShot,
  type PostBatches,
} from '@unhurried/contract'
import { z } from 'zod'
import type { AssetRef } from '@unhurried/core/assets'
import type { ModelSheet } from '@unhurried/core/models'
import { ask, askBytes, bearer, giveBytes } from './ask.ts'

const Nothing = z.object({})
const Made = z.object({ id: z.string() })

export const session = {
  read: () => ask(SessionState, 'GET', '/api/session'),
  open: (email: string, password: string) => ask(SessionState, 'POST', '/api/session', { email, password }),
  setUp: (email: string, name: string, password: string) =>
    ask(SessionState, 'POST', '/api/owner', { email, name, password }),
  close: () => ask(SessionState, 'DELETE', '/api/session'),
  newPassword: (password: string, fresh: string) => ask(Nothing, 'PUT', '/api/password', { password, fresh }),
}

export const people = {
  of: async (film: string) => (await ask(Members, 'GET', `/api/films/${film}/members`)).members,
  letIn: (film: string, wanted: NewMember) => ask(AddedMember, 'POST', `/api/films/${film}/members`, wanted),
  letGo: (film: string, account: string) => ask(Nothing, 'DELETE', `/api/films/${film}/members/${account}`),
}

export const habits = {
  read: () => ask(Habits, 'GET', '/api/habits'),
  keep: (wanted: Habits) => ask(Nothing, 'PUT', '/api/habits', wanted),
}

export const shelf = {
  read: () => ask(Shelf, 'GET', '/api/shelf'),
  newFilm: (name: string) => ask(Made, 'POST', '/api/films', { name }),
  changeFilm: (id: string, patch: { readonly name?: string; readonly study?: string }) =>
    ask(Nothing, 'PATCH', `/api/films/${id}`, patch),
  removeFilm: (id: string) => ask(Nothing, 'POST', `/api/films/${id}/remove`),
  restoreFilm: (id: string) => ask(Nothing, 'POST', `/api/films/${id}/restore`),
  order: (film: string, shots: readonly string[]) => ask(Nothing, 'PUT', `/api/films/${film}/order`, { shots }),
  newShot: (film: string, shot: NewShot) => ask(ShotCard, 'POST', `/api/films/${film}/shots`, shot),
  renameShot: (id: string, name: string) => ask(ShotCard, 'PATCH', `/api/shots/${id}`, { name }),
  duplicateShot: (id: string) => ask(ShotCard, 'POST', `/api/shots/${id}/duplicate`),
  removeShot: (id: string) => ask(Nothing, 'POST', `/api/shots/${id}/remove`),
  restoreShot: (id: string) => ask(Nothing, 'POST', `/api/shots/${id}/restore`),
}

export const bin = {
  read: () => ask(Bin, 'GET', '/api/bin'),
  empty: () => ask(Nothing, 'POST', '/api/bin/empty'),
  throwFilmAway: (id: string) => ask(Nothing, 'DELETE', `/api/bin/films/${id}`),
  throwShotAway: (id: string) => ask(Nothing, 'DELETE', `/api/bin/shots/${id}`),
}

export const shot = {
  /** its strokes, packed */
  sampleBytes: (id: string) => askBytes(`/api/shots/${id}/samples`),
  /** the shot as it comes, JSON: what is looked through elsewhere needs not be built here */
  openBytes: (id: string) => askBytes(`/api/shots/${id}`),
  journal: (id: string, { since, epoch, last }: { since: number; epoch: string; last?: string }) => {
    const known = new URLSearchParams({ after: String(since), epoch, ...(last !== undefined && { last }) })
    return ask(JournalReply, 'GET', `/api/shots/${id}/journal?${known}`)
  },
  versions: (id: string, drawing: string) =>
    ask(VersionsReply, 'GET', `/api/shots/${id}/versions?drawing=${encodeURIComponent(drawing)}`),
  /** what the media of its film know its pictures by */
  pictures: async (id: string) => (await ask(PictureNames, 'GET', `/api/shots/${id}/pictures`)).pictures,
  /** a stored thing that a batch will use, which is sent behind it */
  ahead: (id: string, { kind, id: asset }: AssetRef, bytes: Uint8Array) =>
    giveBytes(`/api/shots/${id}/assets/${asset}?kind=${kind}`, bytes),
  /** the same for a picture that was sent in pieces */
  named: (id: string, asset: string, media: string) =>
    ask(Nothing, 'PUT', `/api/shots/${id}/assets/${asset}?kind=picture&media=${media}`),
  post: (id: string, request: PostBatches) => ask(JournalReply, 'POST', `/api/shots/${id}/journal`, request),
}

/** Model sheets of a film. */
export const models = {
  read: (film: string) => ask(Models, 'GET', `/api/films/${film}/models`),
  keep: (film: string, id: string, turn: number, model: ModelSheet) =>
    ask(ModelCard, 'PUT', `/api/films/${film}/models/${id}`, { turn, model }),
  remove: (film: string, id: string) => ask(Nothing, 'DELETE', `/api/films/${film}/models/${id}`),
}

const phone = (shotId: string, id: string) => `/api/shots/${shotId}/telephones/${id}`
/** A telephone that sends photographs into a shot, as the desk asks about it. */
export const telephones = {
  open: (shotId: string) => ask(Telephone, 'POST', `/api/shots/${shotId}/telephones`),
  come: (shotId: string, id: string) => ask(FromTelephone, 'GET', phone(shotId, id)),
  photo: (shotId: string, id: string, photo: string) => askBytes(`${phone(shotId, id)}/photos/${photo}`),
  close: (shotId: string, id: string) => ask(Nothing, 'DELETE', phone(shotId, id)),
}

/** What a telephone asks, by its code. */
export const atTelephone = (token: string) => ({
  read: () => ask(AtTelephone, 'GET', '/api/telephone', undefined, bearer(token)),
  send: (photo: string, bytes: Blob) => giveBytes(`/api/telephone/photos/${photo}`, bytes, bearer(token)),
})

const path = (film: string, id: string) => `/api/films/${film}/media/${id}`
/** Recordings and clips of a film. */
export const media = {
  room: (film: string) => ask(MediaRoom, 'GET', `/api/films/${film}/media`),
  begin: (film: string, id: string, bytes: number) =>
    ask(MediaState, 'POST', `/api/films/${film}/media`, { id, bytes }),
  piece: (film: string, id: string, place: number, bytes: Uint8Array) => giveBytes(`${path(film, id)}/${place}`, bytes),
  whole: (film: string, id: string) => ask(Nothing, 'POST', `${path(film, id)}/whole`),
  bytes: (film: string, id: string) => askBytes(path(film, id)),
}

/** Asks for some stored things by name, however many: a request for each handful. */
const named = async <T>(ids: readonly string[], some: (ids: string) => Promise<T>): Promise<T[]> => {
  const all: T[] = []
  for (let i = 0; i < ids.length; i += MOST_SAMPLE_IDS)
    all.push(await some(ids.slice(i, i + MOST_SAMPLE_IDS).join(',')))
  return all
}

/** Some strokes by name, however many. */
export const strokesNamed = async (
  shotId: string,
  ids: readonly string[],
): Promise<(readonly [string, Uint8Array])[]> =>
  (await named(ids, some => askBytes(`/api/shots/${shotId}/samples?ids=${some}`))).flatMap(packed => [
    ...unpackStrokes(packed),
  ])

/** What the media of its film know some pictures of a shot by. */
export const picturesNamed = async (shotId: string, ids: readonly string[]): Promise<Record<string, string>> =>
  Object.assign(
    {},
    ...(await named(ids, some => ask(PictureNames, 'GET', `/api/shots/${shotId}/pictures?ids=${some}`))).map(
      reply => reply.pictures,
    ),
  )
