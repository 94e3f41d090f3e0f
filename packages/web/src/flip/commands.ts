import type { Command } from '../keys/commands.ts'
import { written } from '../keys/written.ts'
import { useHabits } from '../stores/habits.ts'
import { useDesk } from '../stores/desk.ts'
import { SPEED_WORDS, SPEEDS, useFlip, type Only, type SeenSize } from '../stores/flip.ts'
import { useShot } from '../stores/shot.ts'

/** What the flip room adds to the stores. */
export interface FlipRoomPort {
  togglePlay(): void
  goBy(frames: number): void
  showKeys(): void
}

/** Everything of the flip room by one key each, laid out for the free hand. */
export function useFlipCommands(room: FlipRoomPort) {
  const flip = useFlip()
  const habits = useHabits()
  const desk = useDesk()
  const shot = useShot()
  const toggleOnly = (only: Only) => (flip.only = flip.only === only ? 'all' : only)
  const toggleSize = (size: SeenSize) => (flip.size = flip.size === size ? 'fit' : size)
  const make = (group: string, id: string, words: string, keys: string[], run: () => unknown): Command => ({
    id,
    words,
    group,
    keys,
    run,
    can: () => true,
  })

  function nextLayer(): void {
    const ids = Object.values(shot.document?.layers ?? {})
      .sort((a, b) => b.order - a.order)
      .map(layer => layer.id)
    desk.layerId = ids[(ids.indexOf(desk.layerId) + 1) % ids.length] ?? desk.layerId
  }

  const commands: Command[] = [
    make('Play', 'play', 'play and stop', ['space'], room.togglePlay),
    ...SPEEDS.map((speed, i) =>
      make('Play', `speed-${i}`, SPEED_WORDS[speed] ?? '', [String(i + 1)], () => (flip.speed = speed)),
    ),
    make('Play', 'back', 'there and back', ['q'], () => (flip.thereAndBack = !flip.thereAndBack)),
    make('Go', 'before', 'frame before', ['arrowup', 'arrowleft'], () => room.goBy(-1)),
    make('Go', 'after', 'frame after', ['arrowdown', 'arrowright'], () => room.goBy(1)),
    make('See', 'keys', 'keys only', ['w'], () => toggleOnly('keys')),
    make('See', 'breakdowns', 'keys and breakdowns only', ['e'], () => toggleOnly('breakdowns')),
    make('See', 'layer', 'one layer only', ['r'], () => (flip.oneLayer = !flip.oneLayer)),
    make('See', 'next-layer', 'the next layer', ['t'], nextLayer),
    make('See', 'silhouettes', 'silhouettes', ['s'], () => (flip.silhouettes = !flip.silhouettes)),
    make('See', 'phone', 'as large as on a phone', ['d'], () => toggleSize('phone')),
    make('See', 'full', 'full size', ['f'], () => toggleSize('full')),
    make('See', 'bare', 'bare: only the pictures', ['h'], () => (flip.bare = !flip.bare)),
    make('Hand', 'undo', 'undo', ['ctrl+z'], () => shot.mayDraw && shot.undo()),
    make('Hand', 'redo', 'redo', ['ctrl+shift+z', 'ctrl+y'], () => shot.mayDraw && shot.redo()),
    make('See', 'help', 'this sheet of keys', ['?'], room.showKeys),
  ]
  const byId = new Map(commands.map(command => [command.id, command]))
  const get = (id: string): Command => {
    const command = byId.get(id)
    if (!command) throw new Error(`no command is called ${id}`)
    return command
  }
  return {
    commands,
    get,
    tip: (id: string) => `${get(id).words} (${habits.keysOf(get(id)).map(written).join(', ')})`,
  }
}

export type FlipCommands = ReturnType<typeof useFlipCommands>
