import type { Box } from '@unhurried/core/geometry'
import type { Levels, Parting, Registered, Registration } from '@unhurried/core/sheets'
import type { Remote } from 'comlink'
import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue'
import { newId } from '../../../local/ids.ts'
import type { SheetInk, SheetsProtocol, SheetTaken, TakenSheet } from '../../../protocols/sheets.ts'
import { inTime, whyUnanswered } from '../../../workers/once.ts'
import { openedSheets } from '../../../sheets/opened.ts'
import { useShot } from '../../../stores/shot.ts'
import { outInWords, type NotIn } from '../../../words/bringing.ts'

/** Photographs at once: each of them is some megabytes while one works with it. */
export const MOST_SHEETS = 40
const DEADLINE_MS = 60_000

/** A photographed sheet on the way to drawings. */
export interface Sheet {
  readonly id: string
  readonly name: string
  readonly taken: TakenSheet
  readonly levels: Levels
  readonly inked: SheetInk | null
  /** the drawings on it, as they were found or put right; pixels of the photograph */
  readonly boxes: readonly Box[]
  /** the hand has put the boxes right: they are not looked for again */
  readonly byHand: boolean
}

/** A drawing on a sheet, and what it is known by. */
interface Part {
  readonly sheet: Sheet
  readonly box: Box
  readonly key: string
}

/** Photographs read, inked, their drawings found and laid on one another, in a worker that ends with the work. */
export function useSheetReading() {
  const shot = useShot()
  const opened = openedSheets()
  let isGone = false
  onScopeDispose(() => {
    isGone = true
    opened.close()
  })
  const { remote } = opened
  const sheets = shallowRef<readonly Sheet[]>([])
  const parting = ref<Parting>('whole')
  const by = ref<Registration>('one another')
  const busy = ref('')
  /** Set once the hand has said by what sheets are registered; until then the first sheet does. */
  let isChosen = false

  const change = (id: string, patch: Partial<Sheet>) =>
    (sheets.value = sheets.value.map(sheet => (sheet.id === id ? { ...sheet, ...patch } : sheet)))

  /** Inks a sheet as it is now wished, and looks for its drawings unless the hand has. */
  async function ink(id: string): Promise<void> {
    const sheet = sheets.value.find(one => one.id === id)
    if (!sheet) return
    const wished = sheet.levels
    const inked = await remote.ink(id, wished, parting.value, by.value)
    const now = sheets.value.find(one => one.id === id)
    if (now?.levels !== wished) return void inked.ink.close()
    now.inked?.ink.close()
    change(id, { inked, boxes: now.byHand ? now.boxes : inked.boxes })
  }

  /** Reads photographs; `at` puts one in the place of another, taken again. */
  async function add(files: readonly { readonly name: string; readonly blob: Blob }[], at: string | null = null) {
    const out: NotIn[] = []
    for (const { name, blob } of files) {
      if (sheets.value.length >= MOST_SHEETS && at === null) {
        out.push({ name, why: 'too-many-pictures' })
        continue
      }
      busy.value = `reading ${name} …`
      const id = newId()
      const read: SheetTaken = await inTime<SheetTaken>(remote.read(id, blob), DEADLINE_MS).catch(whyUnanswered)
      // Nobody is there any more who wants it.
      if (isGone) return
      if (!read.ok) {
        out.push({ name, why: read.why })
        continue
      }
      const { sheet } = read
      if (!isChosen && sheets.value.length === 0) by.value = sheet.by
      const fresh: Sheet = { id, name, taken: sheet, levels: sheet.levels, inked: null, boxes: [], byHand: false }
      const old = sheets.value.findIndex(one => one.id === at)
      if (old >= 0) {
        const [gone] = sheets.value.slice(old, old + 1)
        sheets.value = sheets.value.map((one, i) => (i === old ? { ...fresh, name: gone?.name ?? name } : one))
        if (gone) letGo(gone)
      } else sheets.value = [...sheets.value, fresh]
      await ink(id)
    }
    busy.value = ''
    if (out.length) shot.notice = outInWords(out)
    await register()
  }

  function letGo(sheet: Sheet): void {
    void remote.drop(sheet.id)
    sheet.taken.seen.close()
    sheet.inked?.ink.close()
  }

  const keyOf = (sheet: Sheet, box: Box) =>
    `${sheet.id} ${[box.left, box.top, box.right, box.bottom].map(Math.round).join(' ')}`
  const parts = computed(() =>
    sheets.value.flatMap(sheet => sheet.boxes.map(box => ({ sheet, box, key: keyOf(sheet, box) }))),
  )

  const { laid, register } = laying(remote, parts, by, busy)

  /** Inks all sheets anew, and lays them anew. */
  async function again(): Promise<void> {
    for (const { id } of sheets.value) {
      busy.value = 'looking for drawings …'
      await ink(id)
    }
    await register(true)
  }
  watch(parting, () => {
    sheets.value = sheets.value.map(sheet => ({ ...sheet, byHand: false }))
    void again()
  })
  watch(by, () => sheets.value.length > 0 && void again())

  const setBy = (to: Registration) => {
    isChosen = true
    by.value = to
  }

  return { remote, setBy, sheets, parting, by, busy, parts, laid, change, ink, add, letGo, register }
}

/** Drawings laid on the first of them, by what is wished. */
function laying(
  remote: Remote<SheetsProtocol>,
  parts: { readonly value: readonly Part[] },
  by: { readonly value: Registration },
  busy: { value: string },
) {
  const laid = shallowRef<ReadonlyMap<string, Registered>>(new Map())
  let round = 0
  /** The drawing that all were laid on, and by what: as long as these are the same, what was laid stays laid. */
  let laidOn = ''

  /** Lays the drawings on the first one that are not yet; all of them where something about them has changed. */
  async function register(all = false): Promise<void> {
    const mine = ++round
    const now = parts.value
    const [first] = now
    if (!first) return void (laid.value = new Map())
    const on = `${by.value} ${first.key}`
    const known = all || on !== laidOn ? new Map<string, Registered>() : laid.value
    const left = now.filter(({ key }) => !known.has(key))
    busy.value = `laying ${left.length} on the first one …`
    try {
      const wished = left.some(({ key }) => key === first.key) ? left : [first, ...left]
      const found = await remote.register(
        wished.map(({ sheet, box }) => ({ sheet: sheet.id, box: { ...box } })),
        by.value,
      )
      if (mine !== round) return
      laidOn = on
      laid.value = new Map([...known, ...wished.map(({ key }, i) => [key, found[i] as Registered] as const)])
    } finally {
      if (mine === round) busy.value = ''
    }
  }

  return { laid, register }
}
