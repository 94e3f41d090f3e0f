import { describe, expect, test } from '@jest/globals'
import { drawnOnlyIn, layDownAgain } from './setAside.ts'
import { swatchOf } from '../elements/table.ts'
import { doBatch, elementsBrought, type Operation } from '../operations/index.ts'
import type { Element } from '../model/model.ts'
import { get } from '../model/table.ts'
import { sampleDocument, sampleElement } from '../tests/sample.ts'

const document = sampleDocument()
const a = get(document.drawings, 'a')
let made = 0
const newId = () => `new-${++made}`
const brought = { ...sampleElement('n1'), samples: 'own' }
const add = (drawing: string): Operation => ({ kind: 'elements.add', drawing, elements: [brought] })

describe('laying down again what was set aside', () => {
  test('as it was when that is possible, its samples under ids of their own', () => {
    const laid = layDownAgain(document, { ops: [add('b')] }, a, id => id === 'own', newId)
    if (!laid.ok) throw new Error('refused')
    const [own] = laid.renamed.values()
    expect(laid).toMatchObject({ how: 'as-it-was', ops: [{ drawing: 'b', elements: [{ id: 'n1', samples: own }] }] })
    expect([...laid.renamed.keys()]).toEqual(['own'])
    // Samples that are not at hand are stored already, and stay what they are called.
    expect(layDownAgain(document, { ops: [add('b')] }, a, () => false, newId)).toMatchObject({ ops: [add('b')] })
  })

  test('else its strokes on the drawing in the hand, over what is there, in a colour that is there', () => {
    const lost: Operation[] = [
      { ...add('gone'), elements: [{ ...brought, swatch: 'gone' }] } as Operation,
      { kind: 'drawing.remove', id: 'gone' },
    ]
    const laid = layDownAgain(document, { ops: lost }, a, () => true, newId)
    if (!laid.ok) throw new Error('refused')
    const [op] = laid.ops
    if (op?.kind !== 'elements.add') throw new Error('no strokes')
    const top = Math.max(...Object.values(a.elements).map(element => element.z))
    expect([laid.how, op.drawing, op.elements.length]).toEqual(['strokes', 'a', 1])
    expect(op.elements[0]?.z).toBeGreaterThan(top)
    expect(Object.keys(document.swatches)).toContain(swatchOf(op.elements[0] as Element))
  })

  test('what has no strokes, or no drawing to go on, says why not', () => {
    const timing: Operation = { kind: 'drawing.remove', id: 'gone' }
    expect(layDownAgain(document, { ops: [timing] }, a, () => true, newId)).toEqual({
      ok: false,
      refusal: { code: 'unknown-drawing', what: 'gone' },
    })
    expect(layDownAgain(document, { ops: [add('gone')] }, null, () => true, newId)).toMatchObject({ ok: false })
  })

  test('what only one of two documents has is told drawing by drawing, and brings it', () => {
    const x = { ...a, id: 'x', number: 90, elements: { n2: { ...brought, id: 'n2' } } }
    const more = doBatch(document, [
      add('a'),
      { kind: 'drawing.add', drawing: x },
      { kind: 'drawing.add', drawing: { ...a, id: 'blank', number: 91, elements: {} } },
    ])
    if (!more.ok) throw new Error('refused')
    expect(drawnOnlyIn(more.document, more.document)).toEqual([])
    expect(drawnOnlyIn(document, more.document)).toEqual([])
    const ops = drawnOnlyIn(more.document, document)
    expect(ops).toEqual([add('a'), { kind: 'drawing.add', drawing: { ...x, marks: {} } }])
    expect(doBatch(document, ops).ok).toBe(true)
  })

  test('the strokes of new drawings are found too', () => {
    const drawing = { ...a, id: 'x', elements: { n1: brought } }
    expect(elementsBrought([{ kind: 'drawing.add', drawing }, add('b')])).toEqual([brought, brought])
  })
})
