import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { FIRST } from '../../document/model/fresh.ts'
import type { Saying, ShotDocument, Stroke } from '../../document/model/model.ts'
import type { Operation } from '../../document/operations/index.ts'
import { get } from '../../document/model/table.ts'
import type { Point } from '../../geometry/point.ts'
import { evenKey, restingPath } from '../../path/path.ts'
import { exposures } from '../../document/model/selectors.ts'
import { sampleElement } from '../../document/tests/sample.ts'
import { sayingInWords, saysOf } from '../said.ts'
import { trailing } from '../tracks/drag.ts'
import { along, done, layer, moving, said, survey, twos } from '../tests/moving.ts'
import { CHECKS, type CheckName } from './table.ts'

const say = (kind: Saying['kind'], about: readonly string[], from = 0, to = 99): Operation => ({
  kind: 'saying.add',
  saying: { id: `${kind}-${about.join('-')}-${from}`, kind, layer, about, from, to },
})
/** A shot after a fix of the first finding of a check. */
function put(check: CheckName, document: ShotDocument): ShotDocument {
  const seen = survey(document)
  const found = CHECKS[check].inspect(seen)[0]
  let n = 0
  const fix = found && CHECKS[check].fix?.(seen, found, () => `new-${n++}`)
  if (!fix) throw new Error(`nothing to be put right by ${check}`)
  return done(document, fix.ops)
}
const apart = (...px: number[]) => ({
  nose: px.map(() => ({ x: 100, y: 100 })),
  ear: px.map(x => ({ x: 100 + x, y: 100 })),
})

describe('what is said', () => {
  test('is told in words, with its frames where it is not said of all of the shot; of what is gone nothing is asked', () => {
    const document = moving(apart(50, 50), twos(2), [say('size', ['nose', 'ear']), say('goes', ['ink-of-nobody'])])
    const [size] = saysOf(document, 'size')
    expect(saysOf(document, 'goes')).toEqual([])
    expect(sayingInWords(document, size!, 4)).toBe('nose stays as far from ear')
    expect(sayingInWords(document, { ...size!, kind: 'follows', from: 4, to: 20 }, 24)).toBe(
      'nose follows ear, frames 5–20',
    )
    expect(sayingInWords(document, { ...size!, kind: 'still', about: [] }, 4)).toBe(
      `${document.layers[layer]?.name} is still`,
    )
    const gone = done(document, [
      ...['d1', 'd2'].map((drawing): Operation => ({ kind: 'marks.place', drawing, places: { ear: null } })),
      { kind: 'mark.remove', id: 'ear' },
    ])
    expect(saysOf(gone, 'size')).toEqual([])
  })
})

describe('a pose that is to be read', () => {
  const read = (holds: readonly number[], ...says: Operation[]) => moving({}, holds, says)
  test('is held for a quarter of a second, or said to be too short, and is then held so long', () => {
    // At 24 a quarter of a second is 6 frames.
    expect(said('exposed', read([8, 5, 8], say('reads', [], 8, 13)))).toEqual([
      '2 is to be read, and held for 5 frames: a quarter of a second is 6',
    ])
    expect(said('exposed', read([8, 6, 8], say('reads', [], 8, 14)))).toEqual([])
    expect(said('exposed', read([8, 5, 8]))).toEqual([])
    // Said of one of its frames, the pose is meant.
    expect(said('exposed', read([8, 5, 8], say('reads', [], 10, 11)))).toHaveLength(1)
    const seen = survey(read([8, 3, 8], say('reads', [], 8, 11)))
    const [found] = CHECKS.exposed.inspect(seen)
    const fix = CHECKS.exposed.fix?.(seen, found!, () => 'n')
    expect(fix?.words).toBe('hold it 3 frames longer')
    const after = done(seen.document, fix!.ops)
    const runs = exposures(get(after.takes, after.current), layer)
    // The hold behind it gave them: the shot is as long as it was.
    expect(runs.map(run => run.frames)).toEqual([8, 6, 5])
    expect(said('exposed', after)).toEqual([])
  })

  test('may be kept alive by several drawings', () => {
    expect(said('exposed', read([8, 2, 2, 2, 8], say('reads', [], 8, 14)))).toEqual([])
    expect(said('exposed', read([8, 2, 2, 8], say('reads', [], 8, 12)))).toEqual([
      '2, 3 are to be read, and held for 4 frames: a quarter of a second is 6',
    ])
    expect(
      sayingInWords(read([8], say('reads', [], 2, 8)), get(read([8], say('reads', [], 2, 8)).sayings, 'reads--2'), 8),
    ).toMatch(/^the pose of .+ is to be read, frames 3–8$/)
  })
})

describe('a colour that stays as large', () => {
  const areas = (document: ShotDocument, ...px: number[]) => ({
    ...survey(document),
    facts: new Map(
      px.map((area, i) => [
        `d${i + 1}`,
        { lines: { count: 0, widthPx: 0, leaks: [], strays: [], runs: [] }, areas: { moss: area } },
      ]),
    ),
  })
  const five = moving({}, twos(5), [say('large', ['moss'])])
  test('is told where it is off the usual by more than 6 %, and plotted', () => {
    expect(CHECKS.size.inspect(areas(five, 1000, 1000, 1059, 1061, 1000)).map(one => one.words)).toEqual([
      `${get(five.swatches, 'moss').name} has 106 % of the usual on 4: 1061 px², 1000 otherwise`,
    ])
    // Where it is not there it is not asked: that is told by the grid of parts.
    expect(CHECKS.size.inspect(areas(five, 1000, 0, 1000, 1000, 1000))).toEqual([])
    expect(CHECKS.size.inspect(areas(moving({}, twos(5)), 1000, 2000, 1000, 1000, 1000))).toEqual([])
    expect(CHECKS.size.isAsked?.({ document: five })).toBe(true)
    expect(CHECKS.size.isAsked?.({ document: moving({}, twos(5)) })).toBe(false)
    const [series] = CHECKS.size.series?.(areas(five, 1000, 1000, 1100, 1000, 1000)) ?? []
    expect(series?.values.map(one => Math.round(one.value))).toEqual([100, 100, 110, 100, 100])
  })
})

describe('size of parts', () => {
  test('off the usual by more than six in a hundred is told, with both lengths', () => {
    // Usual 100; 106 is six in a hundred, 108 is more.
    const document = (last: number) => moving(apart(100, 100, 100, 100, last), twos(5), [say('size', ['nose', 'ear'])])
    expect(said('size', document(106))).toEqual([])
    expect(said('size', document(108))).toEqual(['from nose to ear is 108 % of the usual on 5: 108 px, 100 otherwise'])
    expect(said('size', document(90))).toHaveLength(1)
    expect(said('size', { ...document(108), thresholds: { size: 0.1 } })).toEqual([])
  })

  test('nothing is asked of what is not said, nor of three drawings', () => {
    expect(said('size', moving(apart(100, 100, 100, 100, 200), twos(5)))).toEqual([])
    expect(said('size', moving(apart(100, 100, 200), twos(3), [say('size', ['nose', 'ear'])]))).toEqual([])
    expect(said('size', moving(apart(100, 100, 100, 100, 200), twos(5), [say('size', ['nose', 'ear'], 0, 8)]))).toEqual(
      [],
    )
  })

  test('moving and scaling all of it changes nothing', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 40, max: 200 }), { minLength: 4, maxLength: 8 }),
        fc.integer({ min: 2, max: 5 }),
        (px, by) => {
          const far = (scale: number) => ({
            nose: px.map(() => ({ x: 700, y: 300 })),
            ear: px.map(x => ({ x: 700 + scale * x, y: 300 })),
          })
          const told = (scale: number) =>
            CHECKS.size
              .inspect(survey(moving(far(scale), twos(px.length), [say('size', ['nose', 'ear'])])))
              .map(one => one.from)
          expect(told(by)).toEqual(told(1))
        },
      ),
    )
  })
})

describe('drag', () => {
  // There and back, on ones; the tail the same way some frames later.
  const way = (lag: number): Point[] =>
    Array.from({ length: 24 }, (_, f) => ({ x: 300 + 200 * Math.sin((f - lag) / 3), y: 300 }))
  const ones = Array<number>(24).fill(1)
  const lagging = (lag: number) => moving({ body: way(0), tail: way(lag) }, ones, [say('follows', ['tail', 'body'])])

  test('what comes two frames later follows; what comes with it, or before it, does not', () => {
    expect(said('drag', lagging(2))).toEqual([])
    expect(said('drag', lagging(0))).toEqual([
      'tail moves with body, and is said to follow it: let it come a frame or two later',
    ])
    expect(said('drag', lagging(-1))[0]).toBe('tail comes 1 frame before body, and is said to follow it')
    expect(said('drag', moving({ body: way(0), tail: way(0) }, ones))).toEqual([])
  })

  test('a part that lies ahead of its usual place while its leader goes fast is on the wrong side', () => {
    // 40 px behind at rest; half-way of a fast move 40 px ahead of that.
    const body = along(0, 0, 10, 60, 120, 180, 190, 190)
    const tail = (by: number) => body.map(({ x }, i) => ({ x: x - 40 + (i >= 3 && i <= 5 ? by : 0), y: 300 }))
    const track = (id: string, places: readonly Point[]) => ({
      id,
      name: id,
      places: places.map((at, i) => ({ frame: 2 * i, at })),
    })
    const ahead = (by: number) =>
      trailing(track('body', body), track('tail', tail(by))).map(one => [one.frame, one.aheadPx])
    expect(ahead(40)).toEqual([
      [6, 40],
      [8, 40],
      [10, 40],
    ])
    expect(ahead(-40).every(([, px]) => px === -40)).toBe(true)
    expect(ahead(0)).toEqual([])
    // What swings forward while its leader slows down does what it should: 60, 60, then 40 px.
    const slowing = along(0, 0, 60, 120, 160, 160)
    const swung = slowing.map(({ x }, i) => ({ x: x - 40 + (i === 4 ? 30 : 0), y: 300 }))
    expect(trailing(track('body', slowing), track('tail', swung))).toEqual([])
    const told = said('drag', moving({ body, tail: tail(40) }, twos(8), [say('follows', ['tail', 'body'])]))
    expect(told.filter(words => words.includes('runs ahead'))).toEqual([
      'tail runs ahead of body on 3 drawings, from frame 7: it would trail behind',
    ])
  })
})

describe('contacts', () => {
  const hands = (...gaps: number[]) => ({
    hand: gaps.map(() => ({ x: 200, y: 200 })),
    letter: gaps.map(px => ({ x: 200 + px, y: 200 })),
  })
  test('what is said to touch lies within two pixels, drawing by drawing; moved there by one press', () => {
    const document = moving(hands(0, 2, 9, 40), twos(4), [say('touches', ['hand', 'letter'], 0, 6)])
    // The last drawing is not in the stretch.
    expect(said('contact', document)).toEqual(['hand of 3 lies 9 px from letter, which it is said to touch'])
    expect(CHECKS.contact.inspect(survey(document))[0]).toMatchObject({ from: 4, to: 5, drawings: ['d3'] })
    expect(said('contact', { ...document, thresholds: { gap: 10 } })).toEqual([])
    expect(CHECKS.contact.series?.(survey(document))[0]?.values.map(one => one.value)).toEqual([0, 0, 2, 2, 9, 9])
  })

  test('of a drawing that is held, the widest gap is told', () => {
    // The letter goes on under a hand that is held.
    const base = moving({ hand: along(200) }, [4])
    const letter = [0, 1, 2, 3].flatMap((i): Operation[] => [
      {
        kind: 'drawing.add',
        drawing: {
          id: `p${i}`,
          layer: 'post',
          number: i + 1,
          role: 'key',
          elements: {},
          marks: { corner: { x: 200 + [4, 30, 12, 0][i]!, y: 300, planted: false } },
        },
      },
    ])
    const document = done(base, [
      { kind: 'layer.add', layer: { ...get(base.layers, layer), id: 'post', name: 'post', order: 9 } },
      { kind: 'mark.add', mark: { id: 'corner', layer: 'post', name: 'corner', order: 0, kind: 'point' } },
      ...letter,
      {
        kind: 'exposure.write',
        take: FIRST.take,
        layer: 'post',
        from: 0,
        runs: [0, 1, 2, 3].map(i => ({ drawing: `p${i}`, frames: 1 })),
      },
      say('touches', ['hand', 'corner']),
    ])
    expect(said('contact', document)).toEqual(['hand of 1 lies 30 px from corner, which it is said to touch'])
  })

  test('marks of two layers are held against each other as they are seen', () => {
    const base = moving({ hand: along(200, 200) }, twos(2))
    const letter: Operation[] = [
      { kind: 'layer.add', layer: { ...get(base.layers, layer), id: 'post', name: 'post', order: 9 } },
      { kind: 'mark.add', mark: { id: 'corner', layer: 'post', name: 'corner', order: 0, kind: 'point' } },
      {
        kind: 'drawing.add',
        drawing: {
          id: 'p',
          layer: 'post',
          number: 1,
          role: 'key',
          elements: {},
          marks: { corner: { x: 230, y: 300, planted: false } },
        },
      },
      { kind: 'exposure.write', take: FIRST.take, layer: 'post', from: 0, runs: [{ drawing: 'p', frames: 4 }] },
    ]
    const document = done(base, [...letter, say('touches', ['hand', 'corner'])])
    expect(said('contact', document)).toEqual([
      'hand of 1 lies 30 px from corner, which it is said to touch',
      'hand of 2 lies 30 px from corner, which it is said to touch',
    ])
    const put1 = put('contact', document)
    expect(put1.drawings.d1?.marks.hand).toMatchObject({ x: 230, y: 300 })
    expect(said('contact', put1)).toHaveLength(1)
    // On a layer that is turned the drawing is moved in its own pixels: after it, both are seen in one place.
    const quarter = { ...restingPath(1920, 1080), keys: [evenKey(0, 0, 0, Math.PI / 2)] }
    const turned = done(document, [{ kind: 'path.set', take: FIRST.take, layer, path: quarter }])
    expect(said('contact', turned)).toHaveLength(2)
    expect(said('contact', put('contact', turned))).toHaveLength(1)
  })
})

describe('still parts', () => {
  const stone = (id: string, samples: string, swatch = 'stone'): Stroke => ({
    ...sampleElement(id),
    id,
    samples,
    swatch,
  })
  const on = (drawing: string, ...elements: Stroke[]): Operation => ({ kind: 'elements.add', drawing, elements })
  const swatch: Operation = { kind: 'swatch.add', swatch: { id: 'stone', name: 'stone', colour: '#888888', order: 1 } }
  const base = (...ops: Operation[]) => moving({ nose: along(0, 10, 20) }, twos(3), [swatch, ...ops])

  test('the same strokes laid the same way are still; what is drawn anew shimmers, and is laid as on the first', () => {
    const document = base(
      on('d1', stone('a', 's1'), stone('b', 's2')),
      on('d2', stone('c', 's1'), stone('d', 's2')),
      on('d3', stone('e', 's3'), stone('f', 's2')),
      say('still', ['stone']),
    )
    expect(said('still', document)).toEqual(['stone is said to be still, and is another on 3 than on 1: it shimmers'])
    const fixed = put('still', document)
    expect(said('still', fixed)).toEqual([])
    // What is not of that colour stays.
    expect(
      Object.values(fixed.drawings.d3?.elements ?? {})
        .map(one => (one as Stroke).samples)
        .sort(),
    ).toEqual(['s-e3', 's1', 's2'])
  })

  test('where it is missing that is said; outside its frames, and of nothing said, nothing', () => {
    const ops = [on('d1', stone('a', 's1')), on('d3', stone('e', 's3'))]
    expect(said('still', base(...ops, say('still', ['stone'], 0, 4)))).toEqual([
      'stone is said to be still, and is not on 2',
    ])
    expect(said('still', base(...ops))).toEqual([])
    // What is shown before it is said is not asked: the first then is the third.
    expect(said('still', base(...ops, say('still', ['stone'], 4, 99)))).toEqual([])
    // The same stroke laid elsewhere is another.
    const moved = { ...stone('e', 's1'), matrix: [1, 0, 0, 1, 3, 0] as const }
    expect(said('still', base(on('d1', stone('a', 's1')), on('d3', moved), say('still', ['stone'], 0, 1)))).toEqual([])
    expect(
      said(
        'still',
        base(on('d1', stone('a', 's1')), on('d2', moved), on('d3', stone('f', 's1')), say('still', ['stone'])),
      ),
    ).toEqual(['stone is said to be still, and is another on 2 than on 1: it shimmers'])
    // All of the layer: every drawing has strokes of its own.
    expect(said('still', base(say('still', [])))).toHaveLength(2)
  })
})

describe('colours that come and go', () => {
  test('are not asked for where that is said', () => {
    const spark = (id: string): Stroke => ({ ...sampleElement(id), id, samples: id, swatch: 'spark' })
    const document = moving({ nose: along(0, 10, 20) }, twos(3), [
      { kind: 'swatch.add', swatch: { id: 'spark', name: 'spark', colour: '#ffcc00', order: 1 } },
      { kind: 'elements.add', drawing: 'd1', elements: [spark('a')] },
      { kind: 'elements.add', drawing: 'd3', elements: [spark('c')] },
    ])
    expect(said('present', document)).toEqual(['spark is not on 2, and on 1 and 3'])
    expect(said('present', done(document, [say('goes', ['spark'])]))).toEqual([])
  })
})
