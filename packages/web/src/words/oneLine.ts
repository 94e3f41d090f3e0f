const LONGEST = 80

/** A typed name as it may be stored: one line without control characters, at most 80 characters, no blanks around it. */
export const oneLine = (text: string): string =>
  text
    .replace(/\p{Cc}+/gu, ' ')
    .trim()
    .slice(0, LONGEST)
    .trim()

/** What something that came in a file is called: as the file, without the ending of its name. */
export const nameOfFile = (file: string, otherwise: string): string =>
  oneLine(file.replace(/\.[a-z0-9]{2,4}$/i, '')) || otherwise
