/** The size of a word among words, by how many gave it. */
export const wordSize = (n: number, words: readonly { count: number }[]) =>
  `${0.9 + (1.3 * n) / Math.max(1, ...words.map((w) => w.count))}em`
