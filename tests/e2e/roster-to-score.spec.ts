import { expect, type Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { LiveWindow } from './live-window'
import { classOf, lessonNow, roster, tamsin, test, weather, withProgram } from './school'

// The way from an empty program to a score: account, roster, lesson, attendance list, register, report.
test.use({ school: 'account', acceptDownloads: true })
withProgram.use({ school: 'account' })

/** An attendance list of the last half hour, in the time zone of the browser. */
async function listOf(page: Page, names: string[]) {
  const zone = await page.evaluate(() => Intl.DateTimeFormat().resolvedOptions().timeZone)
  const parts = new Intl.DateTimeFormat('sv-SE', { timeZone: zone, dateStyle: 'short', timeStyle: 'medium' })
  const at = (minutes: number) => parts.format(new Date(Date.now() + minutes * 60_000))
  const rows = names.map((n) => `${n};${at(-30)};${at(0)}`)
  return { name: 'list.csv', mimeType: 'text/csv', buffer: Buffer.from(['Name;Joined;Left', ...rows].join('\n')) }
}

/** A lesson in which Eino spoke once and a half and asked in the chat, settled with a list that he is on. */
async function settled(page: Page) {
  const { keyOf, press, stored, end } = await lessonNow(page)
  const eino = await keyOf('Eino')
  await press(eino, '6', eino, '7', eino, ',')
  await stored()
  await end()
  await page.getByRole('link', { name: 'Settle it' }).click()
  await page.locator('input[type=file]').setInputFiles(await listOf(page, ['Eino R.']))
  await expect(page.getByRole('button', { name: 'Take out list.csv' })).toBeVisible()
  await page.getByRole('button', { name: 'Confirm and hand in' }).click()
  await expect(page.getByText('the lesson is settled')).toBeVisible()
}

test.describe('with nobody there yet', () => {
  test.use({ school: 'nobody' })
  test('the first visitor makes the first account', async ({ page }) => {
    await page.goto('/')
    await expect(page).toHaveURL(/sign-in/)
    await page.getByLabel('Your name').fill(tamsin.name)
    await page.getByLabel('School', { exact: true }).fill(tamsin.school)
    await page.getByLabel('E-mail address').fill(tamsin.email)
    await page.getByLabel('Password, ten characters').fill(tamsin.password)
    await page.getByRole('button', { name: 'Make the account' }).click()
    await expect(page.getByText('No class yet')).toBeVisible()
  })
})

test('a roster is dropped, looked at, put right and brought in', async ({ page }) => {
  await page.goto('/')
  await page.getByLabel('A new class').fill(weather)
  await page.getByRole('button', { name: 'Make it' }).click()
  await expect(page.getByRole('heading', { name: 'Bring in a roster' })).toBeVisible()

  // Dropped, with one student twice and a formula: said by row, and nothing stored.
  const wrong = `${roster}\nS1001,Twice,Entered,,twice@skerrysound.example,,,\nS2000,=1+1,Formula,,f@skerrysound.example,,,\n`
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

  await page.locator('input[type=file]').setInputFiles({ name: 'roster.csv', mimeType: 'text/csv', buffer: Buffer.from(roster) })
  await expect(page.getByText('Nothing is wrong with it')).toBeVisible()
  const family = page.getByLabel('Column family_name is taken for')
  await expect(family).toHaveValue('family')
  await family.selectOption('')
  await expect(page.getByText('28 rows cannot be brought in')).toBeVisible()
  await family.selectOption('family')
  await page.getByRole('button', { name: 'Bring in 28 students' }).click()
  await expect(page.getByText('28 students')).toBeVisible()
})

test('a lesson starts now, and 28 students fit on the sheet', async ({ page }) => {
  const { sheet, row } = new LiveWindow(page)
  await page.goto(`/classes/${await classOf(page, weather)}`)
  await page.getByLabel('A lesson now').fill('Why the wind backs')
  await page.getByRole('button', { name: 'Start it' }).click()
  await expect(sheet.getByRole('listitem')).toHaveCount(28)
  const [first, last] = [await row('Abernethy').boundingBox(), await sheet.getByRole('listitem').last().boundingBox()]
  expect(first!.y).toBeGreaterThan(0)
  expect(last!.y + last!.height).toBeLessThanOrEqual(800 - 36)
  expect(first!.height).toBeGreaterThanOrEqual(24)
})

test('two keystrokes log an act, and undo takes it back any number of times', async ({ page }) => {
  const { line, row, keyOf, stored } = await lessonNow(page)
  const juno = await keyOf('Juno')
  await page.keyboard.type(`${juno}1${juno}4`)
  await expect(row('Juno')).toContainText('Juno')
  await expect(line).toContainText('Juno')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Juno Quillfeather' })).toBeVisible()
  await page.keyboard.press('6')
  await expect(row('Juno').getByRole('img', { name: 'speaking 1' })).toBeVisible()
  await page.keyboard.type(`${juno},${juno}.${juno}-${juno}0`)
  await expect(row('Juno').getByRole('img', { name: 'chat 3' })).toBeVisible()
  await expect(row('Juno').getByRole('img', { name: 'nods 1' })).toBeVisible()
  for (let i = 0; i < 4; i++) await page.keyboard.press('Backspace')
  await expect(row('Juno').getByRole('img', { name: 'chat 0' })).toBeVisible()
  await expect(row('Juno').getByRole('img', { name: 'nods 0' })).toBeVisible()
  await expect(row('Juno').getByRole('img', { name: 'speaking 1' })).toBeVisible()
  await stored()
})

test('every student has a key of their own, the last of them signs', async ({ page }) => {
  const { sheet } = await lessonNow(page)
  const keys = await sheet.locator('.who kbd').evaluateAll((keys) => keys.map((k) => k.getAttribute('data-key')!))
  expect(new Set(keys).size).toBe(28)
  const sign = keys.find((k) => !/[a-z]/.test(k))!
  await page.keyboard.press(sign)
  await expect(sheet.locator('.who[aria-pressed=true] kbd')).toHaveAttribute('data-key', sign)
  await page.keyboard.press('Escape')
})

test('one press of the pointer logs an act, and an entry can be struck out by itself', async ({ page }) => {
  const { row, stored } = await lessonNow(page)
  for (const [act, seen] of [
    ['here', null],
    ['full', 'speaking 1'],
    ['partial', 'speaking 1.5'],
    ['asks, question', 'chat 1'],
    ['nod, helped someone', 'nods 1'],
  ] as const) {
    await row('Eino').hover()
    await row('Eino').getByRole('button', { name: act, exact: true }).click()
    await page.mouse.move(10, 790)
    if (seen) await expect(row('Eino').getByRole('img', { name: seen })).toBeVisible()
  }
  await page.getByRole('button', { name: 'Strike out: Eino, nod, helped someone' }).click()
  await expect(row('Eino').getByRole('img', { name: 'nods 0' })).toBeVisible()
  await stored()
})

test('everyone here but one, in three acts', async ({ page }) => {
  const { keyOf } = await lessonNow(page)
  const wojtek = await keyOf('Wojtek')
  await page.keyboard.press('F2')
  await page.keyboard.press(wojtek)
  await page.keyboard.press('Enter')
  await expect(page.getByText('27 of 28 here')).toBeVisible()
})

test('a second window is in step at once', async ({ page, context }) => {
  const { keyOf, press } = await lessonNow(page)
  const [eino, ana] = [await keyOf('Eino'), await keyOf('Petrosyan')]
  await press(eino, '6', eino, '7')
  const second = new LiveWindow(await context.newPage())
  await second.page.goto(page.url())
  await expect(second.row('Eino').getByRole('img', { name: 'speaking 1.5' })).toBeVisible()
  await page.bringToFront()
  await press(ana, ',')
  await expect(second.row('Petrosyan').getByRole('img', { name: 'chat 1' })).toBeVisible()
})

withProgram('with the server gone strokes are pencilled, a closed tab keeps them, and they are inked when it is back', async ({ page, context, program }) => {
  const { row, keyOf, path } = await lessonNow(page)
  await program.kill()
  const tram = await keyOf('Nguyễn')
  await page.keyboard.type(`${tram}1${tram}6${tram},`)
  await expect(row('Nguyễn').locator('path.pencil')).toHaveCount(2)
  await expect(page.getByText(/3 in pencil/)).toBeVisible()

  // The tab is closed while the server is gone; the page itself comes from the server, so it opens when that is back.
  await page.close()
  await program.start()
  const again = new LiveWindow(await context.newPage())
  await again.page.goto(path)
  await expect(again.row('Nguyễn').getByRole('img', { name: 'speaking 1' })).toBeVisible()
  await expect(again.row('Nguyễn').getByRole('img', { name: 'chat 1' })).toBeVisible()
  await again.stored()
  await expect(again.row('Nguyễn').locator('path.pencil')).toHaveCount(0)
  await again.page.reload()
  await expect(again.row('Nguyễn').getByRole('img', { name: 'speaking 1' })).toBeVisible()
})

withProgram('an open window goes on by itself after the server was away', async ({ page, program }) => {
  const { row, keyOf, stored } = await lessonNow(page)
  await program.kill()
  const sipho = await keyOf('Sipho')
  await page.keyboard.type(`${sipho}7`)
  await expect(row('Sipho').locator('path.pencil')).toHaveCount(1)
  await program.start()
  await stored()
  await expect(row('Sipho').locator('path.ink')).toHaveCount(1)
})

test('a refused entry says why beside the stroke', async ({ page }) => {
  const { row, keyOf } = await lessonNow(page)
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
  const saga = await keyOf('Saga')
  await page.keyboard.type(`${saga}0`)
  await expect(refused).toContainText('lies in the future')
  await expect(row('Saga')).toContainText('not stored')
  await refused.getByRole('button', { name: 'Put away' }).click()
  await expect(refused).toHaveCount(0)
})

test('the lesson ends and is settled with an attendance list', async ({ page }) => {
  const { keyOf, press } = await lessonNow(page)
  await press('F2', await keyOf('Wojtek'), 'Enter')
  await expect(page.getByText('27 of 28 here')).toBeVisible()
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

  const list = await listOf(page, ['Juno Quillfeather', 'Eino R.', 'Rowan B', 'Tram Nguyen', "Toby's tablet", 'Rowan', 'The lighthouse keeper'])
  await page.locator('input[type=file]').setInputFiles(list)
  const questions = page.getByRole('region', { name: /things? only you can know/ })
  await expect(questions.getByRole('listitem')).toHaveCount(2)
  await questions.getByRole('listitem').filter({ hasText: 'lighthouse' }).getByRole('button', { name: 'not a student' }).click()
  await expect(questions.getByRole('listitem')).toHaveCount(1)
  await questions.getByRole('button', { name: 'Rowan Lindqvist' }).click()
  await expect(page.getByText('7 known names')).toBeVisible()

  const wojtek = page.getByRole('row').filter({ hasText: 'Wojtek' })
  await expect(wojtek).toContainText(/absent, missing at \d\d:\d\d/)
  await wojtek.getByRole('button', { name: 'Wojtek Grzelak: excuse' }).click()
  await wojtek.getByLabel('Reason of the excuse for Wojtek').fill('ferry cancelled')
  await wojtek.getByRole('button', { name: 'keep' }).click()
  await expect(wojtek).toContainText('excused, ferry cancelled')
  await page.getByRole('button', { name: 'take back', exact: true }).click()
  await expect(wojtek).toContainText('absent')

  // A file that lies there and was not brought in is asked about before the register is confirmed.
  const unclear = { name: 'late.csv', mimeType: 'text/csv', buffer: Buffer.from('Name;A;Minutes\nJuno;x;40\nEino;y;47') }
  await page.locator('input[type=file]').setInputFiles(unclear)
  await expect(page.getByText('This file could be one or the other')).toBeVisible()
  await page.getByRole('button', { name: 'Confirm and hand in' }).click()
  await expect(page.getByText('late.csv was dropped and is not brought in.')).toBeVisible()
  await page.getByRole('button', { name: 'Look at it first' }).click()
  await page.getByRole('button', { name: 'Confirm and hand in' }).click()
  await page.getByRole('button', { name: 'Confirm without it' }).click()
  await expect(page.getByText('the lesson is settled')).toBeVisible()
  await expect(page.getByText('The register is handed in')).toBeVisible()
})

test('a score opens down to its entries', async ({ page }) => {
  await settled(page)
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

test('the class report stands on screen and as a file', async ({ page }) => {
  await settled(page)
  await page.getByRole('link', { name: 'See the scores' }).click()
  await expect(page.getByText('Press any number')).toBeVisible()
  await page.getByRole('link', { name: 'Reports', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'The class so far' })).toBeVisible()
  await expect(page.getByRole('row').filter({ hasText: 'Eino' }).getByRole('img', { name: '1 full and 1 partial turns' })).toBeVisible()
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Take as CSV' }).click()])
  const csv = readFileSync(await download.path(), 'utf8')
  expect(csv).toContain('S1021,Rautio,Eino,Eino,1,0,0,0,1.5,0,0,0,0,1,0,0,0,')
  expect(csv.split('\r\n')).toHaveLength(30)
})
