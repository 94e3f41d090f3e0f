import { useHabits } from '../stores/habits.ts'
import { written } from '../words/written.ts'

/** One thing that can be done: buttons, keys and the sheet of keys all use the same definition. */
export interface Command {
  /** room and name: "flip/play". Keys that were changed are kept under it, so no room touches another's */
  readonly id: string
  readonly words: string
  readonly group: string
  readonly keys: readonly string[]
  can(): boolean
  run(): unknown
  /** done while the key is down, and undone by letting go */
  release?(): unknown
  /** the browser does with the key what it does with it as well */
  readonly shares?: boolean
}

/** A command as a room writes it down: without the room, and possible whenever nothing else is said. */
export interface CommandLine extends Omit<Command, 'id' | 'can'> {
  readonly name: string
  can?(): boolean
}

const always = () => true

/** The commands of a room, found by their names. Throws where a name is given twice, or asked for and not there. */
export function commandsOf(room: string, lines: readonly CommandLine[]) {
  const habits = useHabits()
  const commands = lines.map(({ name, can = always, ...rest }): Command => ({ id: `${room}/${name}`, can, ...rest }))
  const byName = new Map(commands.map((command, i) => [lines[i]?.name, command]))
  if (byName.size < commands.length) throw new Error(`two commands of the room ${room} have one name`)

  function get(name: string): Command {
    const command = byName.get(name)
    if (!command) throw new Error(`no command of the room ${room} is called ${name}`)
    return command
  }
  /** The keys of a command as they are now, as people read them: "⇧ Y". Empty when it has none. */
  const keysOf = (name: string): string => habits.keysOf(get(name)).map(written).join(', ')

  return {
    commands,
    get,
    keysOf,
    /** Words about a command (its own unless told), with its keys behind them. */
    tip(name: string, words = get(name).words): string {
      const keys = keysOf(name)
      return keys ? `${words} (${keys})` : words
    },
  }
}
