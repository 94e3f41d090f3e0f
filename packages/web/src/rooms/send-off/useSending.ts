import { studyOf, type CutName, type FilmClip } from '@unhurried/core/document'
import { onBeforeUnmount, ref, shallowRef } from 'vue'
import type { ExportOrder, SentClip } from '../../protocols/export.ts'
import { startExport, type Running } from '../../send/run.ts'
import { useMedia } from '../../stores/media.ts'
import { useShot } from '../../stores/shot.ts'
import { studyInName } from '../../words/study.ts'

/** What is put beside an order: what its file is called and is, and what is fetched for it first. */
interface Beside {
  readonly extension: string
  readonly type: string
  mix(): Promise<ExportOrder['sound']>
  readonly clips: readonly FilmClip[]
  /** the shape it is cut to; null: none */
  readonly cut: CutName | null
}

/** A file being made of the shot: one at a time, stopped at once, and given back when another one is wanted. */
export function useSending() {
  const shot = useShot()
  const media = useMedia()
  const running = shallowRef<Running | null>(null)
  const progress = ref(0)
  const problem = ref('')
  const made = ref<{ name: string; url: string; bytes: number } | null>(null)

  function forget(): void {
    if (made.value) URL.revokeObjectURL(made.value.url)
    made.value = null
    problem.value = ''
  }

  async function start(
    order: Omit<ExportOrder, 'sound' | 'clips' | 'samples'>,
    { extension, type, mix, clips, cut }: Beside,
  ): Promise<void> {
    if (running.value) return
    forget()
    progress.value = 0
    const sound = await mix()
    const sent = await withBytes(clips)
    if (!sent) return
    const job = startExport(
      { ...order, sound, clips: sent, bytesOf: shot.strokeBytes },
      share => (progress.value = share),
    )
    running.value = job
    try {
      const bytes = await job.done
      if (!bytes) return
      const url = URL.createObjectURL(new Blob([bytes], { type }))
      const words = shot.name
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-|-$/g, '')
      const study = studyInName(studyOf(order.document, shot.filmStudy))
      made.value = { name: `${words || 'shot'}${cut ? `-${cut}` : ''}${study}.${extension}`, url, bytes: bytes.length }
    } catch (error) {
      problem.value = `That did not work: ${(error as Error).message}`
    } finally {
      running.value = null
    }
  }

  /** The films of clips that go out; null, with a word on it, where one of them is not to be had. */
  async function withBytes(wanted: readonly FilmClip[]): Promise<SentClip[] | null> {
    const sent: SentClip[] = []
    for (const clip of wanted) {
      const bytes = await media.bytesOf(shot.film, clip.media, clip.name).catch(() => null)
      if (!bytes) {
        problem.value = `“${clip.name}” is not here yet, and would be missing.`
        return null
      }
      sent.push({ clip, bytes })
    }
    return sent
  }

  onBeforeUnmount(() => {
    running.value?.cancel()
    forget()
  })

  return { running, progress, problem, made, start, forget }
}
