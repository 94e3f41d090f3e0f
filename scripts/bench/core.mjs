import { join } from 'node:path'
import { build } from 'vite'
import { ROOT } from '../prepare.mjs'

/** A room of core as one module, as the desk has it. */
export async function core(room) {
  const { output } = await build({
    configFile: false,
    logLevel: 'silent',
    build: {
      write: false,
      lib: { entry: join(ROOT, `packages/core/src/${room}/index.ts`), formats: ['es'], fileName: room },
    },
  }).then(built => (Array.isArray(built) ? built[0] : built))
  return import(`data:text/javascript;base64,${Buffer.from(output[0].code).toString('base64')}`)
}
