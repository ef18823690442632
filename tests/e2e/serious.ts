import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'

/** What axe finds on a page that is serious or critical; in the dark only the contrast of colours, since all else is as in the light. */
export async function serious(page: Page, onlyColours = false) {
  const axe = new AxeBuilder({ page })
  const found = await (onlyColours ? axe.withRules(['color-contrast']) : axe.withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])).analyze()
  return found.violations
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .map((v) => `${v.id}: ${v.nodes.map((n) => n.html).slice(0, 3).join(' | ')}`)
}
