import { expect } from '@playwright/test'
import { LiveWindow } from './live-window'
import { test, withProgram } from './school'
import { cutLine } from './slow-line'

// The network gone, the server killed, a clock that is wrong: what was pressed stands where it belongs.
test('with the network gone for a while everything goes on in pencil and is inked later', async ({ live, context }) => {
  const { page, head, keyOf, press, stored, makeGroups } = live
  const groups = await makeGroups()
  await press('Escape')
  const mendLine = await cutLine(page)
  await press(await keyOf('Ximena'), '6', 'F8')
  await expect(head).toContainText('Looking back')
  await press('PageDown')
  await groups.getByRole('button', { name: 'dissolve all' }).click()
  await press('Escape')
  await expect(page.getByText(/no connection, \d+ in pencil/)).toBeVisible()
  await mendLine()
  await stored()
  const other = new LiveWindow(await context.newPage())
  await other.page.goto(live.path)
  await expect(other.head).toContainText('Looking back')
  await expect(other.row('Ximena').getByRole('img', { name: 'speaking 1' })).toBeVisible()
})

test('signed out in the middle of a lesson, signing in is done inside it and nothing is left behind', async ({ live: { page, row, keyOf, press, path } }) => {
  await page.context().clearCookies()
  await press(await keyOf('Saga'), '0', await keyOf('Eino'), '0')
  const bar = page.getByRole('region', { name: 'Signed out' })
  await expect(bar).toContainText('2 entries in pencil wait here')
  await bar.getByRole('button', { name: 'Look around as Tamsin Vale' }).click()
  await expect(bar).toBeHidden()
  await expect(page.getByText('all stored')).toBeVisible()
  expect(new URL(page.url()).pathname).toBe(path)
  await page.reload()
  await expect(row('Eino').getByRole('img', { name: 'nods 1' })).toBeVisible()
})

test('with the clock of the browser three hours wrong, entries carry the right time', async ({ live, context }) => {
  const wrong = new LiveWindow(await context.newPage())
  await wrong.page.addInitScript(() => {
    const real = Date.now.bind(Date)
    Date.now = () => real() - 3 * 3600_000
  })
  await wrong.page.goto(live.path)
  await wrong.press(await wrong.keyOf('Birkir'), '0')
  await wrong.stored()
  const { head } = await (await wrong.page.request.get(`/api${live.path}`)).json()
  const nod = head.lastEntries.find((e: { text: string }) => e.text.startsWith('Birkir, nod'))
  expect(Math.abs(nod.at - head.now)).toBeLessThan(30_000)
})

withProgram('the server is killed in the middle, and nothing acknowledged is lost', async ({ live, program }) => {
  const { page, keyOf, press, stored } = live
  await press(await keyOf('Barney'), '6')
  await stored()
  const before = await (await page.request.get(`/api${live.path}`)).json()
  await program.kill()
  await press(await keyOf('Barney'), ',')
  await expect(page.getByText(/in pencil/)).toBeVisible()
  await program.start()
  await stored()
  const after = await (await page.request.get(`/api${live.path}`)).json()
  expect(after.head.position).toBeGreaterThan(before.head.position)
  expect(after.head.groups).toEqual(before.head.groups)
  expect(after.rows.map((r: { speaking: unknown }) => r.speaking)).toEqual(before.rows.map((r: { speaking: unknown }) => r.speaking))
})
