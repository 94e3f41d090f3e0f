const SIGNS: Record<string, string> = {
  space: 'Space',
  shift: '⇧',
  ctrl: 'Ctrl',
  alt: 'Alt',
  arrowup: '↑',
  arrowdown: '↓',
  arrowleft: '←',
  arrowright: '→',
  backspace: '⌫',
  delete: 'Del',
  escape: 'Esc',
}

/** A key as it is written on the desk: "⇧ T", "Ctrl Z". */
export const written = (key: string): string =>
  key
    .split('+')
    .map(part => SIGNS[part] ?? part.toUpperCase())
    .join(' ')
