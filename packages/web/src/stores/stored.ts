import { packStrokes } from '@unhurried/contract'
import * as calls from '../api/calls.ts'
import { useMedia } from './media.ts'

type Stored = readonly [id: string, bytes: Uint8Array]

/** Pictures by what the media of their film know them by: from this machine, or fetched once and kept. */
async function picturesOf(film: string, names: Readonly<Record<string, string>>): Promise<Stored[]> {
  const media = useMedia()
  const all = Object.entries(names)
  return Promise.all(all.map(async ([id, name]) => [id, await media.bytesOf(film, name, 'a picture')] as const))
}

/** A shot as it comes, and all that its drawings are made of, packed. Throws Refused or Unreachable. */
export async function wholeShot(id: string): Promise<{ readonly opened: Uint8Array; readonly packed: Uint8Array }> {
  const [opened, samples, names] = await Promise.all([
    calls.shot.openBytes(id),
    calls.shot.sampleBytes(id),
    calls.shot.pictures(id),
  ])
  if (Object.keys(names).length === 0) return { opened, packed: samples }
  const { shot } = JSON.parse(new TextDecoder().decode(opened)) as { readonly shot: { readonly film: string } }
  const pictures = packStrokes(await picturesOf(shot.film, names))
  const packed = new Uint8Array(samples.length + pictures.length)
  packed.set(samples)
  packed.set(pictures, samples.length)
  return { opened, packed }
}

/** Some of what drawings are made of, by name. */
export async function storedNamed(shotId: string, film: string, ids: readonly string[]): Promise<Stored[]> {
  const samples = await calls.strokesNamed(shotId, ids)
  const found = new Set(samples.map(([id]) => id))
  const left = ids.filter(id => !found.has(id))
  if (left.length === 0) return samples
  return [...samples, ...(await picturesOf(film, await calls.picturesNamed(shotId, left)))]
}
