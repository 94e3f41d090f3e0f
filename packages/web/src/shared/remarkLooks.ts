import type { Remark } from '@unhurried/core/document'

/** How somebody’s remarks look over a picture: told apart by colour and by how their lines are broken, never by colour alone. */
export interface RemarkLook {
  readonly colour: string
  /** lengths of dashes and gaps, screen pixels; null: unbroken */
  readonly dashes: string | null
}

const LOOKS: readonly [RemarkLook, ...RemarkLook[]] = [
  { colour: '#8a3b6b', dashes: null },
  { colour: '#2d6477', dashes: '9 5' },
  { colour: '#7a5a12', dashes: '2 5' },
  { colour: '#4c4f93', dashes: '10 4 2 4' },
  { colour: '#5f6b1f', dashes: '4 3' },
]

/** The look of whoever made a remark: in the order in which people first remarked something. */
export function remarkLook(all: readonly Remark[], by: string): RemarkLook {
  const people = [...new Set(all.map(remark => remark.by))].sort()
  return LOOKS[Math.max(0, people.indexOf(by)) % LOOKS.length] ?? LOOKS[0]
}
