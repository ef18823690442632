import type { Schemas } from '../../api/client'

/** A report that has a page of its own, and what it is about. */
export type Kind = 'student' | 'fairness' | 'questions' | 'lesson' | 'register' | 'class'

/** What is asked of a report, as it stands in its address. */
export interface Asked {
  student?: string | undefined
  lesson?: string | undefined
  from?: string | undefined
  to?: string | undefined
  reader?: string | undefined
  hidden?: boolean | undefined
}

export const kinds: { kind: Kind; label: string }[] = [
  { kind: 'student', label: 'A student' },
  { kind: 'fairness', label: 'Being fair' },
  { kind: 'questions', label: 'Questions' },
  { kind: 'lesson', label: 'A lesson' },
  { kind: 'register', label: 'Register' },
  { kind: 'class', label: 'The class in words' },
]

/** Where what a figure opens to is seen. */
export function placeOf(classId: string, { student, lesson, minute }: Schemas['Opens']) {
  if (student) return { name: 'scores', params: { id: classId }, query: { student, ...(lesson ? { lesson } : {}) } }
  return {
    name: 'reports',
    params: { id: classId, kind: 'lesson' },
    query: { lesson: lesson!, ...(minute !== null ? { minute } : {}) },
  }
}
