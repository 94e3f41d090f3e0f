import { describe, expect, test } from '@jest/globals'
import { studyOf } from '@unhurried/core/document'
import { studyInName, studyInWords } from './study.ts'

describe('a study of somebody else’s work', () => {
  test('says whose it is, by the shot and by the clips under it, each once; one’s own says nothing', () => {
    const clip = (source: string) => ({ source }) as never
    const sources = studyOf({ study: 'Otter', clips: { a: clip(''), b: clip('Newt'), c: clip('Otter') } })
    expect(sources).toEqual(['Otter', 'Newt'])
    expect(studyInWords(sources)).toBe('a study of Otter and of Newt, for practice only')
    expect([studyInWords([]), studyInName([])]).toEqual(['', ''])
  })

  test('is part of a file’s name, whatever it is written in', () => {
    expect(studyInName(['Old Heron, “Dusk”'])).toBe('-study-of-old-heron-dusk')
    expect(studyInName(['Ångström'])).toBe('-study-of-ångström')
    expect(studyInName(['???'])).toBe('-study')
    expect(studyInName(['x'.repeat(90)]).length).toBeLessThan(75)
  })
})
