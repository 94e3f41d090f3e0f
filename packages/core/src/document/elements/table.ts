import { isStroke, type Element, type ElementForms, type ShotDocument } from '../model/model.ts'
import { has } from '../model/table.ts'
import type { ElementKind, PlacedForms } from './kind.ts'
import { LINE } from './line.ts'
import { PICTURE } from './picture.ts'
import { SHAPE } from './shape.ts'

/** Every kind of element; a missing one does not compile. */
export const ELEMENT_KINDS: { readonly [K in keyof ElementForms]: ElementKind<K> } = {
  line: LINE,
  shape: SHAPE,
  picture: PICTURE,
}

/** The names of the kinds. */
export const ELEMENT_NAMES = Object.keys(ELEMENT_KINDS) as (keyof ElementForms)[]

/** What is known of the kind of an element. It is to be asked about elements of that kind only. */
export const kindOf = (element: Element): ElementKind<keyof ElementForms> => ELEMENT_KINDS[element.kind]

/** The colour an element is drawn in, or null. */
export const swatchOf = (element: Element): string | null => kindOf(element).swatch(element)

/** Whether an element is drawn in a colour that the document does not have. */
export const isColourGone = (document: ShotDocument, element: Element): boolean =>
  isStroke(element) && !has(document.swatches, element.swatch)

/** An element drawn in a colour that the document has: its own, else `otherwise`. */
export function inKnownColour(document: ShotDocument, element: Element, otherwise: string): Element {
  return isColourGone(document, element) ? ({ ...element, swatch: otherwise } as Element) : element
}

/** What an element of some kind is placed as. */
export type PlacedOf<E extends Element> = PlacedForms[E['kind']]
