import { z } from 'zod'
import type { Colours } from './colours.ts'

/** How a layer is looked at on this machine. It never changes what is sent off. */
export interface LayerLook {
  readonly hidden: boolean
  /** how much of it is seen, 0–1 */
  readonly opacity: number
  /** its strokes are seen in this colour (#rrggbb), as if drawn with a coloured pencil; null: in their own */
  readonly tint: string | null
}

/** Looks of layers by id; a layer without one is seen plainly. */
export type Looks = Readonly<Record<string, LayerLook>>

export const PLAINLY: LayerLook = { hidden: false, opacity: 1, tint: null }
/** What one press dims a layer to. */
export const DIMMED = 0.3
export const LEAST_OPACITY = 0.05

export const lookOf = (looks: Looks, layer: string): LayerLook => looks[layer] ?? PLAINLY
export const isPlain = (look: LayerLook): boolean => !look.hidden && look.opacity === 1 && look.tint === null

/** The looks with one layer's changed; a layer that is then seen plainly is left out. */
export function withLook(looks: Looks, layer: string, patch: Partial<LayerLook>): Looks {
  const rest = Object.fromEntries(Object.entries(looks).filter(([id]) => id !== layer))
  const look = { ...lookOf(looks, layer), ...patch }
  return isPlain(look) ? rest : { ...rest, [layer]: look }
}

/** What is not plain about a look: "hidden", "at 30 %, tinted". */
export function lookInWords({ hidden, opacity, tint }: LayerLook): string {
  if (hidden) return 'hidden'
  const words = [opacity < 1 && `at ${Math.round(opacity * 100)} %`, tint && 'tinted'].filter(Boolean)
  return words.join(', ') || 'shown'
}

/** What one press makes of a look: shown, dimmed, hidden, and round again. */
export function nextLook({ hidden, opacity }: LayerLook): Partial<LayerLook> {
  if (hidden) return { hidden: false, opacity: 1 }
  return opacity < 1 ? { hidden: true } : { opacity: DIMMED }
}

const Look = z.object({
  hidden: z.boolean().catch(false),
  opacity: z.number().min(LEAST_OPACITY).max(1).catch(1),
  tint: z
    .string()
    .regex(/^#[0-9a-f]{6}$/i)
    .nullable()
    .catch(null),
})
/** One look of another evening, also where it was kept as a single word; what cannot be read is seen plainly. */
const KeptLook = z
  .union([
    z.literal('hidden').transform((): LayerLook => ({ ...PLAINLY, hidden: true })),
    z.literal('dimmed').transform((): LayerLook => ({ ...PLAINLY, opacity: DIMMED })),
    Look,
  ])
  .catch(PLAINLY)

/** Looks as they were kept from another evening. */
export const KeptLooks: z.ZodType<Looks> = z
  .record(z.string(), KeptLook)
  .transform(looks => Object.entries(looks).reduce<Looks>((all, [layer, look]) => withLook(all, layer, look), {}))
  .catch({})

/** How much of a tint is laid over a stroke's own colour: light and dark can still be told apart. */
const TINT_SHARE = 0.75
/** Two colours (#rrggbb) mixed, channel by channel: `share` of the second. */
function mixed(one: string, other: string, share: number): string {
  const channels = [1, 3, 5].map(at => {
    const [a, b] = [one, other].map(colour => Number.parseInt(colour.slice(at, at + 2), 16)) as [number, number]
    return Math.round(a + (b - a) * share)
      .toString(16)
      .padStart(2, '0')
  })
  return `#${channels.join('')}`
}

const tinted = new WeakMap<Colours, Map<string, Colours>>()

/** Colours as they are seen under a tint; the same value for the same two, so that what is painted with it can be kept. */
export function colouredBy(colours: Colours, tint: string | null): Colours {
  if (tint === null) return colours
  const known = tinted.get(colours) ?? new Map<string, Colours>()
  tinted.set(colours, known)
  const seen = known.get(tint) ?? (stroke => mixed(colours(stroke), tint, TINT_SHARE))
  known.set(tint, seen)
  return seen
}
