/** What a file system tells of something dropped, as far as it is looked at here. https://wicg.github.io/entries-api/ */
export interface Entry {
  readonly isFile: boolean
  readonly isDirectory: boolean
  readonly name: string
  file?(done: (file: File) => void, failed: () => void): void
  createReader?(): { readEntries(done: (some: readonly Entry[]) => void, failed: () => void): void }
}

/** No more files than this are taken out of folders, from no deeper than that. */
export const MOST_DROPPED = 500
const DEEPEST = 6

/** All that lies in a folder: a reader tells a hundred at a time, and none when it has told all. */
async function inside(folder: Entry): Promise<Entry[]> {
  const reader = folder.createReader?.()
  const all: Entry[] = []
  while (reader && all.length < MOST_DROPPED) {
    const some = await new Promise<readonly Entry[]>(done => reader.readEntries(done, () => done([])))
    if (some.length === 0) break
    all.push(...some)
  }
  return all
}

/** Files of entries, those of folders among them; what is hidden, or cannot be read, is left out. */
export async function filesIn(entries: readonly Entry[], depth = 0): Promise<File[]> {
  const files: File[] = []
  for (const entry of entries) {
    if (files.length >= MOST_DROPPED) break
    if (entry.name.startsWith('.')) continue
    if (entry.isDirectory && depth < DEEPEST) files.push(...(await filesIn(await inside(entry), depth + 1)))
    else if (entry.isFile) {
      const file = await new Promise<File | null>(done =>
        entry.file ? entry.file(done, () => done(null)) : done(null),
      )
      if (file) files.push(file)
    }
  }
  return files.slice(0, MOST_DROPPED)
}

/** What was dropped, folders opened. It has to be asked while the drop is heard; what is in folders comes later. */
export function droppedFiles(transfer: DataTransfer | null): Promise<File[]> {
  const entries = [...(transfer?.items ?? [])].flatMap(item => (item.webkitGetAsEntry?.() as Entry | null) ?? [])
  const files = [...(transfer?.files ?? [])]
  return entries.some(entry => entry.isDirectory) ? filesIn(entries) : Promise.resolve(files)
}
