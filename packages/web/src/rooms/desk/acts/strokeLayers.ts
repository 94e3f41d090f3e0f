import { alikeIn, layerIntoDrawings, partToLayer, sheetsUnder, type PartWish } from '@unhurried/core/document'
import { grown, type Box } from '@unhurried/core/geometry'
import { newId } from '../../../local/ids.ts'
import { useShot } from '../../../stores/shot.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useKit } from '../../../stores/kit.ts'
import { useAsking } from '../../../stores/asking.ts'
import type { Gathering } from './gathering.ts'

/** What is gathered gets a layer of its own, and goes back into the drawings of another. */
export function strokeLayers({ box }: Gathering, backToTool: () => void) {
  const shot = useShot()
  const desk = useDesk()
  const kit = useKit()
  const asking = useAsking()

  /** The drawings of the layer on which the same strokes lie. */
  const alike = () => {
    const { document } = shot
    const here = desk.drawing
    return document && here && kit.gathered.size ? alikeIn(document, here.id, [...kit.gathered]) : null
  }

  /** Gives what is gathered a layer of its own, through all drawings where it is alike. */
  function toLayer(wish: PartWish): void {
    const { document } = shot
    const here = desk.drawing
    const touched = alike()
    if (!document || !here || !touched || !desk.mayEdit) return
    const before = new Set(Object.keys(document.layers))
    // Paint that lies within the part, and marks on it, go along.
    const around = grown(box(), 3)
    const within = (b: Box) =>
      b.left >= around.left && b.right <= around.right && b.top >= around.top && b.bottom <= around.bottom
    const paint = sheetsUnder(document, here).flatMap(sheet => {
      const elements = Object.values(sheet.elements).filter(element => {
        const stroke = shot.book.placed(element)
        return stroke !== null && within(stroke.box)
      })
      return elements.length ? [{ sheet: sheet.id, elements: elements.map(element => element.id) }] : []
    })
    const marks = Object.entries(here.marks)
      .filter(([, { x, y }]) => within({ left: x, right: x, top: y, bottom: y }))
      .map(([id]) => id)
    const ops = partToLayer(document, here.id, [...kit.gathered], { ...wish, paint, marks }, newId)
    if (shot.commit(`${wish.name} to a layer of its own`, ops)) return
    const fresh = Object.keys(shot.document?.layers ?? {}).find(id => !before.has(id))
    const where = touched.size === 1 ? `${here.number}` : `${touched.size} drawings`
    asking.tell(`${wish.name} has a layer of its own, ${wish.timing}: taken from ${where}`)
    if (fresh) desk.layerId = fresh
    backToTool()
  }

  /** Puts what the layer in the hand shows into the drawings of another layer; the layer goes. */
  function intoDrawings(layer: string): void {
    const { document, take } = shot
    const part = desk.layer
    if (!document || !take || !part) return
    const ops = layerIntoDrawings(document, take, part.id, layer, newId)
    if (!ops) {
      shot.notice = 'A layer with charts, marks, linked cycles or paint tied to it stays a layer.'
      return
    }
    const name = document.layers[layer]?.name ?? ''
    if (shot.commit(`${part.name} into the drawings of ${name}`, ops)) return
    desk.layerId = layer
    asking.tell(`${part.name} lies in the drawings of ${name} again`)
  }

  return { alike, toLayer, intoDrawings }
}
