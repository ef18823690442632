import { expect, type Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { deskOf, test } from './school'
import { serious } from './serious'

// Reports: read, put in other words, opened down to entries, taken along, and turned into what to do next.

async function opened(page: Page, kind: string) {
  const { classes } = await deskOf(page)
  await page.goto(`/classes/${classes[0].id}/reports/${kind}`)
}
const choose = (page: Page, what: string, label: string) => page.getByRole('combobox', { name: what }).selectOption({ label })

test('a report on a student is read, put in other words that stay, opened to its reasons, and taken as PDF', async ({ page }) => {
  await opened(page, 'student')
  await choose(page, 'student', 'Cormac Bellweather')
  await expect(page.getByRole('heading', { name: 'Cormac Bellweather' })).toBeVisible()
  await expect(page.getByText(/^Cormac was there in all twelve lessons\.$/)).toBeVisible()
  expect(await serious(page)).toEqual([])

  await page.getByRole('button', { name: 'put it in your words' }).click()
  await page.getByLabel('In your words').fill('Cormac carried the talk about tides.')
  await page.getByRole('button', { name: 'Keep these words' }).click()
  await expect(page.getByText('Cormac carried the talk about tides.')).toBeVisible()
  await page.reload()
  await expect(page.getByText('Cormac carried the talk about tides.')).toBeVisible()
  const [pdf] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'PDF', exact: true }).click()])
  expect(readFileSync(await pdf.path()).subarray(0, 5).toString()).toBe('%PDF-')
  await page.getByRole('button', { name: 'back to the words of the count' }).click()
  await expect(page.getByText(/^Cormac was there in all twelve lessons\.$/)).toBeVisible()

  // Every figure has its table, and opens: here to why the lesson was scored so.
  await page.getByText('the same in figures').first().click()
  await page.getByRole('link', { name: '9, Fronts and squalls' }).click()
  await expect(page.getByRole('heading', { name: /^Why \d+, Cormac/ })).toBeVisible()
  await page.goBack()
  await page.getByRole('button', { name: 'the next' }).click()
  await expect(page.getByRole('heading', { name: 'Rowan Bellweather' })).toBeVisible()
})

test('who was not heard goes into the next plan by one press, without names, and comes out again', async ({ page }) => {
  await opened(page, 'fairness')
  await expect(page.getByText(/Gini coefficient is 0\.\d\d/)).toBeVisible()
  await expect(page.getByRole('img', { name: /curve of Lorenz/ })).toBeVisible()
  await page.getByRole('button', { name: 'Put it into the next plan' }).click()
  await page.getByRole('status').getByRole('link', { name: /^lesson \d+/ }).click()
  await page.waitForURL(/\/plan$/)
  const names = () => page.locator('input').evaluateAll((fields) => fields.map((f) => (f as HTMLInputElement).value))
  await expect.poll(names).toContain('Draw once round')
  await page.goBack()
  await page.getByRole('button', { name: 'Put it into the next plan' }).click()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('button', { name: 'Put it into the next plan' })).toBeVisible()
})

test('what is known of a student leads to the lesson at that minute, which is replayed by the keyboard', async ({ page }) => {
  await opened(page, 'past')
  await choose(page, 'student', 'Eino Rautio')
  await page.getByLabel('with the words').fill('full turn')
  await expect(page.getByText('full turn').first()).toBeVisible()
  await expect(page.getByText('hand up')).toHaveCount(0)
  await page.getByRole('link', { name: /lesson 9, Fronts and squalls|lesson \d+, / }).last().click()
  const slider = page.getByRole('slider', { name: 'minute of the lesson' })
  await expect(slider).toBeVisible()
  await slider.focus()
  await page.keyboard.press('Home')
  await expect(page.getByRole('listitem').filter({ hasText: 'Eino' }).getByLabel(/^1 full/)).toHaveCount(0)
  await page.keyboard.press('End')
  await expect(page.getByRole('listitem').filter({ hasText: 'Eino' }).getByLabel(/^1 full/)).toHaveCount(1)
})

test('answers say who gave them on the screen, and not in a file unless it is asked for', async ({ page }) => {
  await opened(page, 'questions')
  await expect(page.getByRole('heading', { name: 'Lesson 10: Air has weight.' })).toBeVisible()
  const file = async () => {
    const [csv] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'CSV' }).click()])
    return readFileSync(await csv.path(), 'utf8')
  }
  expect(await file()).not.toContain('Cormac')
  await page.getByLabel('files with names').check()
  expect(await file()).toContain('Cormac')
})

test('a document for a meeting is put together, ordered, and has numbers instead of names', async ({ page }) => {
  await opened(page, 'meeting')
  await page.getByRole('button', { name: 'add a part' }).click()
  await expect(page.getByRole('button', { name: 'Put it together' })).toBeEnabled()
  await choose(page, 'part 2', 'A student')
  await expect(page.getByRole('button', { name: 'Put it together' })).toBeDisabled()
  await choose(page, 'student', 'Saga Eriksdotter')
  await page.getByLabel('what you say before part 2').fill('How the second half went.')
  await page.getByRole('button', { name: 'up' }).last().click()
  await page.getByLabel('numbers instead of names').check()
  await page.getByRole('button', { name: 'Put it together' }).click()
  await expect(page.getByText('How the second half went.')).toBeVisible()
  await expect(page.locator('article')).not.toContainText('Saga')
  await expect(page.locator('article h2').nth(1)).toHaveText(/^Student \d+$/)
  // What was put together is there when one comes back.
  await page.reload()
  await expect(page.getByLabel('what you say before part 1')).toHaveValue('How the second half went.')
})

test('the reports of a class are made at once, with progress, and it is seen what went to whom', async ({ page }) => {
  await opened(page, 'student')
  await page.getByRole('button', { name: 'all PDF in one archive' }).click()
  const [zip] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'take the archive' }).click()])
  expect(readFileSync(await zip.path()).subarray(0, 2).toString()).toBe('PK')
  await choose(page, 'for', 'guardians')
  await page.getByRole('button', { name: 'send to each home by mail' }).click()
  await expect(page.getByText(/reports went out/)).toBeVisible()
  await page.getByText(/^What went to whom/).click()
  await expect(page.getByText('went', { exact: true }).first()).toBeVisible()
})
