import { expect, type Page } from '@playwright/test'
import { test } from './school'

// Whatever is put up on the class board is within its window, and so it is in the small one beside the sheet.
test.use({ contextOptions: { reducedMotion: 'reduce' } })

const sizes = [
  { width: 800, height: 450 },
  { width: 1280, height: 800 },
  { width: 1920, height: 1080 },
  { width: 3840, height: 2160 },
  { width: 620, height: 1000 },
]

/** Everything that stands on the board: whether any of it lies out of the window, and how large the smallest of it is. */
const laidOut = (board: Page) =>
  board.evaluate(() => {
    const boxes = [...document.querySelectorAll('.board :is(p, li, h2, img)')].map((e) => e.getBoundingClientRect()).filter((b) => b.width > 0)
    return {
      many: boxes.length,
      outside: boxes.filter((b) => b.left < 0 || b.top < 0 || b.right > innerWidth + 1 || b.bottom > innerHeight + 1).length,
      type: Number.parseFloat(getComputedStyle(document.querySelector('.board')!).fontSize),
    }
  })

test('stage, turn, hand line, signals, way in and a statement of the class are within the window, whatever window there is', async ({ live: { page, side, sheet, press, lesson } }) => {
  // Fourteen hands besides those that are up.
  const names = await sheet.locator('.who kbd').evaluateAll((keys) => keys.map((k) => (k as HTMLElement).dataset.key!))
  for (const key of names.slice(0, 14)) await press(key, '4')
  await press('End')
  for (const part of ['Stage and its time', 'Whose turn it is', 'Hand line', 'Way to the student page', 'Agreed signals', 'Directions'])
    await side.getByRole('button', { name: new RegExp(`^${part}`) }).click()
  await expect(side.getByRole('button', { name: /take down$/ })).toHaveCount(6)
  await expect(side.getByText('Not all of this fits')).toBeHidden()

  const board = await page.context().newPage()
  for (const size of sizes) {
    await board.setViewportSize(size)
    await board.goto(`/lessons/${lesson}/board`)
    await expect(board.getByText('Our signals')).toBeVisible()
    await expect.poll(async () => (await laidOut(board)).outside, { message: `${size.width} × ${size.height}` }).toBe(0)
    const { type, many } = await laidOut(board)
    expect(many).toBeGreaterThan(10)
    expect(type, `${size.width} × ${size.height}`).toBeGreaterThanOrEqual(Math.min(size.height, size.width * 0.75) * 0.02)
    // Those that have no place are counted.
    const hands = await board.locator('section', { hasText: 'Hands' }).locator('li').count()
    if (hands < 10) await expect(board.getByText(/^and \d+ more$/)).toBeVisible()
  }
  await board.close()
})
