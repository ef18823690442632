/** A word in a picture, with the box around it in points. */
export interface PictureWord {
  text: string
  bbox: { x0: number; y0: number; x1: number; y1: number }
}

/** Words of one name stand closer than so many heights of their letters. */
const gap = 1.4
/** Of so many lines a badge stands in each, and no short name. */
const often = 0.4

/** The lines of a picture as text, with a tab where an empty space parts two columns, and without the round badges that stand beside names. */
export function cellsOf(lines: PictureWord[][]) {
  const rows = lines.map(parted)
  const all = rows.flat()
  const apart = rows.filter((row) => row.some(isShort)).length >= often * rows.length
  const before = all.filter((cell) => isShort(cell.split(' ')[0]!)).length >= often * all.length
  return rows
    .map((row) => (apart ? row.filter((cell) => !isShort(cell)) : row).map((cell) => (before ? bare(cell) : cell)))
    .map((row) => row.join('\t'))
    .filter((row) => row.trim())
    .join('\n')
}

function parted(line: PictureWord[]) {
  const words = line.filter((w) => w.text.trim()).sort((a, b) => a.bbox.x0 - b.bbox.x0)
  const heights = words.map((w) => w.bbox.y1 - w.bbox.y0).sort((a, b) => a - b)
  const height = heights[Math.floor(heights.length / 2)] ?? 0
  const cells: PictureWord[][] = []
  for (const word of words) {
    const last = cells.at(-1)?.at(-1)
    if (last && word.bbox.x0 - last.bbox.x1 <= gap * height) cells.at(-1)!.push(word)
    else cells.push([word])
  }
  // What is written from right to left is read so.
  return cells.map((cell) => (isFromRight(cell) ? [...cell].reverse() : cell).map((w) => w.text.trim()).join(' '))
}

const bare = (cell: string) => {
  const [first, ...rest] = cell.split(' ')
  return rest.length && isShort(first!) ? rest.join(' ') : cell
}

const isFromRight = (cell: PictureWord[]) => cell.some((w) => /[\p{Script=Hebrew}\p{Script=Arabic}]/u.test(w.text))

/** Two letters or fewer of a script in which nobody's name is that short, or signs alone. */
const isShort = (cell: string) =>
  cell.replace(/[^\p{L}]/gu, '').length <= 2 && !/[\p{Script=Han}\p{Script=Hangul}\p{Script=Kana}]/u.test(cell)
