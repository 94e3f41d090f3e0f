/** Notes over the paper step aside when the hand that draws comes so near, in screen pixels. */
const NEAR_PX = 36

interface Note {
  readonly element: HTMLElement
  readonly box: DOMRect
}

/** Whether a place is in a box, or nearer to it than so many pixels. */
export const isNear = (
  box: Pick<DOMRect, 'left' | 'right' | 'top' | 'bottom'>,
  at: { x: number; y: number },
  px = NEAR_PX,
): boolean => at.x > box.left - px && at.x < box.right + px && at.y > box.top - px && at.y < box.bottom + px

/**
 * Keeps what lies over the paper (marked `data-over-paper`) out of the way of a stroke: near the hand it fades until the hand
 * lets go. Where notes lie is asked once a stroke, so that drawing costs nothing more.
 */
export function stepAside() {
  let notes: readonly Note[] = []
  return {
    /** The hand comes down. */
    begin(): void {
      const elements = document.querySelectorAll<HTMLElement>('[data-over-paper]')
      notes = [...elements].map(element => ({ element, box: element.getBoundingClientRect() }))
    },
    /** Where the hand is, in client pixels. */
    near(at: { x: number; y: number }): void {
      for (const { element, box } of notes) {
        // Once is enough: setting it again would have styles worked out again.
        if (element.dataset.aside === undefined && isNear(box, at)) element.dataset.aside = ''
      }
    },
    /** The hand lets go. */
    end(): void {
      for (const { element } of notes) delete element.dataset.aside
      notes = []
    },
  }
}
