/** What is written in a place of a picture, with the box around it in points, and how sure its reader is of it, from 0 to 100: a word, or a cell of words that stand close together, a name as a rule. */
export interface Written {
  text: string
  confidence: number
  bbox: Box
}

export interface Box {
  x0: number
  y0: number
  x1: number
  y1: number
}

/** Words of one name stand closer than so many heights of their letters. */
const gap = 1.4
/** Signs that need no space between them stand closer than so many heights in one word. */
const closely = 0.25
/** Of so many lines a badge stands in each, and no short name. */
const often = 0.4

/** What stands together in each line: an empty space parts two columns. */
export const partedIn = (lines: Written[][]) => lines.map(parted).filter((row) => row.length)

/** The lines of a picture as text, with a tab between columns, and without the round badges that stand beside names. */
export function textOf(lines: Written[][]) {
  const rows = lines.map((line) => line.map((cell) => cell.text))
  const all = rows.flat()
  const apart = rows.filter((row) => row.some(isShort)).length >= often * rows.length
  const before = all.filter((cell) => isShort(cell.split(' ')[0]!)).length >= often * all.length
  return rows
    .map((row) => (apart ? row.filter((cell) => !isShort(cell)) : row).map((cell) => (before ? bare(cell) : cell)))
    .map((row) => row.join('\t'))
    .filter((row) => row.trim())
    .join('\n')
}

/** The cell that holds these words of a line. */
export const joined = (words: Written[]): Written => ({
  text: inOrder([...words].sort((a, b) => a.bbox.x0 - b.bbox.x0)),
  confidence: Math.min(...words.map((w) => w.confidence)),
  bbox: {
    x0: Math.min(...words.map((w) => w.bbox.x0)),
    y0: Math.min(...words.map((w) => w.bbox.y0)),
    x1: Math.max(...words.map((w) => w.bbox.x1)),
    y1: Math.max(...words.map((w) => w.bbox.y1)),
  },
})

function inOrder(words: Written[]) {
  // What is written from right to left is read so; signs of Han are words each, with no space between.
  if (words.some((w) => fromRight.test(w.text)))
    return words
      .map((w) => plain(w.text))
      .reverse()
      .join(' ')
  const isClose = (a: Written, b: Written) =>
    b.bbox.x0 - a.bbox.x1 < closely * (b.bbox.y1 - b.bbox.y0) && noSpaces.test(a.text) && noSpaces.test(b.text)
  return words.map((w, i) => (i && !isClose(words[i - 1]!, w) ? ' ' : '') + plain(w.text)).join('')
}

function parted(line: Written[]) {
  const words = line.filter((w) => plain(w.text)).sort((a, b) => a.bbox.x0 - b.bbox.x0)
  const heights = words.map((w) => w.bbox.y1 - w.bbox.y0).sort((a, b) => a - b)
  const height = heights[Math.floor(heights.length / 2)] ?? 0
  const cells: Written[][] = []
  for (const word of words) {
    const last = cells.at(-1)?.at(-1)
    if (last && word.bbox.x0 - last.bbox.x1 <= gap * height) cells.at(-1)!.push(word)
    else cells.push([word])
  }
  return cells.map(joined)
}

const bare = (cell: string) => {
  const [first, ...rest] = cell.split(' ')
  return rest.length && isShort(first!) ? rest.join(' ') : cell
}

/** Without the marks that say only which way letters run. */
const plain = (text: string) => text.replace(/\p{Bidi_Control}/gu, '').trim()

const fromRight = /[\p{Script=Hebrew}\p{Script=Arabic}]/u
const noSpaces = /^[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]+$/u

/** Two letters or fewer of a script in which nobody's name is that short, or signs alone. */
const isShort = (cell: string) =>
  cell.replace(/[^\p{L}]/gu, '').length <= 2 &&
  !/[\p{Script=Han}\p{Script=Hangul}\p{Script=Hiragana}\p{Script=Katakana}]/u.test(cell)
