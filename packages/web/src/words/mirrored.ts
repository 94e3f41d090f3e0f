const ROWS = ['qwertyuiop', 'asdfghjkl;', 'zxcvbnm,./'] as const
/** What a sign's key gives with Shift. */
const SHIFTED: Record<string, string> = { ';': ':', ',': '<', '.': '>', '/': '?' }
const UNSHIFTED = Object.fromEntries(Object.entries(SHIFTED).map(([key, sign]) => [sign, key]))

function acrossRow(key: string): string {
  for (const row of ROWS) {
    const at = row.indexOf(key)
    if (at >= 0) return row[row.length - 1 - at] as string
  }
  return key
}

/**
 * The key that lies under the right hand where this one lies under the left, and the other way round. Digits, signs beside
 * the letters, named keys and everything with Ctrl stay.
 */
export function mirroredKey(name: string): string {
  if (name.startsWith('ctrl+') || name === '?') return name
  const parts = name.split('+')
  const key = parts.pop() as string
  const plain = UNSHIFTED[key]
  const shift = parts.includes('shift') || plain !== undefined
  const across = acrossRow(plain ?? key)
  const rest = parts.filter(part => part !== 'shift')
  // A sign with Shift is another sign; a letter with Shift is told with it.
  if (shift && SHIFTED[across] !== undefined) return [...rest, SHIFTED[across]].join('+')
  return [...rest, ...(shift ? ['shift'] : []), across].join('+')
}
