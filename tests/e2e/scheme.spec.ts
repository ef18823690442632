import { readFileSync } from 'node:fs'
import { expect, type Page } from '@playwright/test'
import { deskOf, test } from './school'

// A scheme is changed in the middle of a term, looked at before and after, applied to half of the lessons, and taken back.

async function opened(page: Page, view: 'scheme' | 'scores' = 'scheme') {
  const { classes } = await deskOf(page)
  await page.goto(`/classes/${classes[0].id}/${view}`)
  await expect(page.getByRole('button', { name: /^Why .* over the term, Cormac/ }).or(page.getByRole('heading', { name: 'Before and after' }))).toBeVisible()
}

/** What is shown of somebody after the change. */
const after = async (page: Page, who: string) =>
  Number(/→ (\d+)/.exec((await page.locator('.row', { hasText: who }).textContent()) ?? '')?.[1])
const term = async (page: Page, who: string) =>
  Number(await page.getByRole('row', { name: new RegExp(who) }).getByRole('button', { name: /over the term/ }).textContent())

test('a change of scheme is seen before it is made, made for half of the lessons, and taken back', async ({ page }) => {
  await opened(page, 'scores')
  const before = await term(page, 'Cormac')
  await page.getByRole('link', { name: 'Scheme', exact: true }).click()
  await expect(page.getByText('version 2, in force')).toBeVisible()

  await page.getByLabel('Weight of speaking').fill('6')
  await expect(page.getByText('was 3')).toBeVisible()
  await expect(page.getByText(/\d+ gains?, \d+ loses?|\d+ gains?, \d+ lose/)).toBeVisible()
  await expect(page.getByText(/Those who speak little, at most \d+ turns in the term/)).toBeVisible()
  // Half of them: those that were scored by the first version stay as they are.
  await page.getByText('all 12 settled lessons').click()
  for (const box of (await page.getByRole('checkbox').all()).slice(0, 6)) await box.uncheck()
  await expect(page.getByText('6 of 12 settled lessons')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Also for 6 settled lessons' })).toBeDisabled()
  await page.getByRole('textbox', { name: 'Reason' }).fill('a class that talks about its readings')
  await expect.poll(() => after(page, 'Cormac')).toBeGreaterThan(0)
  await page.waitForLoadState('networkidle')
  const shown = await after(page, 'Cormac')
  await page.getByRole('button', { name: 'Also for 6 settled lessons' }).click()
  await expect(page.getByText('Version 3 is in force from the next lesson on. 6 settled lessons scored by it.')).toBeVisible()
  await expect(page.getByText('are being reckoned anew')).toBeHidden()

  await page.getByRole('link', { name: 'Scores', exact: true }).click()
  await expect.poll(() => term(page, 'Cormac')).toBe(shown)
  await page.goBack()
  await page.getByText('3 versions').click()
  await expect(page.getByText('a class that talks about its readings')).toBeVisible()
  await page.getByText('3 versions').click()
  // From another visit it is taken back as what it is: a version of before, for the lessons that were chosen.
  await page.getByLabel('Weight of speaking').fill('4')
  await page.getByRole('textbox', { name: 'Reason' }).fill('once more')
  await page.getByRole('button', { name: 'From the next lesson on' }).click()
  await expect(page.getByText('Version 4 is in force from the next lesson on.')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('version 5, in force')).toBeVisible()
  await page.getByRole('link', { name: 'Scores', exact: true }).click()
  await expect.poll(() => term(page, 'Cormac')).toBe(shown)
  expect(before).toBeGreaterThan(0)
})

test('one undo takes back a change and all that was scored by it', async ({ page }) => {
  await opened(page, 'scores')
  const sheet = () => page.getByRole('table').innerText()
  const before = await sheet()
  await page.getByRole('link', { name: 'Scheme', exact: true }).click()
  await page.getByLabel('Start from another scheme').selectOption('For a shy class')
  await expect(page.getByRole('textbox', { name: 'Reason' })).toHaveValue('the prepared scheme “For a shy class”')
  await page.getByRole('button', { name: 'Also for 12 settled lessons' }).click()
  await expect(page.getByText('12 settled lessons scored by it.')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('version 4, in force')).toBeVisible()
  await expect(page.getByText('are being reckoned anew')).toBeHidden()
  await page.getByRole('link', { name: 'Scores', exact: true }).click()
  await expect.poll(sheet).toBe(before)
})

test('a scheme goes into a file and comes back, and another file is refused with a reason', async ({ page }) => {
  await opened(page)
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'as a file' }).click()])
  const saved = JSON.parse(readFileSync(await download.path(), 'utf8'))
  expect(saved).toMatchObject({ format: 'polite-tally-scheme', version: 1, scheme: { weights: { chat: 2, rubric: 1 } } })
  const give = (name: string, content: unknown) =>
    page.locator('input[type=file]').setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(typeof content === 'string' ? content : JSON.stringify(content)) })

  await give('other.json', 'not json')
  await expect(page.getByText('This file is not JSON.')).toBeVisible()
  await give('newer.json', { ...saved, version: 2 })
  await expect(page.getByText('This scheme is of version 2, and this program reads up to version 1.')).toBeVisible()
  await give('odd.json', { ...saved, scheme: { ...saved.scheme, speakingTarget: 'many' } })
  await expect(page.getByText('In the file scheme.speakingTarget is no number.')).toBeVisible()
  await give('mine.json', { ...saved, scheme: { ...saved.scheme, weights: { ...saved.scheme.weights, chat: 4 } } })
  await expect(page.getByText('was 2')).toBeVisible()
  await expect(page.getByRole('textbox', { name: 'Reason' })).toHaveValue('from the file mine.json')
})

test('a number is asked why by keys alone, and one case is put right with a reason and taken back', async ({ page }) => {
  await opened(page, 'scores')
  await page.getByRole('button', { name: /over the term, Cormac/ }).focus()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  const why = page.getByRole('complementary')
  await expect(why).toContainText('Lesson 1,')
  await page.keyboard.press('Escape')
  await expect(why).toBeHidden()

  await page.getByRole('button', { name: /in lesson 9, Saga/ }).click()
  await expect(why).toContainText('speaking set to 100 % by hand: explained the neap tide')
  await why.getByText('Put it right by hand').click()
  await why.getByLabel('What is put right').selectOption('set the score')
  await why.getByRole('spinbutton').fill('80')
  await expect(why.getByRole('button', { name: 'Put it right' })).toBeDisabled()
  await why.getByLabel('Why it is put right').fill('as agreed with her')
  await why.getByRole('button', { name: 'Put it right' }).click()
  await expect(why).toContainText('80: the score set to 80 by hand: as agreed with her.')
  await expect(page.getByRole('button', { name: /Why 80 in lesson 9, Saga.*Put right by hand/ })).toBeVisible()
  await why.getByRole('listitem').filter({ hasText: 'as agreed with her' }).getByRole('button', { name: 'take back' }).click()
  await expect(why).not.toContainText('80: the score set')

  await why.getByRole('button', { name: 'now and then' }).click()
  await expect(why.getByRole('button', { name: 'now and then' })).toHaveAttribute('aria-pressed', 'true')
  await expect(why).toContainText('Rests on 8 of 12.')
})
