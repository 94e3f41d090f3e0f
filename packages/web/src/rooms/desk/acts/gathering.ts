import { elementsInOrder } from '@unhurried/core/document'
import { centreOf, EMPTY_BOX, isEmptyBox, unite, type Box, type Point } from '@unhurried/core/geometry'
import { useShot } from '../../../stores/shot.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useKit } from '../../../stores/kit.ts'

/** What is gathered, on every drawing that changes go through. */
export function useGathering() {
  const shot = useShot()
  const desk = useDesk()
  const kit = useKit()

  /** What is gathered, by the drawing it lies on, in the order it is painted. */
  const gathered = () =>
    kit.changed.map(drawing => ({
      drawing,
      elements: elementsInOrder(drawing).filter(element => kit.gathered.has(element.id)),
    }))

  function box(): Box {
    return [...kit.gathered].reduce<Box>((all, id) => {
      const element = desk.drawing?.elements[id]
      const stroke = element && shot.book.placed(element)
      return stroke ? unite(all, stroke.box) : all
    }, EMPTY_BOX)
  }

  function pivot(): Point {
    const around = box()
    return kit.pivot ?? (isEmptyBox(around) ? { x: 0, y: 0 } : centreOf(around))
  }

  function rename(renamed: ReadonlyMap<string, string>): void {
    if (renamed.size) kit.gathered = new Set([...kit.gathered].map(id => renamed.get(id) ?? id))
  }

  return { gathered, box, pivot, rename }
}

export type Gathering = ReturnType<typeof useGathering>
