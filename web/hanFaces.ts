import { readFileSync } from 'node:fs'
import type { Plugin } from 'vite'

const name = 'virtual:han-faces.css'

/**
 * Han letters and kana in a hundred small faces instead of a large one: a browser fetches only those whose letters stand on the page, and only if the system has none of its own.
 * What says which letters lie where is long, so it is a style sheet by itself.
 */
export function hanFaces(): Plugin {
  return {
    name: 'han-faces',
    resolveId: (id) => (id === name ? `\0${name}` : undefined),
    load(id) {
      if (id !== `\0${name}`) return undefined
      const all = readFileSync(new URL('node_modules/@fontsource/noto-sans-jp/400.css', import.meta.url), 'utf8')
      return [...all.matchAll(/noto-sans-jp-\[(\d+)\]-400-normal \*\/\s*@font-face \{[^}]*unicode-range: ([^;]+);/g)]
        .map(
          ([, part, letters]) =>
            `@font-face{font-family:'Noto Sans JP';font-display:swap;src:url('@fontsource/noto-sans-jp/files/noto-sans-jp-${part}-400-normal.woff2') format('woff2');unicode-range:${letters}}`,
        )
        .join('\n')
    },
  }
}
