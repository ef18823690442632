import type { Act } from '../../live/outbox'
import { newQuestion, type Question } from '../plans/plan'

/** The tag of students who have extra time. */
const extraTimeTag = 'extra time'

const braces = /\{([^{}\n]{1,60})\}/g

/** The names in braces in a question and its options, each once: blanks to be filled in before it is opened. */
export const blanksOf = (question: Question) => [
  ...new Set(
    [question.text, ...question.options.map((o) => o.text)].flatMap((text) =>
      [...text.matchAll(braces)].map((m) => m[1]!.trim()),
    ),
  ),
]

/** The question with its blanks filled in; the braces go, whatever stands in them. */
export function filled(question: Question, words: Record<string, string>): Question {
  const fill = (text: string) => text.replace(braces, (_, name: string) => words[name.trim()]?.trim() || `{${name}}`)
  return {
    ...question,
    text: fill(question.text),
    options: question.options.map((o) => ({ ...o, text: fill(o.text) })),
  }
}

/** Which groups a choice means; null is the whole class. */
export const goesTo = (choice: string, groups: readonly { id: string }[]): (string | null)[] =>
  choice === 'each' ? groups.map((g) => g.id) : groups.some((g) => g.id === choice) ? [choice] : [null]

/** The act that opens a question. Who has the tag has longer, by a share of its time. */
export function opening(
  question: Question,
  group: string | null,
  copy: string | null,
  rows: readonly { id: string; tags: string }[],
  extraTimeShare: number,
): Act {
  const longer = rows.filter((r) => r.tags.split(';').some((tag) => tag.trim().toLowerCase() === extraTimeTag))
  return {
    type: 'questionOpened',
    question,
    group,
    copyOf: copy,
    longerFor: question.timeLimitSeconds ? longer.map((r) => r.id) : [],
    longerSeconds: Math.round((question.timeLimitSeconds ?? 0) * extraTimeShare),
  }
}

/** A question made on the spot: yes or no, or a choice between what stands in the lines. */
export function onTheSpot(text: string, choices: string): Question {
  const lines = choices
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
  const question = newQuestion('singleChoice')
  const option = question.options[0]!
  const texts = lines.length > 1 ? lines.slice(0, 12) : ['yes', 'no']
  return {
    ...question,
    text: text.trim(),
    options: texts.map((t) => ({ ...option, id: crypto.randomUUID(), text: t })),
  }
}
