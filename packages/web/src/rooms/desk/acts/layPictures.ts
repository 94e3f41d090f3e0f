import {
  picturesInTurn,
  picturesOn,
  picturesOnLayer,
  roomOf,
  type BroughtIn,
  type LayerFor,
  type Manner,
} from '@unhurried/core/document'
import { newId } from '../../../local/ids.ts'
import { useAsking, type Choice } from '../../../stores/asking.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useKit } from '../../../stores/kit.ts'
import { useShot } from '../../../stores/shot.ts'
import { onWords } from '../../../words/exposures.ts'

/** Pictures that were read, and what they are called together. */
export interface Held {
  readonly all: readonly BroughtIn[]
  readonly samples: ReadonlyMap<string, Uint8Array>
  readonly label: string
}

/** Where pictures can be laid, each way one step. */
export function useLaying() {
  const shot = useShot()
  const desk = useDesk()
  const kit = useKit()
  const asking = useAsking()

  /** The places that make sense where one stands, the likeliest first. */
  function choices(held: Held): Choice[] {
    const { all } = held
    const isOne = all.length === 1
    const { drawing } = desk
    const timed = all.some(one => one.frames !== null) ? 'as long as each is shown there' : onWords(desk.exposure)
    const onDrawing: Choice[] =
      drawing && desk.mayEdit
        ? [
            {
              words: isOne ? `on ${drawing.number}` : `all on ${drawing.number}, one over the other`,
              take: () => onto(held),
            },
          ]
        : []
    const here: Choice[] =
      desk.mayEdit && desk.timedLayer === desk.layerId
        ? [
            {
              words: isOne ? 'as a drawing of its own here' : `as drawings from frame ${desk.frame + 1} on, ${timed}`,
              take: () => inTurn(held),
            },
          ]
        : []
    const own = (kind: LayerFor['kind'], words: string): Choice => ({ words, take: () => onLayer(held, kind) })
    return isOne
      ? [
          ...onDrawing,
          ...here,
          own('background', 'as a background of its own, to the end'),
          own('reference', 'only to be looked at, under the drawings: never sent off'),
        ]
      : [
          ...here,
          own('drawn', `on a layer of their own, ${timed}`),
          own('reference', `only to be looked at, under the drawings, ${timed}: never sent off`),
          ...onDrawing,
        ]
  }

  /** On the drawing in hand, gathered, so that they can be moved and scaled. */
  function onto({ all, samples, label }: Held): void {
    const { document } = shot
    const { drawing } = desk
    asking.drop()
    if (!document || !drawing) return
    const { ops, elements } = picturesOn(document, drawing, all, newId)
    if (shot.commit(`${label} on ${drawing.number}`, ops, { samples })) return
    asking.tell(`${label} on ${drawing.number}: drag it, its corners, or its handle`)
    kit.tool = 'gather'
    kit.gather(elements.map(element => element.id))
  }

  const from = () => ({ frame: desk.frame, holdFrames: desk.exposure, role: desk.roleOfNew() })

  function inTurn({ all, samples, label }: Held): void {
    const { document, take } = shot
    if (!document || !take) return
    const hold = all.length === 1 ? desk.holdHere : desk.exposure
    const where = { ...from(), layer: desk.layerId, holdFrames: hold }
    const attempt = (manner: Manner) => picturesInTurn(document, take, where, all, manner, newId)
    asking.act({ label, attempt, more: { samples } })
  }

  function onLayer({ all, samples, label }: Held, kind: LayerFor['kind']): void {
    const { document, take } = shot
    if (!document || !take) return
    const layer: LayerFor = { id: newId(), name: nameOf(label), kind }
    const attempt = (manner: Manner) =>
      picturesOnLayer(document, take, layer, from(), all, { following: 'stay', room: roomOf(manner) }, newId)
    asking.act({ label, attempt, more: { samples }, done: () => (desk.layerId = layer.id) })
  }

  return { choices }
}

/** The name of a layer that is made for a file. */
const nameOf = (label: string): string => label.replace(/\.[A-Za-z0-9]{1,5}$/, '').slice(0, 80) || 'picture'
