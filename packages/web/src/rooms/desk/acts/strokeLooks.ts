import { isStroke, type Operation, type Picture, type Stroke } from '@unhurried/core/document'
import { joined, smoothed, packSamples, type Box, type Nib } from '@unhurried/core/geometry'
import { reshapeEdit } from '../../../strokes/edits.ts'
import { newId } from '../../../local/ids.ts'
import { useShot } from '../../../stores/shot.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useKit } from '../../../stores/kit.ts'
import type { Gathering } from './gathering.ts'

/** What is gathered gets another colour, weight, pen or label; lines are smoothed and joined. */
export function strokeLooks({ gathered, rename }: Gathering) {
  const shot = useShot()
  const desk = useDesk()
  const kit = useKit()

  function set(
    label: string,
    patchOf: (stroke: Stroke) => Partial<Pick<Stroke, 'swatch' | 'width' | 'nib' | 'label'>>,
  ) {
    const ops = gathered().flatMap(({ drawing, elements }): Operation[] => {
      const changes = elements.filter(isStroke).map(stroke => ({ id: stroke.id, patch: patchOf(stroke) }))
      return changes.length ? [{ kind: 'elements.set', drawing: drawing.id, changes }] : []
    })
    if (ops.length) shot.commit(`${label} ${kit.changedWords}`, ops)
  }

  function smooth(): void {
    const edits = kit.changed.map(drawing =>
      reshapeEdit(drawing, shot.book, kit.gathered, samples => smoothed(samples)),
    )
    const samples = new Map(edits.flatMap(edit => [...edit.samples]))
    const ops = edits.flatMap(edit => edit.ops)
    if (!shot.commit(`smooth ${kit.changedWords}`, ops, { samples }))
      rename(new Map(edits.flatMap(edit => [...edit.renamed])))
  }

  const lines = () =>
    gathered()[0]
      ?.elements.filter(isStroke)
      .filter(stroke => stroke.kind === 'line') ?? []

  /** Joins the gathered lines of the present drawing into one, one after the other at their nearest ends. */
  function join(): void {
    const { drawing } = desk
    const all = lines()
    const placed = all.flatMap(element => shot.book.placed(element) ?? [])
    const [first] = all
    if (!drawing || !first || placed.length < 2) return
    const samples = placed.slice(1).reduce((path, stroke) => joined(path, stroke.samples), placed[0]!.samples)
    const [id, sampleId] = [newId(), newId()]
    const whole = { ...first, id, samples: sampleId, part: null, matrix: null, width: placed[0]!.width }
    const ops: Operation[] = [
      { kind: 'elements.remove', drawing: drawing.id, ids: all.map(element => element.id) },
      { kind: 'elements.add', drawing: drawing.id, elements: [whole] },
    ]
    if (
      !shot.commit(`join ${all.length} lines on ${drawing.number}`, ops, {
        samples: new Map([[sampleId, packSamples(samples)]]),
      })
    )
      kit.gather([id])
  }

  function remove(): void {
    const ops = gathered().flatMap(({ drawing, elements }): Operation[] =>
      elements.length
        ? [{ kind: 'elements.remove', drawing: drawing.id, ids: elements.map(element => element.id) }]
        : [],
    )
    kit.gather([])
    if (ops.length) shot.commit(`take strokes off ${kit.changedWords}`, ops)
  }

  /** Gathered pictures as they are then: as strong, as much of them, standing for something. */
  function setPictures(
    label: string,
    patchOf: (picture: Picture) => Partial<Pick<Picture, 'opacity' | 'cut' | 'placeholder'>>,
    joins = false,
  ): void {
    const ops = gathered().flatMap(({ drawing, elements }): Operation[] => {
      const changes = elements.flatMap(one => (one.kind === 'picture' ? [{ id: one.id, patch: patchOf(one) }] : []))
      return changes.length ? [{ kind: 'elements.set', drawing: drawing.id, changes }] : []
    })
    if (ops.length) shot.commit(`${label} ${kit.changedWords}`, ops, { joins })
  }

  return {
    dim: (share: number) =>
      setPictures(
        `pictures at ${Math.round(share * 100)} %`,
        () => ({ opacity: Math.max(0, Math.min(1, share)) }),
        true,
      ),
    /** What of gathered pictures is seen, in their pixels; null is all. */
    cutTo: (cut: (picture: Picture) => Box | null) => setPictures('cut pictures', picture => ({ cut: cut(picture) })),
    standIn: (placeholder: boolean) =>
      setPictures(placeholder ? 'placeholder' : 'no placeholder', () => ({ placeholder })),
    smooth,
    join,
    canJoin: () => lines().length > 1,
    remove,
    recolour: () => set('colour', () => ({ swatch: kit.swatch })),
    reweight: (factor: number) =>
      set('line weight', stroke => ({ width: Math.max(0.5, Math.round(stroke.width * factor * 10) / 10) })),
    renib: (nib: Nib) => set('line of another pen', () => ({ nib })),
    relabel: (label: Stroke['label']) => set(label ? `label ${label}` : 'no label', () => ({ label })),
  }
}
