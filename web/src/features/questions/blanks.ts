import { reactive } from 'vue'

// What was typed into the blanks of a question stays until the question is opened: over putting the sheet away, and over a refusal.
const typed = reactive<Record<string, Record<string, string>>>({})

/** The words for the blanks of a question, by the names of the blanks. */
export function wordsFor(question: string) {
  typed[question] ??= {}
  return typed[question]
}
