// `npm run mutants`: small faults planted all over core, folder by folder, and whether its tests notice. Takes hours.
// `npm run mutants -- document --every 10`: only where every tenth line of code says something.
import { spawnSync } from 'node:child_process'
import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { ensureNpmPackages, ROOT } from './prepare.mjs'
import { say, tell } from './say.mjs'

const FOLDERS = ['time', 'chart', 'document']
const { values, positionals: asked } = parseArgs({
  allowPositionals: true,
  options: { every: { type: 'string', default: '1' } },
})

/**
 * All tests of a folder as one file: every fault is met by a fresh run, and loading two dozen files costs far more than running
 * what is in them. What only fills a shot to its bounds is left out.
 */
function together(folder) {
  const home = join(ROOT, 'packages/core/src', folder)
  const file = join(home, 'together.test.ts')
  const tests = readdirSync(home, { recursive: true })
    .filter(name => /\.test\.ts$/.test(name) && !/(bounds|together)\.test\.ts$/.test(name))
    .sort()
  writeFileSync(file, tests.map(name => `import './${name}'\n`).join(''))
  return file
}

await tell(async () => {
  ensureNpmPackages()
  for (const folder of asked.length ? asked : FOLDERS) {
    say(`Faults in ${folder}.`)
    const env = { ...process.env, MUTANTS_OF: folder, MUTANTS_EVERY: values.every }
    const file = together(folder)
    try {
      spawnSync(join(ROOT, 'node_modules/.bin/stryker'), ['run'], { cwd: ROOT, stdio: 'inherit', env })
    } finally {
      rmSync(file, { force: true })
    }
    const { files } = JSON.parse(readFileSync(join(ROOT, `test-results/mutants-${folder}.json`), 'utf8'))
    const all = Object.values(files).flatMap(file => file.mutants.map(mutant => mutant.status))
    const count = (...statuses) => all.filter(status => statuses.includes(status)).length
    const noticed = count('Killed', 'Timeout')
    const planted = noticed + count('Survived', 'NoCoverage')
    say(`${folder}: ${noticed} of ${planted} noticed, ${((100 * noticed) / planted).toFixed(1)} %`)
  }
})
