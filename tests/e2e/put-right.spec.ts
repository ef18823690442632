import { expect } from '@playwright/test'
import { LiveWindow } from './live-window'
import { test } from './school'
import { serious } from './serious'

// What was pressed too often, too early, or for the wrong one is put right: while the lesson goes on, when it is over, and when it is settled.
test.use({ contextOptions: { reducedMotion: 'reduce' } })

test('a double press on the way to a lesson notes nothing in it', async ({ page }) => {
  const { last, stored } = new LiveWindow(page)
  await page.goto('/')
  const entry = page.getByRole('link', { name: 'Go to it' })
  const box = (await entry.boundingBox())!
  // Where the link is, the sheet will be.
  await page.mouse.move(box.x + 5, box.y + 5)
  await page.mouse.down({ clickCount: 1 })
  await page.mouse.up({ clickCount: 1 })
  await expect(page.getByRole('list', { name: 'Sheet' })).toBeVisible()
  const before = await last.textContent()
  await page.mouse.down({ clickCount: 2 })
  await page.mouse.up({ clickCount: 2 })
  await stored()
  expect(await last.textContent()).toBe(before)
  await expect(page.locator('.row.chosen')).toHaveCount(0)
})

test('all hands go down by one press, and come back by one undo, in their order', async ({ live: { page, line, last, keyOf, press, stored } }) => {
  const hands = line.getByRole('listitem')
  const [Juno, Birkir, Saga] = [await keyOf('Juno'), await keyOf('Birkir'), await keyOf('Saga')]
  await press(Saga, '4', Juno, '4', Birkir, '4')
  const before = await hands.allTextContents()
  expect(before.length).toBeGreaterThan(3)
  const names = (lines: string[]) => lines.map((l) => l.replace(/\d+:\d\d/, ''))
  await page.getByRole('button', { name: 'all hands down' }).click()
  await expect(hands).toHaveCount(0)
  await expect(last).toContainText(/\d+ students, hand set down/)
  await press('Backspace')
  await stored()
  await expect.poll(async () => names(await hands.allTextContents())).toEqual(names(before))
  await page.getByRole('button', { name: /^Put back: \d+ students, hand set down/ }).click()
  await expect(hands).toHaveCount(0)
})

test('a nod for everybody is one entry and one undo', async ({ live: { page, last, press, stored } }) => {
  await press('Home', '0')
  await expect(last).toContainText(/\d+ students, nod, /)
  await stored()
  await press('Backspace')
  await expect(page.getByRole('button', { name: /^Put back: \d+ students, nod, / })).toBeVisible()
})

test('who was passed over by a later call does not come back on the card', async ({ live: { side, last, keyOf, press, stored } }) => {
  const [Juno, Saga] = [await keyOf('Juno'), await keyOf('Saga')]
  await press(Juno, '5')
  await expect(side.getByRole('heading', { level: 2 }).first()).toHaveText(/Juno/)
  await press(Saga, '5')
  await expect(side.getByRole('heading', { level: 2 }).first()).toHaveText(/Saga/)
  await press('6')
  await stored()
  await expect(side.getByRole('heading', { level: 2 }).first()).not.toHaveText(/Juno|Saga/)
  await press('6')
  await expect(last).toContainText('Saga, full turn')
})

test('a student’s own list is whole: an entry is struck and put back, and what was forgotten is added with its time', async ({ live: { page, side, keyOf, press, stored } }) => {
  const Saga = await keyOf('Saga')
  await press('6', Saga, '5', '6')
  await stored()
  await press(Saga, '!')
  const list = side.getByRole('list', { name: /^Entries about Saga/ })
  await expect(list.getByText('full turn')).toHaveCount(1)
  await list.getByRole('button', { name: 'Strike out: full turn' }).click()
  await list.getByRole('button', { name: 'Put back: full turn' }).click()
  await expect(list.getByRole('button', { name: 'Strike out: full turn' })).toBeVisible()
  const many = await list.getByRole('listitem').count()
  await side.getByRole('combobox', { name: /^What Saga/ }).selectOption('idea')
  await side.getByRole('button', { name: 'Add' }).click()
  await expect(list.getByRole('listitem')).toHaveCount(many + 1)
  await expect(list).toContainText('idea in the chat')
  expect(await serious(page)).toEqual([])
})

test('a lesson that has ended stands still, is resumed by one press, and goes on', async ({ live: { page, head, last, keyOf, press, stored, end } }) => {
  await end()
  await expect(head).toContainText('ended')
  await expect(head).toContainText(/of \d+ here at the end/)
  await page.getByRole('button', { name: 'Resume it' }).click()
  await expect(head.getByRole('button', { name: 'End', exact: true })).toBeVisible()
  await press(await keyOf('Juno'), '0')
  await expect(last).toContainText('Juno, nod')
  await stored()
})

test('after settling, mistakes are put right in the register and behind the score', async ({ live: { page, keyOf, press, stored, end } }) => {
  await press('6', await keyOf('Saga'), '5', '6')
  await stored()
  await end()
  await page.getByRole('link', { name: 'Settle it' }).click()
  await page.getByRole('button', { name: /^Confirm/ }).click()
  await expect(page.getByText('The register is confirmed')).toBeVisible()

  await page.getByRole('button', { name: /^Saga .*: entries/ }).click()
  await expect(page.getByRole('button', { name: 'Strike out: full turn' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Open it again', exact: true }).click()
  await page.getByRole('button', { name: 'Strike out: full turn' }).click()
  await expect(page.getByRole('button', { name: 'Put back: full turn' })).toBeVisible()
  await page.getByRole('combobox', { name: /^What Saga/ }).selectOption('partial')
  await page.getByRole('button', { name: 'Add' }).click()
  await expect(page.getByRole('button', { name: 'Strike out: partial turn' })).toBeVisible()
  await page.getByRole('button', { name: /^Confirm/ }).click()
  await page.getByRole('link', { name: 'See the scores' }).click()

  await page.getByRole('row', { name: /Saga/ }).getByRole('button').last().click()
  await expect(page.getByRole('list', { name: /^Entries about Saga/ })).toContainText('partial turn')
  expect(await serious(page)).toEqual([])
})
