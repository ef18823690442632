import { expect, type Page } from '@playwright/test'
import { deskOf, test } from './school'
import { serious } from './serious'

// The sheet of scores: days, one strand alone, two explanations side by side, the rubric for many, and a class of a thousand.

async function opened(page: Page) {
  const { classes } = await deskOf(page)
  await page.goto(`/classes/${classes[0].id}/scores`)
  await expect(page.getByRole('heading', { name: 'Scores, 12 settled lessons' })).toBeVisible()
}
const term = (page: Page, who: string) => page.getByRole('button', { name: new RegExp(`^Why .* over the term, ${who}`) })

test('days are chosen and a strand is seen alone, and both stay in the address', async ({ page }) => {
  await opened(page)
  const all = await term(page, 'Cormac').textContent()
  await page.getByLabel('show').selectOption({ label: 'speaking alone' })
  await expect(term(page, 'Cormac')).not.toHaveText(all!)
  await page.getByLabel('show').selectOption({ label: 'scores' })
  await page.getByLabel('lessons of').selectOption({ label: 'some days…' })
  const { lessons } = await (await page.request.get(`/api/classes/${page.url().split('/')[4]}/scores`)).json()
  await page.getByLabel('from').fill(new Date(lessons[6].plannedStart).toISOString().slice(0, 10))
  await expect(page.getByRole('heading', { name: 'Scores, 6 settled lessons' })).toBeVisible()
  await page.reload()
  await expect(page.getByRole('heading', { name: 'Scores, 6 settled lessons' })).toBeVisible()
  await page.getByLabel('from').fill('2031-01-01')
  await expect(page.getByText('No lesson is settled on these days.')).toBeVisible()
  await page.getByLabel('lessons of').selectOption({ label: 'This term' })
  await expect(page.getByRole('heading', { name: 'Scores, 12 settled lessons' })).toBeVisible()
})

test('two explanations stand side by side, by pointer, by keyboard and by choosing; one is copied', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  await opened(page)
  await term(page, 'Cormac').click()
  await expect(page.getByText('Term by term')).toBeVisible()
  await term(page, 'Saga').focus()
  await page.keyboard.press('Shift+Enter')
  await expect(page.getByRole('heading', { name: /^Why .*\?$/ })).toHaveCount(2)
  expect(await serious(page)).toEqual([])
  await page.keyboard.press('Escape')
  await expect(page.getByRole('heading', { name: /^Why .*\?$/ })).toHaveCount(1)
  await page.getByLabel('Another lesson beside it').selectOption({ label: 'lesson 9' })
  await expect(page.getByRole('heading', { name: /^Why .*\?$/ })).toHaveCount(2)
  await page.getByRole('button', { name: 'copy' }).last().click()
  await expect(page.getByText('copied')).toBeVisible()
  expect(await page.evaluate(() => navigator.clipboard.readText())).toMatch(/Why \d+, Cormac Bellweather\?\nLesson 9, .*\n[^]*together: /)
  // On paper the explanations stand alone.
  await page.emulateMedia({ media: 'print' })
  await expect(page.getByRole('table', { name: '' }).first()).toBeVisible()
  await expect(page.locator('.grid-of-scores')).toBeHidden()
})

test('the rubric is marked for many in a span of lessons with two keys, and one press takes it back', async ({ page }) => {
  await opened(page)
  await page.getByRole('button', { name: 'judge by the rubric' }).click()
  const panel = page.getByRole('complementary')
  await panel.getByRole('checkbox', { name: 'Eino' }).focus()
  await page.keyboard.press('2')
  // Lessons before the criterion was part of the scheme have none.
  await expect(panel.getByText(/^\s*Marked for 1 student in 6 lessons\./)).toContainText('no such criterion')
  await expect(panel.getByRole('checkbox').nth(20)).toBeVisible()
  await panel.getByRole('checkbox', { name: 'Ify' }).check()
  await panel.getByRole('checkbox', { name: 'Birkir' }).check()
  await page.keyboard.press('1')
  await expect(panel.getByText(/Marked for 2 students in 6 lessons/)).toBeVisible()
  await panel.getByRole('button', { name: 'Undo' }).click()
  await expect(panel.getByText(/Marked for 2 students/)).toBeHidden()
})

test('a class of a thousand with sixty lessons scrolls with only what is seen drawn, and the arrows go on beyond it', async ({ page }) => {
  const sheet = await (async () => {
    await opened(page)
    return (await page.request.get(`/api/classes/${page.url().split('/')[4]}/scores`)).json()
  })()
  const lessons = Array.from({ length: 60 }, (_, i) => ({ ...sheet.lessons[i % 12], id: crypto.randomUUID(), number: i + 1 }))
  const students = Array.from({ length: 1000 }, (_, i) => ({
    ...sheet.students[i % 28], id: crypto.randomUUID(), called: `Juno ${i + 1}`,
    cells: lessons.map((_, n) => sheet.students[i % 28].cells[n % 12]),
  }))
  let first = 1000
  await page.route('**/scores', (route) =>
    route.request().resourceType() === 'fetch' ? route.fulfill({ json: { ...sheet, lessons, students: students.slice(0, first) } }) : route.continue(),
  )
  await page.reload()
  const frame = page.getByRole('region', { name: 'The sheet of scores' })
  await expect(frame.getByText('Juno 1', { exact: true })).toBeVisible()
  expect(await frame.getByRole('row').count()).toBeLessThan(100)
  // By the attribute: to look for roles among some thousand buttons takes long.
  const numberOf = (who: string) => frame.locator(`[aria-label*="over the term, ${who} "]`)
  await numberOf('Juno 1').focus()
  for (let i = 2; i <= 45; i++) {
    await page.keyboard.press('ArrowDown')
    await expect(numberOf(`Juno ${i}`)).toBeFocused()
  }
  await frame.evaluate((f) => f.scrollTo(0, f.scrollHeight))
  await expect(frame.getByText('Juno 1000', { exact: true })).toBeInViewport()
  await expect(frame.getByRole('columnheader', { name: 'Student' })).toBeInViewport()
  // On paper all of them stand.
  first = 100
  await page.reload()
  await expect(frame.getByText('Juno 1', { exact: true })).toBeVisible()
  await page.emulateMedia({ media: 'print' })
  await expect(page.locator('.grid-of-scores tbody tr')).toHaveCount(100)
})
