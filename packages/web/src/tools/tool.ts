import type { Point } from '@unhurried/core/geometry'
import { computed, type Component, type WritableComputedRef } from 'vue'
import { z } from 'zod'
import { useKit } from '../stores/kit.ts'
import type { Hand, Hover, PaperPort } from './hand.ts'

/** All there is to know of a tool: the tray, the keys, the paper and what is kept read it from here. */
export interface Tool<S extends object = object> {
  /** in the tray */
  readonly words: string
  /** on the sheet of keys */
  readonly says: string
  readonly icon: Component
  readonly key: string
  /** what it is set to; what cannot be read of what was kept is as it came (`.catch()`) */
  readonly settings: z.ZodType<S>
  /** under the hand is the pen's tip, one of its own (`settings.width`, paper pixels), or none */
  readonly tip: 'pen' | 'own' | null
  /** what is said of a tool without a tip, on the button that opens its settings */
  beside?(settings: S): string
  /** its settings, and how wide they are laid out in screen pixels */
  readonly panel?: Component
  readonly panelWidth?: number
  /** a few choices that are always in sight */
  readonly choices?: Component
  /** its changes can go through all marked drawings */
  readonly through?: boolean
  /** what it does from pressing to letting go */
  hand?(paper: PaperPort, settings: S): Hand
  /** what it shows before it is pressed */
  hover?(paper: PaperPort, settings: S): Hover
  /** what it does when it is pressed, where there is nothing to be pulled */
  press?(paper: Pick<PaperPort, 'shot' | 'desk' | 'kit'>, at: Point): void
  /** when it is taken in the hand */
  taken?(): void
}

/** Nothing is to be set. */
export const AS_IT_IS = z.object({})

/** A tool, its settings' type taken from their schema. */
export const tool = <S extends object>(one: Tool<S>): Tool<S> => one

/** The settings of a tool on this desk, kept from one evening to the next. */
export function settingsOf<S extends object>(name: string, schema: z.ZodType<S>): WritableComputedRef<S> {
  const kit = useKit()
  return computed({
    get: () => schema.parse(kit.toolSettings[name] ?? {}),
    set: next => (kit.toolSettings = { ...kit.toolSettings, [name]: next }),
  })
}
