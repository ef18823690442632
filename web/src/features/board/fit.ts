import { nextTick, onMounted, onUnmounted, reactive, watch, type Ref } from 'vue'

/** How a board is laid out in the frame that it has. */
export interface Fit {
  /** Where what waits and whose turn it is stand: in a column beside the rest, in columns below it, or one below the other. */
  layout: (typeof layouts)[number]
  /** So many of a list are shown; the rest is said as a number. */
  many: number
  /** Whether all that is put up can be seen. */
  fits: boolean
}

const layouts = ['beside', 'below', 'stacked'] as const
const lists = [14, 10, 7, 5, 3]

/** The smallest and the largest type for a frame, in px: legible at the far end of a shared picture, and not shouting. */
export function typeFor({ width, height }: { width: number; height: number }) {
  const side = Math.min(height, width * 0.75)
  return { least: Math.max(10, side * 0.02), good: Math.max(12, side * 0.03), most: Math.max(16, side * 0.05) }
}

/**
 * Lays a board out so that everything on it can be seen, whatever window it has: the type grows and shrinks between bounds, beside each other or below, whichever lets it be larger. Lists
 * are cut before the type gets too small to read.
 * @param frame The box that it has.
 * @param sheet What lies in it.
 * @param shape What the layout depends on; while it stays the same, nothing is measured anew.
 * @param flows Whether it stands on a page, as long as it is; then nothing is measured.
 */
export function useFit(
  frame: Ref<HTMLElement | null>,
  sheet: Ref<HTMLElement | null>,
  shape: () => unknown,
  flows = false,
): Fit {
  const fit = reactive<Fit>({ layout: flows ? 'stacked' : 'beside', many: lists[0]!, fits: true })
  if (flows) return fit
  let round = 0

  const overflows = (box: HTMLElement, within: HTMLElement) =>
    within.scrollHeight > box.clientHeight + 1 || within.scrollWidth > box.clientWidth + 1

  /** The largest type with which all of it is in the box; 0 if even the smallest is too large. */
  function largest(box: HTMLElement, within: HTMLElement): number {
    const { least, most } = typeFor({ width: box.clientWidth, height: box.clientHeight })
    const isIn = (size: number) => {
      within.style.fontSize = `${size}px`
      return !overflows(box, within)
    }
    if (isIn(most)) return most
    if (!isIn(least)) return 0
    let [low, high] = [least, most]
    while (high - low > 0.5) {
      const middle = (low + high) / 2
      if (isIn(middle)) low = middle
      else high = middle
    }
    return low
  }

  async function lay() {
    const mine = ++round
    const [box, within] = [frame.value, sheet.value]
    if (!box || !within || !box.clientHeight) return
    const { least, good } = typeFor({ width: box.clientWidth, height: box.clientHeight })
    let best: { size: number; layout: Fit['layout']; many: number } = { size: 0, layout: 'beside', many: lists.at(-1)! }
    for (const many of lists) {
      for (const layout of layouts) {
        Object.assign(fit, { layout, many })
        await nextTick()
        if (mine !== round) return
        const size = largest(box, within)
        if (size > best.size) best = { size, layout, many }
      }
      // A longer list in type that is good to read is better than a shorter one in larger type.
      if (best.size >= good) break
    }
    Object.assign(fit, { layout: best.layout, many: best.many, fits: best.size > 0 })
    within.style.fontSize = `${best.size || least}px`
  }

  let watching: ResizeObserver | undefined
  onMounted(() => {
    watching = new ResizeObserver(() => void lay())
    if (frame.value) watching.observe(frame.value)
    // Letters have their widths once their fonts are there.
    void document.fonts?.ready.then(lay)
  })
  onUnmounted(() => {
    round = -1
    watching?.disconnect()
  })
  watch(shape, () => void lay(), { flush: 'post' })
  return fit
}
