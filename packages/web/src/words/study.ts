/** That a shot is redrawn from somebody else's work, in a few words; empty where it is one's own. */
export const studyInWords = (sources: readonly string[]): string =>
  sources.length > 0 ? `a study of ${sources.join(' and of ')}, for practice only` : ''

/** The same as a part of a file's name. */
export function studyInName(sources: readonly string[]): string {
  if (sources.length === 0) return ''
  const words = sources
    .join(' and ')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 60)
  return words ? `-study-of-${words}` : '-study'
}
