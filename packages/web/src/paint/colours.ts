import { find, type Label, type ShotDocument, type Stroke } from '@unhurried/core/document'

/** The colour a stroke is painted in. */
export type Colours = (stroke: Pick<Stroke, 'swatch' | 'label'>) => string

const MISSING_COLOUR = '#2f2c28'

/** Working colours of the near and the far limbs: warm and dark in front, cool and lighter behind. */
export const LABEL_COLOURS: Readonly<Record<Label, string>> = { near: '#8c3d5c', far: '#4f9aa3' }

const known = new WeakMap<ShotDocument['swatches'], { plain: Colours; working: Colours }>()

/**
 * The colours of a shot: as they will be sent off, or with labelled strokes in their working colours. The same value for
 * the same swatches, so that what is painted with it can be kept.
 */
export function coloursOf(swatches: ShotDocument['swatches'], working: boolean): Colours {
  let colours = known.get(swatches)
  if (!colours) {
    const plain: Colours = ({ swatch }) => find(swatches, swatch)?.colour ?? MISSING_COLOUR
    colours = { plain, working: stroke => (stroke.label ? LABEL_COLOURS[stroke.label] : plain(stroke)) }
    known.set(swatches, colours)
  }
  return working ? colours.working : colours.plain
}
