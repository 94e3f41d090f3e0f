import { commandsOf, type CommandLine } from '../../keys/command.ts'
import { useDesk } from '../../stores/desk.ts'
import { SPEED_WORDS, SPEEDS, useFlip, type Only, type SeenSize } from '../../stores/flip.ts'
import { useShot } from '../../stores/shot.ts'
import { useSound } from '../../stores/sound.ts'

/** What the flip room adds to the stores. */
export interface FlipRoomPort {
  togglePlay(): void
  goBy(frames: number): void
  showKeys(): void
}

/** Everything of the flip room by one key each, laid out for the free hand. */
export function useFlipCommands(room: FlipRoomPort) {
  const flip = useFlip()
  const desk = useDesk()
  const shot = useShot()
  const sound = useSound()
  const toggleOnly = (only: Only) => (flip.only = flip.only === only ? 'all' : only)
  const toggleSize = (size: SeenSize) => (flip.size = flip.size === size ? 'fit' : size)
  const make = (group: string, name: string, words: string, keys: string[], run: () => unknown): CommandLine => ({
    name,
    words,
    group,
    keys,
    run,
  })

  function nextLayer(): void {
    const ids = Object.values(shot.document?.layers ?? {})
      .sort((a, b) => b.order - a.order)
      .map(layer => layer.id)
    desk.layerId = ids[(ids.indexOf(desk.layerId) + 1) % ids.length] ?? desk.layerId
  }

  return commandsOf('flip', [
    make('Play', 'play', 'play and stop', ['space'], room.togglePlay),
    ...SPEEDS.map((speed, i) =>
      make('Play', `speed-${i}`, SPEED_WORDS[speed] ?? '', [String(i + 1)], () => (flip.speed = speed)),
    ),
    make('Play', 'back', 'there and back', ['q'], () => (flip.thereAndBack = !flip.thereAndBack)),
    make('Play', 'sound', 'sound is heard, or not', ['a'], () => (sound.on = !sound.on)),
    make(
      'Play',
      'pitch',
      'sound keeps its pitch at other speeds',
      ['shift+a'],
      () => (sound.keepPitch = !sound.keepPitch),
    ),
    make('Go', 'before', 'frame before', ['arrowup', 'arrowleft'], () => room.goBy(-1)),
    make('Go', 'after', 'frame after', ['arrowdown', 'arrowright'], () => room.goBy(1)),
    make('See', 'keys', 'keys only', ['w'], () => toggleOnly('keys')),
    make('See', 'breakdowns', 'keys and breakdowns only', ['e'], () => toggleOnly('breakdowns')),
    make('See', 'layer', 'one layer only', ['r'], () => (flip.oneLayer = !flip.oneLayer)),
    make('See', 'next-layer', 'the next layer', ['t'], nextLayer),
    make('See', 'silhouettes', 'silhouettes', ['s'], () => (flip.silhouettes = !flip.silhouettes)),
    make('See', 'phone', 'as large as on a phone', ['d'], () => toggleSize('phone')),
    make('See', 'full', 'at 100 %: a pixel for a pixel', ['f'], () => toggleSize('full')),
    make('See', 'bare', 'bare: only the pictures', ['h'], () => (flip.bare = !flip.bare)),
    make('Hand', 'undo', 'undo', ['ctrl+z'], () => shot.mayDraw && shot.undo()),
    make('Hand', 'redo', 'redo', ['ctrl+shift+z', 'ctrl+y'], () => shot.mayDraw && shot.redo()),
    make('See', 'help', 'this sheet of keys', ['?'], room.showKeys),
  ])
}

export type FlipCommands = ReturnType<typeof useFlipCommands>
