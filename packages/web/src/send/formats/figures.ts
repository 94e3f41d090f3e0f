import { framesOf, type Figure, type Film } from './format.ts'

/** What is told of a video: every frame is in it, held ones too. */
export function videoFigures({ pictures, fps, turns }: Pick<Film, 'pictures' | 'fps' | 'turns'>): readonly Figure[] {
  const frames = framesOf(pictures) * (turns ?? 1)
  return [
    { name: 'frames in the file', says: String(frames) },
    { name: 'together', says: `${(frames / fps).toFixed(2)} s` },
  ]
}
