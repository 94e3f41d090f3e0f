import { commandsOf } from '../../keys/command.ts'

/** What the shelf adds: where its keys lead. */
export interface ShelfPort {
  seek(): void
  newFilm(): void
  openBin(): void
  showKeys(): void
}

const OPENS = '.card a.opens, .blank, .strip a'

/** The card that lies next in a direction, as they lie on the screen; the first when none has the focus. */
function cardTowards(dx: -1 | 0 | 1, dy: -1 | 0 | 1): HTMLElement | null {
  const cards = [...document.querySelectorAll<HTMLElement>(OPENS)]
  const from = document.activeElement?.closest<HTMLElement>('.card, .blank, .strip li')
  if (!from) return cards[0] ?? null
  const middle = (box: DOMRect) => ({ x: box.left + box.width / 2, y: box.top + box.height / 2 })
  const here = middle(from.getBoundingClientRect())
  let best: HTMLElement | null = null
  let least = Infinity
  for (const card of cards) {
    const box = (card.closest<HTMLElement>('.card, .blank, .strip li') ?? card).getBoundingClientRect()
    const there = middle(box)
    const [along, across] = dx
      ? [(there.x - here.x) * dx, Math.abs(there.y - here.y)]
      : [(there.y - here.y) * dy, Math.abs(there.x - here.x)]
    // Sideways only along the row, up and down to whatever is nearest.
    if (along < 8 || (dx && across > box.height / 2)) continue
    const far = along + 2 * across
    if (far < least) [best, least] = [card, far]
  }
  return best
}

function go(dx: -1 | 0 | 1, dy: -1 | 0 | 1): void {
  const card = cardTowards(dx, dy)
  card?.focus()
  card?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
}

/** Everything of the shelf by one key each. Enter opens what has the focus, as everywhere. */
export const useShelfCommands = (port: ShelfPort) =>
  commandsOf('shelf', [
    { group: 'Go', name: 'left', words: 'shot to the left', keys: ['arrowleft'], run: () => go(-1, 0) },
    { group: 'Go', name: 'right', words: 'shot to the right', keys: ['arrowright'], run: () => go(1, 0) },
    { group: 'Go', name: 'up', words: 'row above', keys: ['arrowup'], run: () => go(0, -1) },
    { group: 'Go', name: 'down', words: 'row below', keys: ['arrowdown'], run: () => go(0, 1) },
    { group: 'Go', name: 'seek', words: 'find by name', keys: ['/'], run: port.seek },
    { group: 'Go', name: 'bin', words: 'the bin', keys: ['b'], run: port.openBin },
    { group: 'Shelf', name: 'new-film', words: 'new film', keys: ['t'], run: port.newFilm },
    { group: 'Shelf', name: 'keys', words: 'this sheet of keys', keys: ['?'], run: port.showKeys },
  ])
