// Bundles the server with the workspaces it uses; packages from the registry stay outside.
import { build } from 'esbuild'
import { copyFile, cp } from 'node:fs/promises'

await build({
  entryPoints: ['src/main.ts', 'src/journalWorker.ts', 'src/verify.ts'],
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  keepNames: true,
  sourcemap: true,
  outdir: 'dist',
  outExtension: { '.js': '.mjs' },
  tsconfig: 'tsconfig.json',
  plugins: [
    {
      name: 'registry packages stay outside',
      setup(b) {
        b.onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
          path.startsWith('@unhurried/') || kind === 'entry-point' ? undefined : { path, external: true },
        )
      },
    },
  ],
})

// The made-up film, the model sheet and the photographed sheets of the demo lie beside what reads them.
await cp('src/demo/models', 'dist/models', { recursive: true })
await cp('src/demo/heron', 'dist/heron', { recursive: true })
await copyFile('src/demo/postOffice.png', 'dist/postOffice.png')
await copyFile('src/demo/reedWaltz.webm', 'dist/reedWaltz.webm')
