import { counted } from '@unhurried/core/time'
import { framesOfTimes, type BroughtIn } from '@unhurried/core/document'
import { onScopeDispose } from 'vue'
import { newId } from '../../../local/ids.ts'
import { bringFiles } from '../../../pictures/bringing.ts'
import type { Brought, BroughtAll } from '../../../protocols/bring.ts'
import { useAsking, type Choice } from '../../../stores/asking.ts'
import { useClips } from '../../../stores/clips.ts'
import { useDesk } from '../../../stores/desk.ts'
import { usePhotographs } from '../../../stores/photographs.ts'
import { useShot } from '../../../stores/shot.ts'
import { isMedia, useSoundActs } from '../../../stores/soundActs.ts'
import { useDrawn } from './bringDrawn.ts'
import { useLaying } from './layPictures.ts'
import { outInWords } from '../../../words/bringing.ts'
import { nameOfSequence, oneLine } from '../../../words/oneLine.ts'

const ACCEPTED = 'image/*,.svg,.zip,application/zip,audio/*,video/*,.wav,.mp3,.ogg,.flac,.m4a'
/** Only the newest of what is being brought in is wanted. */
let round = 0

/** Pictures from outside: read, and laid where one says. */
export function useBringing() {
  const shot = useShot()
  const asking = useAsking()
  const laying = useLaying()
  const desk = useDesk()
  const sounds = useSoundActs()
  const clips = useClips()
  const { asClip, asPhotographs } = useOtherWays()
  const { asDrawn } = useDrawn()
  // What is still being read when the desk, or the shot, is left is not wanted any more.
  onScopeDispose(() => round++, true)

  /** Lets files be chosen. */
  function choose(): void {
    const input = document.createElement('input')
    input.type = 'file'
    input.multiple = true
    input.accept = ACCEPTED
    input.onchange = () => void bring([...(input.files ?? [])])
    input.click()
  }

  /** Reads files: recordings are laid as tracks from here on; of pictures it is asked where they go. */
  async function bring(files: readonly File[]): Promise<void> {
    if (!shot.document || files.length === 0) return
    if (!shot.mayDraw) return void (shot.notice = 'Reviewers look and do not draw.')
    const isSound = await Promise.all(files.map(isMedia))
    const recordings = files.filter((_, i) => isSound[i])
    const others = files.filter((_, i) => !isSound[i])
    if (others.length) await bringPictures(others)
    if (recordings.length) await bringMedia(recordings)
  }

  /** Clips lie under the paper from here on; what only sounds is a track. */
  async function bringMedia(files: readonly File[]): Promise<void> {
    const before = Object.keys(shot.document?.sounds ?? {}).length
    asking.tell(`reading ${counted(files.length, 'file')} …`)
    const heard: File[] = []
    for (const file of files) if (!(await clips.bring(file))) heard.push(file)
    if (heard.length === 0) return void asking.tell('under the paper from here on; the drawer “clip” has the rest')
    await sounds.bring(
      heard.map(blob => ({ blob, name: blob.name })),
      desk.frame,
    )
    const come = Object.keys(shot.document?.sounds ?? {}).length - before
    asking.tell(
      come > 0
        ? `${counted(come, 'track')} from frame ${desk.frame + 1} on; Plan has the rest`
        : 'nothing was brought in',
    )
  }

  /** Reads pictures and asks where they go. */
  async function bringPictures(files: readonly File[]): Promise<void> {
    const format = shot.document?.format
    if (!format) return
    const mine = ++round
    const { id } = shot
    const isWanted = () => mine === round && shot.id === id
    const tell = (done: number, of: number) =>
      asking.ask({
        label: `bringing in ${counted(of, 'file')}`,
        why: `${done} of ${of} read`,
        choices: [{ words: 'stop', take: stop }],
      })
    const all = await bringFiles(files, { widthPx: format.width, heightPx: format.height }, tell, isWanted)
    if (!isWanted()) return
    asking.drop()
    if (all.out.length) shot.notice = outInWords(all.out)
    if (all.pictures.length) offer(all, files)
  }

  function stop(): void {
    round++
    asking.drop()
    asking.tell('bringing in: stopped, nothing was done')
  }

  function offer({ pictures }: BroughtAll, files: readonly File[]): void {
    const [first] = pictures
    const fps = shot.document?.format.fps ?? 24
    if (!first) return
    const samples = new Map<string, Uint8Array>()
    const timesMs = pictures.flatMap(one => one.shownMs ?? [])
    const frames = timesMs.length === pictures.length ? framesOfTimes(timesMs, fps) : []
    const all = pictures.map((one, i): BroughtIn => {
      const id = newId()
      samples.set(id, one.bytes)
      const { widthPx, heightPx, was } = one
      return { id, widthPx, heightPx, was, frames: frames[i] ?? null }
    })
    const label = all.length === 1 ? oneLine(first.name) : counted(all.length, 'picture')
    asking.ask({
      label,
      why: sizeInWords(pictures),
      choices: [
        ...laying.choices({ all, samples, label }),
        ...asDrawn(pictures),
        ...asClip(pictures, fps),
        // Nobody photographs a drawn text.
        ...(first.text === undefined ? [asPhotographs(files)] : []),
      ],
    })
  }

  return { choose, bring }
}

/** What pictures can be besides pictures. */
function useOtherWays() {
  const asking = useAsking()
  const clips = useClips()
  const photographs = usePhotographs()

  /** Several that follow one another are a clip as well: a filmed movement, to be traced and read. */
  const asClip = (pictures: readonly Brought[], fps: number): Choice[] =>
    pictures.length < 2
      ? []
      : [
          {
            words: 'as a clip under the paper, to be traced and read',
            take() {
              asking.drop()
              asking.tell(`making a clip of ${counted(pictures.length, 'picture')} …`)
              const shown = pictures.map(({ bytes, shownMs }) => ({
                bytes,
                seconds: shownMs === null ? 1 / fps : Math.max(1, shownMs) / 1000,
              }))
              void clips
                .bringPictures(
                  nameOfSequence(
                    pictures.map(({ name }) => name),
                    'pictures',
                  ),
                  shown,
                )
                .then(() => asking.tell('under the paper from here on; the drawer “clip” has the rest'))
            },
          },
        ]

  /** They are photographs of paper: what is drawn on it is wanted, and not the picture. */
  const asPhotographs = (files: readonly File[]): Choice => ({
    words: 'they are photographed sheets: ink them, cut them, lay them on one another',
    take() {
      asking.drop()
      photographs.open(files)
    },
  })

  return { asClip, asPhotographs }
}

/** How large what came is, and what was made smaller. */
function sizeInWords(pictures: readonly Brought[]): string {
  const sizes = new Set(pictures.map(one => `${one.was.widthPx} × ${one.was.heightPx}`))
  const smaller = pictures.filter(one => one.was.widthPx !== one.widthPx).length
  const size = sizes.size === 1 ? `${[...sizes][0]} px` : `of ${sizes.size} sizes`
  const [first] = pictures
  if (smaller === 0 || !first) return `${size}.`
  return pictures.length === 1
    ? `${size}, kept as ${first.widthPx} × ${first.heightPx}.`
    : `${size}; ${smaller} of them kept smaller.`
}
