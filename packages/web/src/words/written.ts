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
  enter: 'Enter',
  home: 'Home',
  end: 'End',
  pageup: 'Page ↑',
  pagedown: 'Page ↓',
  tab: 'Tab',
}

/** A key as it is written on the desk: "⇧ T", "Ctrl Z". */
export const written = (key: string): string =>
  key
    .split('+')
    .map(part => SIGNS[part] ?? part.toUpperCase())
    .join(' ')
