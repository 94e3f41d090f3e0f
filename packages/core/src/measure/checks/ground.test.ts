import { describe, expect, test } from '@jest/globals'
import type { ShotDocument } from '../../document/model/model.ts'
import type { EdgeSeen } from '../delivered.ts'
import { done, moving, survey, twos } from '../tests/moving.ts'
import { CHECKS } from './table.ts'

describe('figure and ground', () => {
  const edge = (near: number, frame: number): EdgeSeen => ({
    ...{ pixels: 400, near, frame, difference: 22, lightness: 18, chroma: 7 },
    at: near > 0 ? { x: 0.25, y: 0.5 } : null,
  })
  const of = (document: ShotDocument, ...near: number[]) => ({
    ...survey(document),
    delivered: { flashing: [], shares: [], edges: new Map(near.map((share, i) => [`d${i + 1}`, edge(share, 2 * i)])) },
  })
  test('a figure that is as its ground along more than three tenths of its outline is told, and where', () => {
    const document = moving({}, twos(3))
    const found = CHECKS.ground.inspect(of(document, 0.29, 0.31, 0))
    expect(found.map(one => [one.drawings[0], one.words.slice(0, 67)])).toEqual([
      ['d2', '2 is lost before what lies behind it along 31 % of its outline: a p'],
    ])
    expect(found[0]).toMatchObject({ at: { x: 480, y: 540 }, isInPicture: true, from: 2, to: 4 })
    // Elsewhere it stood out: it is told from the frame on, to the end of its exposure.
    const later = { ...of(document), delivered: { flashing: [], shares: [], edges: new Map([['d2', edge(0.5, 3)]]) } }
    expect(CHECKS.ground.inspect(later)[0]).toMatchObject({ from: 3, to: 4 })
    const set = done(document, [{ kind: 'threshold.set', name: 'ground', value: 0.4 }])
    expect(CHECKS.ground.inspect(of(set, 0.31))).toEqual([])
  })
  test('how far they are apart is told of every drawing that has an outline in the picture, once the frames were looked at', () => {
    const document = moving({}, twos(3))
    const series = CHECKS.ground.series?.(of(document, 0.1, 0.2)) ?? []
    expect(series.map(({ name, values }) => [name.replace(/^.*, /, ''), values.map(one => one.value)])).toEqual([
      ['outline that is lost', [10, 20]],
      ['lightness apart', [18, 18]],
      ['chroma apart', [7, 7]],
    ])
    expect(CHECKS.ground.inspect(survey(document))).toEqual([])
    expect(CHECKS.ground.series?.(survey(document))).toEqual([])
  })
})
