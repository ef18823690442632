/** What a marked part of a line can be. */
export const markFields = {
  time: 'Time',
  name: 'Name',
  words: 'Message',
  joined: 'Came at',
  left: 'Left at',
  minutes: 'Minutes there',
  answer: 'Answer',
} as const
export type MarkField = keyof typeof markFields

/** A part of a line: the line from 0, and where in it. */
export interface Mark {
  field: MarkField
  line: number
  from: number
  to: number
}

/** A line, or a few under one another, with what is marked in them; lines of the parts count from its first. */
export interface Example {
  lines: string[]
  parts: Mark[]
}

/** The lines in which something is marked, as an example for all others. */
export function exampleOf(lines: string[], marks: Mark[]): Example {
  const first = Math.min(...marks.map((m) => m.line))
  const last = Math.max(...marks.map((m) => m.line))
  return { lines: lines.slice(first, last + 1), parts: marks.map((m) => ({ ...m, line: m.line - first })) }
}

/** What is selected in lines that stand under one another as one text; nothing if it is empty or goes over the end of a line. Spaces around it do not count. */
export function markOf(lines: string[], field: MarkField, start: number, end: number): Mark | undefined {
  let begins = 0
  for (const [line, text] of lines.entries()) {
    const [from, to] = [start - begins, end - begins]
    if (from >= 0 && to <= text.length) {
      const part = text.slice(from, to)
      const before = part.length - part.trimStart().length
      const inner = part.trim()
      return inner ? { field, line, from: from + before, to: from + before + inner.length } : undefined
    }
    begins += text.length + 1
  }
  return undefined
}
