const LONGEST = 80

/** A typed name as it may be stored: one line without control characters, at most 80 characters (or as many as told), no blanks around it. */
export const oneLine = (text: string, longest = LONGEST): string =>
  text
    .replace(/\p{Cc}+/gu, ' ')
    .trim()
    .slice(0, longest)
    .trim()

/** What something that came in a file is called: as the file, without the ending of its name. */
export const nameOfFile = (file: string, otherwise: string): string =>
  oneLine(file.replace(/\.[a-z0-9]{2,4}$/i, '')) || otherwise

/** What pictures that follow one another are called together: as much as their names begin with alike, without numbers and endings. */
export function nameOfSequence(names: readonly string[], otherwise: string): string {
  const [first = '', ...others] = names
  const alike = others.reduce((begin, name) => {
    let n = 0
    while (n < begin.length && begin[n] === name[n]) n++
    return begin.slice(0, n)
  }, first)
  return nameOfFile(alike.replace(/[\s_\-.(#]*\d*$/, ''), otherwise)
}
