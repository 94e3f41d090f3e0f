/** A worker that paints pictures. */
export const pictureWorker = (): Worker =>
  new Worker(new URL('../workers/pictures.worker.ts', import.meta.url), { type: 'module' })
