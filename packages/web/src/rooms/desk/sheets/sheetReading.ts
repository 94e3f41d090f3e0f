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
  /** what is written on it; sheets lie in this order */
  readonly number: number
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

  const nextNumber = (): number => numberBehind(sheets.value)
  function setNumber(id: string, number: number): void {
    change(id, { number })
    sheets.value = inOrder(sheets.value)
    void register()
  }

  function letGo(sheet: Sheet): void {
    void remote.drop(sheet.id)
    sheet.taken.seen.close()
    sheet.inked?.ink.close()
  }

  const parts = computed(() =>
    sheets.value.flatMap(sheet => sheet.boxes.map(box => ({ sheet, box, key: keyOf(sheet, box) }))),
  )

  const { region, wished } = regionOf(parts, by)
  const { laid, register } = laying(remote, parts, by, region, busy)

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

  function setRegion(to: Box): void {
    wished.value = to
    void register(true)
  }
  const setBy = (to: Registration) => {
    isChosen = true
    by.value = to
  }

  const add = adding({
    remote,
    sheets,
    busy,
    ink,
    register: () => register(),
    letGo,
    isWanted: () => !isGone,
    first: sheet => !isChosen && (by.value = sheet.by),
  })

  return {
    remote,
    setBy,
    region,
    setRegion,
    sheets,
    setNumber,
    nextNumber,
    parting,
    by,
    busy,
    parts,
    laid,
    change,
    ink,
    add,
    letGo,
    register,
  }
}

const keyOf = (sheet: Sheet, box: Box) =>
  `${sheet.id} ${[box.left, box.top, box.right, box.bottom].map(Math.round).join(' ')}`

/** What photographs are added to, and what is done with each. */
interface Adding {
  readonly remote: Remote<SheetsProtocol>
  readonly sheets: { value: readonly Sheet[] }
  readonly busy: { value: string }
  ink(id: string): Promise<void>
  register(): Promise<void>
  letGo(sheet: Sheet): void
  /** somebody is still there who wants them */
  isWanted(): boolean
  /** hears of the very first one */
  first(sheet: TakenSheet): void
}

/** Reads photographs; `at` puts one in the place of another, taken again. */
function adding({ remote, sheets, busy, ink, register, letGo, isWanted, first }: Adding) {
  const shot = useShot()
  /** Puts a sheet among the others, or in the place of one that keeps its name and number. */
  function put(fresh: Sheet, at: string | null): void {
    const gone = sheets.value.find(one => one.id === at)
    if (!gone) return void (sheets.value = inOrder([...sheets.value, fresh]))
    sheets.value = sheets.value.map(one => (one === gone ? { ...fresh, name: gone.name, number: gone.number } : one))
    letGo(gone)
  }

  return async function add(
    files: readonly { readonly name: string; readonly blob: Blob; readonly number?: number }[],
    at: string | null = null,
  ): Promise<void> {
    const out: NotIn[] = []
    for (const { name, blob, number = numberBehind(sheets.value) } of files) {
      if (sheets.value.length >= MOST_SHEETS && at === null) {
        out.push({ name, why: 'too-many-pictures' })
        continue
      }
      busy.value = `reading ${name} …`
      const id = newId()
      const read: SheetTaken = await inTime<SheetTaken>(remote.read(id, blob), DEADLINE_MS).catch(whyUnanswered)
      if (!isWanted()) return
      if (!read.ok) {
        out.push({ name, why: read.why })
        continue
      }
      const { sheet } = read
      if (sheets.value.length === 0) first(sheet)
      put({ id, name, number, taken: sheet, levels: sheet.levels, inked: null, boxes: [], byHand: false }, at)
      await ink(id)
    }
    busy.value = ''
    if (out.length) shot.notice = outInWords(out)
    await register()
  }
}

const inOrder = (all: readonly Sheet[]): Sheet[] => [...all].sort((a, b) => a.number - b.number)
/** Sheets are taken one after the other unless one says which one it is. */
const numberBehind = (all: readonly Sheet[]): number => Math.max(0, ...all.map(sheet => sheet.number)) + 1

/** What stays of the first drawing, where drawings are laid on one another by a region. */
function regionOf(parts: { readonly value: readonly Part[] }, by: { readonly value: Registration }) {
  /** What stays, where drawings are laid on one another by a region: pixels of the first photograph. Until the hand says, the middle of the first drawing. */
  const wished = shallowRef<Box | null>(null)
  const region = computed<Box | null>(() => {
    const first = parts.value[0]?.box
    if (by.value !== 'a region' || !first) return null
    const { left, top, right, bottom } = first
    const [w, h] = [(right - left) / 4, (bottom - top) / 4]
    return wished.value ?? { left: left + w, top: top + h, right: right - w, bottom: bottom - h }
  })
  return { region, wished }
}

/** Drawings laid on the first of them, by what is wished. */
function laying(
  remote: Remote<SheetsProtocol>,
  parts: { readonly value: readonly Part[] },
  by: { readonly value: Registration },
  region: { readonly value: Box | null },
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
        region.value && { ...region.value },
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
