import { connect } from './db/connect.ts'
import { beginEpoch, verifyAll } from './services/verify.ts'

/** Run by `npm run verify`: tells in words what is not as it should be. Ends with 1 when something is left that way. */
const flags = new Set(process.argv.slice(2))
const source = await connect(process.env.DATABASE_URL as string)
const { shots, entries, snapshots, strokes, findings } = await verifyAll(source, flags.has('--mend'))
for (const { name, shot, what, mended } of findings) {
  console.log(`${mended ? '+' : '!'} “${name}” (${shot}) ${what}${mended ? '; mended' : ''}`)
}
if (flags.has('--restored')) {
  await beginEpoch(source)
  console.log('· Open desks will open their shots anew and send what they have.')
}
await source.destroy()
const left = findings.filter(finding => !finding.mended).length
console.log(
  `${shots} shots, ${entries} journal entries, ${snapshots} written documents, ${strokes} strokes: ` +
    `${findings.length} findings, ${left} left as they are`,
)
process.exitCode = left > 0 ? 1 : 0
