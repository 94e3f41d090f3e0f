import { describe, expect, test } from '@jest/globals'
import { freshDocument } from '@unhurried/core/document'
import fc from 'fast-check'
import {
  JournalQuery,
  Name,
  NewShot,
  OpenShotReply,
  SamplesQuery,
  SessionState,
  SetUp,
  ShotDocument,
  SignIn,
  unpackStrokes,
} from './index.ts'

const format = { width: 640, height: 360, fps: 24, paper: '#fdfaf3' }
const accepts = (schema: { safeParse(value: unknown): { success: boolean } }, value: unknown) =>
  schema.safeParse(value).success

describe('names', () => {
  test('are trimmed, bounded and free of control characters', () => {
    expect(Name.parse('  The stamp ')).toBe('The stamp')
    for (const bad of ['', '   ', 'a\u0000b', 'a\nb', 'x'.repeat(81), 7, null]) expect(accepts(Name, bad)).toBe(false)
    expect(accepts(Name, 'Kvarn vid ån 🐸')).toBe(true)
  })
})

describe('a new shot', () => {
  const shot = { name: 'Ripples', format, frames: 36 }

  test.each([
    ['as it should be', shot, true],
    ['a sprite of eight pixels', { ...shot, format: { ...format, width: 8, height: 8 } }, true],
    ['half a pixel', { ...shot, format: { ...format, width: 0.5 } }, false],
    ['no frames', { ...shot, frames: 0 }, false],
    ['more frames than a shot holds', { ...shot, frames: 20_001 }, false],
    ['a rate of 23.976', { ...shot, format: { ...format, fps: 23.976 } }, false],
    ['a paper that is a word', { ...shot, format: { ...format, paper: 'white' } }, false],
    ['a field nobody knows', { ...shot, owner: 'me' }, false],
  ])('%s', (_what, value, good) => {
    expect(accepts(NewShot, value)).toBe(good)
  })
})

describe('accounts', () => {
  test('a password has ten characters or more when it is made, any when it is tried', () => {
    const who = { email: 'otter@marsh-post.example', name: 'Otter' }
    expect(accepts(SetUp, { ...who, password: 'ninechars' })).toBe(false)
    expect(accepts(SetUp, { ...who, password: 'ten chars!' })).toBe(true)
    expect(accepts(SignIn, { email: who.email, password: 'x' })).toBe(true)
    expect(accepts(SignIn, { email: who.email, password: 'x'.repeat(201) })).toBe(false)
    expect(accepts(SignIn, { email: 'otter', password: 'x' })).toBe(false)
  })

  test('nothing of an account but name and address is told', () => {
    const id = '3f0c8a52-6e0f-4a2e-9d59-0d6f6c1f1a11'
    const told = SessionState.parse({
      account: { id, name: 'Otter', email: 'o@marsh-post.example', passwordHash: 'secret' },
      needsOwner: false,
      demo: null,
    })
    expect(told.account).toEqual({ id, name: 'Otter', email: 'o@marsh-post.example' })
  })
})

describe('questions in addresses', () => {
  test('numbers and lists are read from text', () => {
    expect(JournalQuery.parse({ after: '12' })).toEqual({ after: 12 })
    for (const bad of [{ after: '-1' }, { after: 'x' }, { after: '1.5' }])
      expect(accepts(JournalQuery, bad)).toBe(false)
    expect(SamplesQuery.parse({ ids: 'a,b' })).toEqual({ ids: ['a', 'b'] })
    expect(SamplesQuery.parse({})).toEqual({})
    expect(accepts(SamplesQuery, { ids: 'a,__proto__' })).toBe(false)
    expect(accepts(SamplesQuery, { ids: Array.from({ length: 101 }, (_, i) => `s${i}`).join() })).toBe(false)
  })
})

describe('answers', () => {
  test('an opened shot carries its document as it is', () => {
    const id = '3f0c8a52-6e0f-4a2e-9d59-0d6f6c1f1a11'
    const document = freshDocument(format, 12)
    const shot = { id, film: id, name: 'Ripples', seq: 3, removed: false }
    const reply = OpenShotReply.parse({
      shot,
      filmName: 'The Marsh Post',
      role: 'animator',
      epoch: 'now',
      seq: 3,
      recent: [],
      document,
    })
    expect(reply.document).toBe(document)
    expect(
      accepts(OpenShotReply, { shot, filmName: 'x', role: 'king', epoch: 'now', seq: 3, recent: [], document }),
    ).toBe(false)
  })

  test('a table key that spells something inherited does not get through', () => {
    const document = freshDocument(format, 12)
    const evil = JSON.parse(JSON.stringify(document).replace('"charts":{}', '"charts":{"__proto__":{}}')) as unknown
    expect(accepts(ShotDocument, document)).toBe(true)
    const charts = ShotDocument.safeParse(evil).data?.charts ?? {}
    expect(Object.getOwnPropertyNames(charts)).toEqual([])
    const named = { ...document, charts: { '-x': {} } }
    expect(accepts(ShotDocument, named)).toBe(false)
  })

  test('any bytes in place of packed strokes are read or refused, never more', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 60 }), bytes => {
        try {
          unpackStrokes(bytes)
        } catch (error) {
          expect(error).toBeInstanceOf(RangeError)
        }
      }),
    )
  })
})
