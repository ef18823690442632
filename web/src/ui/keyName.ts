const names: Record<string, string> = {
  ' ': 'space',
  Backspace: '⌫',
  PageUp: 'PgUp',
  PageDown: 'PgDn',
  Insert: 'Ins',
  Delete: 'Del',
  ArrowDown: '↓',
  ArrowUp: '↑',
}

/** A key as it is printed beside what it does. */
export const keyName = (key: string) => names[key] ?? key
