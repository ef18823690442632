/** Marks as they are written: whole ones as they are, others with two places. */
export const markWords = (marks: number | null | undefined) =>
  marks === null || marks === undefined ? '' : Number.isInteger(marks) ? String(marks) : marks.toFixed(2)
