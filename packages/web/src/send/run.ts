import { assetIds, type ShotDocument } from '@unhurried/core/document'
import type { ExportMessage, ExportOrder } from '../protocols/export.ts'

/** An export under way. `done` gives the bytes, or null when it was stopped. */
export interface Running {
  readonly done: Promise<Uint8Array<ArrayBuffer> | null>
  cancel(): void
}

type Wish = Omit<ExportOrder, 'samples'> & { bytesOf(id: string): Uint8Array | undefined }

function assetsUsed(document: ShotDocument, bytesOf: Wish['bytesOf']): Map<string, Uint8Array> {
  const used = new Map<string, Uint8Array>()
  for (const drawing of Object.values(document.drawings)) {
    for (const id of assetIds([{ kind: 'drawing.add', drawing }])) {
      const bytes = bytesOf(id)
      if (bytes) used.set(id, bytes)
    }
  }
  return used
}

/** Starts an export in a worker of its own, so that the page stays free and stopping is immediate. */
export function startExport({ bytesOf, ...wish }: Wish, progress: (share: number) => void): Running {
  const worker = new Worker(new URL('../workers/export.worker.ts', import.meta.url), { type: 'module' })
  let stop: () => void = () => undefined
  const done = new Promise<Uint8Array<ArrayBuffer> | null>((resolve, reject) => {
    stop = () => resolve(null)
    worker.onmessage = ({ data }: MessageEvent<ExportMessage>) => {
      if (data.kind === 'progress') progress(data.share)
      else if (data.kind === 'done') resolve(data.bytes)
      else reject(new Error(data.message))
    }
    worker.onerror = event => reject(new Error(event.message || 'the worker stopped'))
  }).finally(() => worker.terminate())
  worker.postMessage({ ...wish, samples: assetsUsed(wish.document, bytesOf) } satisfies ExportOrder)
  return { done, cancel: () => stop() }
}
