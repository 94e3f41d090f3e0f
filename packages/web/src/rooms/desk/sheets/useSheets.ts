import type { Box, Matrix } from '@unhurried/core/geometry'
import { after, centreOf, map, rotation, scaling, translation } from '@unhurried/core/geometry'
import { boxRound, onPaper, type Levels, type Parting, type Registered } from '@unhurried/core/sheets'
import { find } from '@unhurried/core/document'
import { computed, shallowRef } from 'vue'
import type { SheetPart } from '../../../protocols/sheets.ts'
import { useKit } from '../../../stores/kit.ts'
import { useShot } from '../../../stores/shot.ts'
import { useSheetReading, type Sheet } from './sheetReading.ts'

export type { Sheet } from './sheetReading.ts'

/** What the hand adds to where a drawing was laid: shift in pixels of the first photograph, turn, size. */
export interface Nudge {
  readonly x: number
  readonly y: number
  readonly turnRad: number
  readonly scale: number
}
const GRAPHITE = '#2f2c28'
const STILL: Nudge = { x: 0, y: 0, turnRad: 0, scale: 1 }

/** A drawing of a sheet, and how it is laid on the first one. */
export interface LaidPart {
  readonly key: string
  readonly sheet: Sheet
  readonly box: Box
  readonly told: Registered | null
  readonly nudge: Nudge
  /** from pixels of its photograph to those of the first one */
  readonly matrix: Matrix
}

/** Drawings as they lie on the first one, and all of them on the paper. */
function onThePaper(
  { parts, laid, by, busy }: ReturnType<typeof useSheetReading>,
  nudges: { readonly value: ReadonlyMap<string, Nudge> },
) {
  const shot = useShot()
  const drawings = computed<LaidPart[]>(() =>
    parts.value.map(({ sheet, box, key }) => {
      const told = laid.value.get(key) ?? null
      const nudge = nudges.value.get(key) ?? STILL
      const matrix = told?.matrix ?? translation(0, 0)
      const middle = map(matrix, centreOf(box))
      const turned = after(scaling(nudge.scale, nudge.scale, middle), rotation(nudge.turnRad, middle))
      return { key, sheet, box, told, nudge, matrix: after(after(matrix, turned), translation(nudge.x, nudge.y)) }
    }),
  )

  /** From pixels of the first photograph to those of the shot's paper. */
  const toPaper = computed<Matrix | null>(() => {
    const [first] = drawings.value
    const paper = shot.document?.format
    if (!first || !paper) return null
    const { widthPx, heightPx, corners } = first.sheet.taken
    const whole = [
      { x: 0, y: 0 },
      { x: widthPx, y: 0 },
      { x: widthPx, y: heightPx },
      { x: 0, y: heightPx },
    ] as const
    const isBySheet = by.value === 'peg holes' || by.value === 'crosses' || by.value === 'edges'
    return onPaper(paper, { corners: isBySheet ? (corners ?? whole) : null, box: boxRound(drawings.value) })
  })

  /** Does something with all drawings as they lie on the paper; nothing where there is none. */
  async function onto<T>(
    work: (laid: (SheetPart & { readonly matrix: Matrix })[], paper: { width: number; height: number }) => Promise<T[]>,
  ): Promise<T[]> {
    const through = toPaper.value
    const paper = shot.document?.format
    if (!through || !paper) return []
    busy.value = 'inking …'
    try {
      const laid = drawings.value.map(({ sheet, box, matrix }) => ({
        sheet: sheet.id,
        box: { ...box },
        matrix: after(matrix, through),
      }))
      return await work(laid, { width: paper.width, height: paper.height })
    } finally {
      busy.value = ''
    }
  }

  return { drawings, toPaper, onto }
}

/** Photographed sheets from the photograph to drawings, step by step, each of which can be put right. */
export function useSheets() {
  const shot = useShot()
  const kit = useKit()
  const swatch = computed(() => find(shot.document?.swatches ?? {}, kit.swatch) ?? null)
  const reading = useSheetReading()
  const { remote, sheets, parting, busy, change, ink, letGo, register } = reading
  const nudges = shallowRef<ReadonlyMap<string, Nudge>>(new Map())

  const { drawings, toPaper, onto } = onThePaper(reading, nudges)

  return {
    sheets,
    parting,
    by: reading.by,
    busy,
    drawings,
    setParting: (to: Parting) => void (parting.value = to),
    setBy: reading.setBy,
    region: reading.region,
    setRegion: reading.setRegion,
    setNumber: reading.setNumber,
    nextNumber: reading.nextNumber,
    toPaper,
    swatch,
    /** the colour that drawings are inked in: the one in the hand */
    colour: computed(() => swatch.value?.colour ?? GRAPHITE),
    paper: computed(() => shot.document?.format ?? { width: 16, height: 9, fps: 24, paper: '#fdfaf3' }),
    add: reading.add,
    register,
    remove(sheet: Sheet) {
      sheets.value = sheets.value.filter(one => one.id !== sheet.id)
      letGo(sheet)
      void register()
    },
    /** Puts a sheet earlier or later. */
    move(sheet: Sheet, by: 1 | -1) {
      const all = [...sheets.value]
      const at = all.findIndex(one => one.id === sheet.id)
      const other = all[at + by]
      if (!other) return
      // They change places: each takes the number of the other.
      all[at + by] = { ...(all[at] as Sheet), number: other.number }
      all[at] = { ...other, number: sheet.number }
      sheets.value = all
      void register()
    },
    /** Other levels for one sheet, or for all. */
    async level(sheet: Sheet, levels: Levels, all = false) {
      const which = all ? sheets.value : [sheet]
      for (const { id } of which) change(id, { levels })
      for (const { id } of which) await ink(id)
      await register()
    },
    setBoxes(sheet: Sheet, boxes: readonly Box[]) {
      change(sheet.id, { boxes, byHand: true })
      void register()
    },
    /** Looks for the drawings of a sheet again. */
    findAgain(sheet: Sheet) {
      change(sheet.id, { byHand: false })
      void ink(sheet.id).then(() => register())
    },
    nudge: (key: string, by: Partial<Nudge>) =>
      (nudges.value = new Map([...nudges.value, [key, { ...STILL, ...nudges.value.get(key), ...by }]])),
    /** The drawings as pictures of the paper. */
    pictures: (): Promise<Uint8Array[]> =>
      onto(async (laid, paper) =>
        (await remote.pictures(laid, paper, swatch.value?.colour ?? GRAPHITE)).map(one => one.bytes),
      ),
    /** The drawings as painted shapes: the packed samples of each one's pieces. */
    shapes: (): Promise<Uint8Array[][]> => onto((laid, paper) => remote.shapes(laid, paper)),
  }
}

export type Sheets = ReturnType<typeof useSheets>
