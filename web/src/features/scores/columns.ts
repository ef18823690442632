import { useElementSize, useScroll } from '@vueuse/core'
import { computed, type Ref } from 'vue'

/** Widths of a sheet in a frame, in pixels. They are fixed, so that no column moves when other rows are drawn. */
export const widths = { who: 190, term: 60, band: 110, trend: 66, lesson: 42, look: 300 }
/** Columns are drawn so many at a time: a sheet is drawn anew once in a while, not with every pixel. */
const step = 8

/** The lessons whose columns are drawn, [from, to), and how wide those are that stand before and after them. */
export interface Columns {
  from: number
  to: number
  before: number
  after: number
}

/** The columns that can be seen of `lessons` when those begin `start` pixels from the left, with some to each side. */
export function columnsIn(view: { left: number; width: number }, start: number, lessons: number): Columns {
  const at = (x: number) => (x - start) / widths.lesson / step
  const from = Math.min(lessons, Math.max(0, Math.floor(at(view.left)) * step))
  const to = Math.min(lessons, Math.max(from, Math.ceil(at(view.left + view.width) + 0.5) * step))
  return { from, to, before: from * widths.lesson, after: (lessons - to) * widths.lesson }
}

/** The columns that are drawn of a sheet in a frame. */
export function useColumns(frame: Ref<HTMLElement | null>, start: Ref<number>, lessons: Ref<number>) {
  const { x } = useScroll(frame)
  const { width } = useElementSize(frame)
  const now = computed(() => columnsIn({ left: x.value, width: width.value }, start.value, lessons.value))
  // Another object only when other columns are seen: rows are drawn anew by it.
  return computed<Columns>((old) =>
    old && old.from === now.value.from && old.to === now.value.to && old.after === now.value.after ? old : now.value,
  )
}

export const allColumns = (lessons: number): Columns => ({ from: 0, to: lessons, before: 0, after: 0 })
