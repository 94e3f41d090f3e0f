const LONGEST = 80

/** A typed name as it may be stored: one line without control characters, at most 80 characters, no blanks around it. */
export const oneLine = (text: string): string =>
  text
    .replace(/\p{Cc}+/gu, ' ')
    .trim()
    .slice(0, LONGEST)
    .trim()
