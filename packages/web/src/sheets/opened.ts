import { wrap, type Remote } from 'comlink'
import type { SheetsProtocol } from '../protocols/sheets.ts'

/** Photographed sheets in a worker of their own, as long as one works with them. */
export function openedSheets(): { readonly remote: Remote<SheetsProtocol>; close(): void } {
  const worker = new Worker(new URL('../workers/sheets.worker.ts', import.meta.url), { type: 'module' })
  return { remote: wrap<SheetsProtocol>(worker), close: () => worker.terminate() }
}
