import { counted } from '@unhurried/core/time'
import type { Room, SheetChange } from '@unhurried/core/document'

/*
 * What the desk answers to an act on the sheet, in one line.
 */

export const framesInWords = (n: number): string => counted(n, 'frame')

/** The numbers that are named at most; beyond, they are counted. */
const MOST_NAMED = 4

function numbersInWords(numbers: readonly number[]): string {
  if (numbers.length > MOST_NAMED) return `${numbers.length} drawings`
  return numbers.join(', ')
}

const farthest = (a: { by: number }, b: { by: number }) => Math.abs(b.by) - Math.abs(a.by)

/** "on threes: 5, 6, 7 held 2 frames longer · 4 drawings begin 6 later · 24 frames as before". */
export function answerInWords(label: string, change: SheetChange): string {
  const said: string[] = []
  if (change.come.length) said.push(`${numbersInWords(change.come)} shown`)
  if (change.gone.length) said.push(`${numbersInWords(change.gone)} no longer shown`)
  const held = [...change.held].sort(farthest)
  for (const { by, numbers } of held.slice(0, 2)) {
    said.push(`${numbersInWords(numbers)} held ${framesInWords(Math.abs(by))} ${by > 0 ? 'longer' : 'shorter'}`)
  }
  if (held.length > 2) said.push(`${held.slice(2).reduce((n, one) => n + one.numbers.length, 0)} more held otherwise`)
  const moved = [...change.moved].sort(farthest)
  for (const { by, numbers } of moved.slice(0, 1)) {
    const begin = numbers.length === 1 ? 'begins' : 'begin'
    said.push(`${numbersInWords(numbers)} ${begin} ${Math.abs(by)} ${by > 0 ? 'later' : 'earlier'}`)
  }
  if (moved.length > 1) said.push(`${moved.slice(1).reduce((n, one) => n + one.numbers.length, 0)} more moved`)
  if (said.length === 0 && change.changed) said.push('shown in another order')
  if (said.length === 0 && change.lengthBy === 0) return `${label}: done`
  const length =
    change.lengthBy === 0
      ? `${framesInWords(change.length)} as before`
      : `the shot ${framesInWords(Math.abs(change.lengthBy))} ${change.lengthBy > 0 ? 'longer' : 'shorter'}: ${change.length}`
  return `${label}: ${[...said, length].join(' · ')}`
}

export const NOTHING_CHANGED = (label: string): string => `${label}: nothing changed, it is so already`

/** What a way out offers; `length` is what the shot then has. */
export function roomInWords(room: Room | 'moves', by: number, length: number, numbers: readonly number[]): string {
  const longer = by > 0 ? `: ${length} frames` : ''
  switch (room) {
    case 'longer':
      return `make the shot ${framesInWords(by)} longer${longer}`
    case 'shorter':
      return 'shorten the holds that follow'
    case 'all':
      return `move later drawings on all layers${longer}`
    case 'cover':
      return numbers.length ? `cover ${numbersInWords(numbers)}` : 'cover what lies there'
    default:
      return by > 0 ? `let later drawings move${longer}` : 'let later drawings move'
  }
}
