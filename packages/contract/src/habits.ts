import { z } from 'zod'

const CommandId = z.string().regex(/^[a-z-]{1,20}\/[a-z0-9-]{1,40}$/, 'must be a room and the name of a command')
/** A key as commands spell it: "t", "shift+t", "ctrl+z", "?". */
const KeyName = z
  .string()
  .min(1, 'must not be empty')
  .max(30)
  .regex(/^(ctrl\+)?(alt\+)?(shift\+)?([^\s\p{Cc}\p{Cs}]|[a-z]+[0-9]*)$/u, 'must be a key')

/** Commands of Flip that were kept before names told the room; all others were meant for the desk. */
const OF_FLIP = /^(speed-\d|before|after|breakdowns|next-layer|phone|full|help)$/

/** Keys kept before names told the room get the room they were chosen in. */
const withRooms = (keys: unknown): unknown =>
  typeof keys === 'object' && keys !== null && !Array.isArray(keys)
    ? Object.fromEntries(
        Object.entries(keys).map(([id, of]) => [
          id.includes('/') ? id : `${OF_FLIP.test(id) ? 'flip' : 'desk'}/${id}`,
          of,
        ]),
      )
    : keys

const MOST_KEYS = 4
const MOST_COMMANDS = 300

/** What the side button of a pen does while it is held: moves the paper, rubs out, gathers, or nothing else than the tip. */
export const SIDE_BUTTONS = ['paper', 'rub-out', 'gather', 'nothing'] as const

/** How somebody likes to sit at the desk, whatever the machine and the shot. */
export const Habits = z.strictObject({
  night: z.boolean(),
  /** the desk is mirrored, and the keys lie under the right hand */
  leftHanded: z.boolean(),
  /** a finger draws as a pen does, instead of moving the paper; null: as long as no pen was seen on that machine */
  fingerDraws: z.boolean().nullable(),
  sideButton: z.enum(SIDE_BUTTONS),
  /** keys of commands where they are not as they came; none is a command without a key */
  keys: z.preprocess(
    withRooms,
    z
      .record(CommandId, z.array(KeyName).max(MOST_KEYS))
      .refine(keys => Object.keys(keys).length <= MOST_COMMANDS, `must hold at most ${MOST_COMMANDS} commands`),
  ),
})
export type Habits = z.infer<typeof Habits>

export const FRESH_HABITS: Habits = {
  night: false,
  leftHanded: false,
  fingerDraws: null,
  sideButton: 'paper',
  keys: {},
}
