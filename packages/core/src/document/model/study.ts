import type { ShotDocument } from './model.ts'

/**
 * Whose work a shot is redrawn from: as it says itself, or as its film or the clips that lie under it say; each once. None: it is one's own. What is a study of somebody else's
 * work is for practice only, and says so wherever it goes.
 */
export function studyOf({ study, clips }: Pick<ShotDocument, 'study' | 'clips'>, film = ''): string[] {
  const sources = Object.values(clips).map(clip => clip.source)
  return [...new Set([film, study, ...sources].filter(source => source !== ''))]
}
