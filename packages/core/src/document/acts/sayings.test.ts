import { expect, test } from '@jest/globals'
import type { Saying } from '../model/model.ts'
import { addSaying, changeSaying } from './sayings.ts'

const saying: Saying = { id: 's', kind: 'still', layer: 'layer-1', about: [], from: 4, to: 9 }

test('what is said is said of a frame at least; where one end would pass the other, that goes along', () => {
  const added = (to: number) => addSaying({ ...saying, to }).map(op => op.kind === 'saying.add' && op.saying.to)
  expect([added(9), added(2)]).toEqual([[9], [5]])
  const changed = (patch: Partial<Pick<Saying, 'from' | 'to'>>) =>
    changeSaying(saying, patch).map(op => op.kind === 'saying.set' && op.patch)
  expect(changed({ to: 12 })).toEqual([{ to: 12 }])
  expect(changed({ from: 20 })).toEqual([{ from: 20, to: 21 }])
  expect(changed({ to: 3 })).toEqual([{ from: 2, to: 3 }])
  expect(changed({ to: 0 })).toEqual([{ from: 0, to: 1 }])
})
