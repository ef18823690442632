import { computed, ref, type Ref } from 'vue'
import type { Schemas } from '../../api/client'

export type Row = Schemas['ScoredRow']
/** What is looked at: the days whose lessons count, and one strand alone. */
export interface Asked {
  from?: string | undefined
  to?: string | undefined
  strand?: Schemas['Strand'] | undefined
}

/** A number on the sheet: of a student in a lesson, or over all lessons. */
export interface Cell {
  student: string
  lesson?: string | undefined
}

const words: Record<Schemas['AttendanceStatus'], string> = {
  present: 'no score',
  late: 'no score',
  absent: 'absent',
  excused: 'excused',
  didNotCome: 'did not come',
}
/** What stands where there is no score. */
export const wordOf = (status: Schemas['AttendanceStatus']) => words[status]

export type SortBy = 'name' | 'term' | 'trend'

/** How far the last three scored lessons lie above those before them; null with fewer than four. */
export function trendOf(row: Row): number | null {
  const scores = row.cells.map((c) => c?.score).filter((s) => s != null)
  if (scores.length < 4) return null
  const mean = (all: number[]) => all.reduce((sum, s) => sum + s, 0) / all.length
  return mean(scores.slice(-3)) - mean(scores.slice(0, -3))
}

const minutesOf = (row: Row) => row.cells.reduce((sum, c) => sum + (c?.minutes ?? 0), 0)

/** How long somebody was there in all lessons: "3 h 20 min". */
export function hoursOf(row: Row) {
  const all = minutesOf(row)
  const [hours, minutes] = [Math.floor(all / 60), all % 60]
  return [hours ? `${hours} h` : '', minutes || !hours ? `${minutes} min` : ''].filter(Boolean).join(' ')
}

/** The tags of students, each once. */
export const tagsOf = (rows: readonly Row[]) =>
  [...new Set(rows.flatMap((r) => r.tags.split(';').map((t) => t.trim())).filter(Boolean))].sort()

/** Whether it is a sheet of hours: of a class that nobody has to come to, the time somebody was there is what there is to tell. */
export const isOfHours = (sheet?: Schemas['ScoreSheet']) =>
  !!sheet?.lessons.length && sheet.lessons.every((l) => l.dropIn)

/** The rows of a sheet as they are looked at: some of them, in an order. */
export function useSheet(sheet: Ref<Schemas['ScoreSheet'] | undefined>) {
  const sortBy = ref<SortBy>('name')
  const tag = ref('')
  const band = ref('')
  const look = ref(false)
  const low = (n: number | null) => n ?? Infinity
  const rows = computed(() => {
    const all = (sheet.value?.students ?? []).filter(
      (r) =>
        (!tag.value || tagsOf([r]).includes(tag.value)) &&
        (!band.value || r.band === band.value) &&
        (!look.value || r.needsLook.length > 0),
    )
    if (sortBy.value === 'term' && isOfHours(sheet.value)) return all.toSorted((a, b) => minutesOf(a) - minutesOf(b))
    if (sortBy.value === 'term') return all.toSorted((a, b) => low(a.term) - low(b.term))
    if (sortBy.value === 'trend') return all.toSorted((a, b) => low(trendOf(a)) - low(trendOf(b)))
    return all
  })
  const tags = computed(() => tagsOf(sheet.value?.students ?? []))
  const looked = computed(() => sheet.value?.students.filter((r) => r.needsLook.length).length ?? 0)
  const hours = computed(() => isOfHours(sheet.value))
  return { rows, tags, looked, hours, sortBy, tag, band, look }
}
