import { expect, test, type BrowserContext, type Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { Program } from './program'

const roster = readFileSync(new URL('../../demo/roster-weather-and-tides.csv', import.meta.url))
const program = new Program(['--empty'])
let context: BrowserContext
let page: Page

test.describe.configure({ mode: 'serial' })
test.beforeAll(async ({ browser }) => {
  await program.start()
  context = await browser.newContext({ baseURL: program.address, viewport: { width: 1280, height: 800 }, acceptDownloads: true })
  page = await context.newPage()
})
test.afterAll(() => program.remove())

const row = (p: Page, name: string) => p.getByRole('list', { name: 'Sheet' }).getByRole('listitem').filter({ hasText: name })
const keyOf = async (p: Page, name: string) => (await row(p, name).locator('kbd').first().getAttribute('data-key'))!
const stored = (p: Page) => expect(p.getByText('all stored')).toBeVisible()

test('the first visitor makes the first account', async () => {
  await page.goto('/')
  await expect(page).toHaveURL(/sign-in/)
  await page.getByLabel('Your name').fill('Tamsin Vale')
  await page.getByLabel('School', { exact: true }).fill('Skerry Sound Online School')
  await page.getByLabel('E-mail address').fill('tamsin@skerrysound.example')
  await page.getByLabel('Password, ten characters').fill('rule of twelfths')
  await page.getByRole('button', { name: 'Make the account' }).click()
  await expect(page.getByText('No class yet')).toBeVisible()
})

test('a roster is dropped, looked at, put right and brought in', async () => {
  await page.getByLabel('A new class').fill('Weather and Tides, year 8')
  await page.getByRole('button', { name: 'Make it' }).click()
  await expect(page.getByRole('heading', { name: 'Bring in a roster' })).toBeVisible()

  // Dropped, with one student twice and a formula: said by row, and nothing stored.
  const wrong = `${roster.toString('utf8').trim()}\nS1001,Twice,Entered,,twice@skerrysound.example,,,\nS2000,=1+1,Formula,,f@skerrysound.example,,,\n`
  const data = await page.evaluateHandle((text) => {
    const transfer = new DataTransfer()
    transfer.items.add(new File([text], 'roster.csv', { type: 'text/csv' }))
    return transfer
  }, wrong)
  await page.getByText('Drop a roster here').dispatchEvent('drop', { dataTransfer: data })
  await expect(page.getByText('Row 30', { exact: true })).toBeVisible()
  await expect(page.getByText('same student number as row 2')).toBeVisible()
  await expect(page.getByText('has a formula')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Bring in 28 students' })).toBeDisabled()

  await page.locator('input[type=file]').setInputFiles({ name: 'not-a-table.csv', mimeType: 'text/csv', buffer: Buffer.from('%PDF-1.7') })
  await expect(page.getByRole('alert')).toContainText('document or a picture')

  await page.locator('input[type=file]').setInputFiles({ name: 'roster.csv', mimeType: 'text/csv', buffer: roster })
  await expect(page.getByText('Nothing is wrong with it')).toBeVisible()
  const family = page.getByLabel('Column family_name is taken for')
  await expect(family).toHaveValue('family')
  await family.selectOption('')
  await expect(page.getByText('28 rows cannot be brought in')).toBeVisible()
  await family.selectOption('family')
  await page.getByRole('button', { name: 'Bring in 28 students' }).click()
  await expect(page.getByText('28 students')).toBeVisible()
})

test('a lesson starts now, and 28 students fit on the sheet', async () => {
  await page.getByLabel('A lesson now').fill('Why the wind backs')
  await page.getByRole('button', { name: 'Start it' }).click()
  const sheet = page.getByRole('list', { name: 'Sheet' })
  await expect(sheet.getByRole('listitem')).toHaveCount(28)
  const [first, last] = [await row(page, 'Abernethy').boundingBox(), await sheet.getByRole('listitem').last().boundingBox()]
  expect(first!.y).toBeGreaterThan(0)
  expect(last!.y + last!.height).toBeLessThanOrEqual(800 - 36)
  expect(first!.height).toBeGreaterThanOrEqual(24)
})

test('two keystrokes log an act, and undo takes it back any number of times', async () => {
  const juno = await keyOf(page, 'Juno')
  await page.keyboard.type(`${juno}1${juno}4`)
  await expect(row(page, 'Juno')).toContainText('Juno')
  await expect(page.getByRole('region', { name: 'Hand line' })).toContainText('Juno')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Juno Quillfeather' })).toBeVisible()
  await page.keyboard.press('6')
  await expect(row(page, 'Juno').getByRole('img', { name: 'speaking 1' })).toBeVisible()
  await page.keyboard.type(`${juno},${juno}.${juno}-${juno}0`)
  await expect(row(page, 'Juno').getByRole('img', { name: 'chat 3' })).toBeVisible()
  await expect(row(page, 'Juno').getByRole('img', { name: 'nods 1' })).toBeVisible()
  for (let i = 0; i < 4; i++) await page.keyboard.press('Backspace')
  await expect(row(page, 'Juno').getByRole('img', { name: 'chat 0' })).toBeVisible()
  await expect(row(page, 'Juno').getByRole('img', { name: 'nods 0' })).toBeVisible()
  await expect(row(page, 'Juno').getByRole('img', { name: 'speaking 1' })).toBeVisible()
  await stored(page)
})

test('every student has a key of their own, the last of them signs', async () => {
  const keys = await page.getByRole('list', { name: 'Sheet' }).locator('.who kbd').evaluateAll((keys) => keys.map((k) => k.getAttribute('data-key')!))
  expect(new Set(keys).size).toBe(28)
  const sign = keys.find((k) => !/[a-z]/.test(k))!
  await page.keyboard.press(sign)
  await expect(page.getByRole('list', { name: 'Sheet' }).locator('.who[aria-pressed=true] kbd')).toHaveAttribute('data-key', sign)
  await page.keyboard.press('Escape')
})

test('one press of the pointer logs an act, and an entry can be struck out by itself', async () => {
  for (const [act, seen] of [
    ['here', null],
    ['full', 'speaking 1'],
    ['partial', 'speaking 1.5'],
    ['asks, question', 'chat 1'],
    ['nod, helped someone', 'nods 1'],
  ] as const) {
    await row(page, 'Eino').hover()
    await row(page, 'Eino').getByRole('button', { name: act, exact: true }).click()
    await page.mouse.move(10, 790)
    if (seen) await expect(row(page, 'Eino').getByRole('img', { name: seen })).toBeVisible()
  }
  await page.getByRole('button', { name: 'Strike out: Eino, nod, helped someone' }).click()
  await expect(row(page, 'Eino').getByRole('img', { name: 'nods 0' })).toBeVisible()
  await stored(page)
})

test('everyone here but one, in three acts', async () => {
  const wojtek = await keyOf(page, 'Wojtek')
  await page.keyboard.press('F2')
  await page.keyboard.press(wojtek)
  await page.keyboard.press('Enter')
  await expect(page.getByText('27 of 28 here')).toBeVisible()
})

test('a second window is in step at once', async () => {
  const second = await context.newPage()
  await second.goto(page.url())
  await expect(row(second, 'Eino').getByRole('img', { name: 'speaking 1.5' })).toBeVisible()
  const ana = await keyOf(page, 'Petrosyan')
  await page.bringToFront()
  await page.keyboard.type(`${ana},`)
  await expect(row(second, 'Petrosyan').getByRole('img', { name: 'chat 1' })).toBeVisible()
  await second.close()
})

test('with the server gone strokes are pencilled, a closed tab keeps them, and they are inked when it is back', async () => {
  await program.kill()
  const tram = await keyOf(page, 'Nguyễn')
  await page.keyboard.type(`${tram}1${tram}6${tram},`)
  await expect(row(page, 'Nguyễn').locator('path.pencil')).toHaveCount(2)
  await expect(page.getByText(/3 in pencil/)).toBeVisible()

  // The tab is closed while the server is gone; the page itself comes from the server, so it opens when that is back.
  const address = page.url()
  await page.close()
  await program.start()
  page = await context.newPage()
  await page.goto(address)
  await expect(row(page, 'Nguyễn').getByRole('img', { name: 'speaking 1' })).toBeVisible()
  await expect(row(page, 'Nguyễn').getByRole('img', { name: 'chat 1' })).toBeVisible()
  await stored(page)
  await expect(row(page, 'Nguyễn').locator('path.pencil')).toHaveCount(0)
  await page.reload()
  await expect(row(page, 'Nguyễn').getByRole('img', { name: 'speaking 1' })).toBeVisible()
})

test('an open window goes on by itself after the server was away', async () => {
  await program.kill()
  const sipho = await keyOf(page, 'Sipho')
  await page.keyboard.type(`${sipho}7`)
  await expect(row(page, 'Sipho').locator('path.pencil')).toHaveCount(1)
  await program.start()
  await stored(page)
  await expect(row(page, 'Sipho').locator('path.ink')).toHaveCount(1)
})

test('a refused entry says why beside the stroke', async () => {
  // As from a machine whose clock was set, before it has heard from the server again.
  const refused = page.getByRole('region', { name: 'Not stored' })
  await page.route(
    '**/entries',
    (route) => {
      const sent = route.request().postDataJSON() as { entries: { happenedAt: number }[] }
      for (const entry of sent.entries) entry.happenedAt += 5 * 3600_000
      return route.continue({ postData: JSON.stringify(sent) })
    },
    { times: 1 },
  )
  const saga = await keyOf(page, 'Saga')
  await page.keyboard.type(`${saga}0`)
  await expect(refused).toContainText('lies in the future')
  await expect(row(page, 'Saga')).toContainText('not stored')
  await refused.getByRole('button', { name: 'Put away' }).click()
  await expect(refused).toHaveCount(0)
  await page.reload()
})

test('the lesson ends and is settled with an attendance list', async () => {
  const end = page.getByRole('button', { name: 'End', exact: true })
  await end.click()
  // Enter calls the next in line; it never ends a lesson.
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await expect(end).toBeVisible()
  await end.click()
  await page.getByRole('button', { name: 'End the lesson' }).click()
  await page.keyboard.press('Backspace')
  await expect(page.getByText('nothing is undone by a key')).toBeVisible()
  await page.getByRole('link', { name: 'Settle it' }).click()
  await expect(page.getByRole('heading', { name: /Settle lesson 1/ })).toBeVisible()

  const zone = await page.evaluate(() => Intl.DateTimeFormat().resolvedOptions().timeZone)
  const at = (minutes: number) => {
    const parts = new Intl.DateTimeFormat('sv-SE', { timeZone: zone, dateStyle: 'short', timeStyle: 'medium' })
    return parts.format(new Date(Date.now() + minutes * 60_000))
  }
  const list = [
    'Name;Joined;Left',
    ...['Juno Quillfeather', 'Eino R.', 'Rowan B', 'Tram Nguyen', "Toby's tablet"].map((n) => `${n};${at(-30)};${at(0)}`),
    `Rowan;${at(-30)};${at(0)}`,
    `The lighthouse keeper;${at(-20)};${at(0)}`,
  ].join('\n')
  await page.locator('input[type=file]').setInputFiles({ name: 'list.csv', mimeType: 'text/csv', buffer: Buffer.from(list) })
  await expect(page.getByText('The file does not say its time zone')).toBeVisible()
  await expect(page.getByText('5 sure')).toBeVisible()
  await page.getByRole('button', { name: 'Bring it in' }).click()

  await expect(page.getByText('2 to decide, 5 known')).toBeVisible()
  await page.getByRole('listitem').filter({ hasText: 'lighthouse' }).getByRole('button', { name: 'not a student' }).click()
  await expect(page.getByText('1 to decide, 6 known')).toBeVisible()
  await page.getByRole('button', { name: 'Rowan Lindqvist', exact: true }).click()
  await expect(page.getByText('all 7 known')).toBeVisible()

  const wojtek = page.getByRole('row').filter({ hasText: 'Wojtek' })
  await expect(wojtek).toContainText(/absent, missing at \d\d:\d\d/)
  await wojtek.getByRole('button', { name: 'Wojtek Grzelak: excuse' }).click()
  await wojtek.getByLabel('Reason of the excuse for Wojtek').fill('ferry cancelled')
  await wojtek.getByRole('button', { name: 'keep' }).click()
  await expect(wojtek).toContainText('excused, ferry cancelled')
  await page.getByRole('button', { name: 'take back', exact: true }).click()
  await expect(wojtek).toContainText('absent')

  // A file that lies there and was not brought in is asked about before the register is confirmed.
  await page.locator('input[type=file]').setInputFiles({ name: 'late.csv', mimeType: 'text/csv', buffer: Buffer.from(list) })
  await expect(page.getByRole('button', { name: 'Bring it in', exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Confirm the register' }).click()
  await expect(page.getByText('late.csv was dropped and is not brought in.')).toBeVisible()
  await page.getByRole('button', { name: 'not now' }).click()
  await page.getByRole('button', { name: 'Confirm the register' }).click()
  await page.getByRole('button', { name: 'Confirm without it' }).click()
  await expect(page.getByText('the lesson is settled')).toBeVisible()
})

test('a score opens down to its entries', async () => {
  await page.getByRole('link', { name: 'See the scores' }).click()
  await page.getByRole('button', { name: /in lesson 1, Eino Rautio/ }).click()
  const why = page.getByRole('complementary')
  await expect(why).toContainText('full turn, invited')
  await expect(why).toContainText('What was noted and in ink what it rests on')
  await expect(why).toContainText('“Eino R.” joined')
  await why.getByText('Every step of the reckoning').click()
  await expect(why).toContainText('turn credits')
  await page.getByRole('button', { name: /over the term, Eino/ }).click()
  await expect(why).toContainText('Not enough yet: 1 of the 3')
})

test('the class report stands on screen and as a file', async () => {
  await page.getByRole('link', { name: 'Report', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Weather and Tides, year 8' })).toBeVisible()
  await expect(page.getByRole('row').filter({ hasText: 'Eino' }).getByRole('img', { name: '1 full and 1 partial turns' })).toBeVisible()
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Take as CSV' }).click()])
  const csv = readFileSync(await download.path(), 'utf8')
  expect(csv).toContain('S1021,Rautio,Eino,Eino,1,0,0,0,1.5,1,0,')
  expect(csv.split('\r\n')).toHaveLength(30)
})
