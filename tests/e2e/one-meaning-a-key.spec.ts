import { expect } from '@playwright/test'
import { deskOf, test } from './school'
import { LiveWindow } from './live-window'

// A key does one thing, whatever was pressed before it and with what.
test.use({ contextOptions: { reducedMotion: 'reduce' } })

test('whatever was pressed by the pointer, Enter calls the next in line', async ({ live: { page, side, sheet, last, press } }) => {
  const names = await sheet.locator('.who kbd').evaluateAll((keys) => keys.map((k) => (k as HTMLElement).dataset.key!))
  for (const key of names.slice(0, 20)) await press(key, '4')
  const controls = side.locator('nav button, section label, section h2 button')
  const many = await controls.count()
  expect(many).toBeGreaterThan(12)
  let called = 0
  for (let i = 0; i < many; i++) {
    const control = controls.nth(i)
    if (!(await control.isVisible().catch(() => false)) || !(await control.isEnabled())) continue
    const label = (await control.textContent())!
    // These take hands away, call by themselves, or are a pass over the class, in which Enter is its end.
    if (/down|call next|Draw|Roll call|Signal round|Find/.test(label)) continue
    await control.click()
    await press('Escape', 'Escape')
    await expect(side.getByRole('navigation', { name: 'More' })).toBeVisible()
    // A name has to be seen before the next press is taken for the one behind it.
    await page.waitForTimeout(550)
    await press('Enter')
    await expect(last, `after ${label}`).toContainText('called, from the line')
    await press('Backspace')
    await expect(last).toContainText('put back')
    called++
  }
  expect(called).toBeGreaterThan(8)
})

test('Enter twice within a moment calls one, and goes on after it', async ({ live: { page, line, side, press } }) => {
  const before = await line.getByRole('listitem').count()
  await press('Enter')
  await page.waitForTimeout(150)
  await press('Enter')
  await expect(line.getByRole('listitem')).toHaveCount(before - 1)
  await page.waitForTimeout(550)
  await press('Enter')
  await expect(line.getByRole('listitem')).toHaveCount(before - 2)
  await expect(side.getByRole('heading', { level: 2 }).first()).not.toHaveText('Meenu Iyengar')
})

test('after going on teaching and after a stray Tab, keys do what they always do', async ({ live: { page, head, last, row, keyOf, press } }) => {
  await head.getByRole('button', { name: 'End', exact: true }).click()
  await page.getByRole('button', { name: 'Go on teaching' }).click()
  await expect(page.getByRole('dialog')).toBeHidden()
  await press('Enter')
  await expect(last).toContainText('called, from the line')
  await expect(page.getByRole('dialog')).toBeHidden()
  await press('Tab', await keyOf('Saga'), '0')
  await expect(row('Saga').getByRole('img', { name: /^nods/ })).toHaveAttribute('aria-label', 'nods 2')
})

test('a signal round begins by its key, with a statement in the plan or without one', async ({ live: { page, last, keyOf, press } }) => {
  for (let round = 0; round < 4; round++) {
    await press('F4', await keyOf('Juno'), 'Enter')
    await expect(last).toContainText('signal round')
    await expect(page.getByRole('region', { name: 'Signal round' })).toBeHidden()
  }
})

test('who has left keeps a hand in line, is not called, and is back with it', async ({ live: { side, line, row, keyOf, press } }) => {
  const first = line.getByRole('listitem').first()
  const name = (await first.getByRole('button', { name: /^Call / }).textContent())!.trim()
  await press(await keyOf(name), '3')
  await expect(first).toContainText('gone')
  await press('Enter')
  await expect(side.getByRole('heading', { level: 2 }).first()).not.toContainText(name)
  await expect(line.getByRole('listitem').first()).toContainText(name)
  await press(await keyOf(name), '1')
  await expect(line.getByRole('listitem').first()).not.toContainText('gone')
  await expect(row(name).first()).toBeVisible()
})

test('before the bell what makes sense then works, and of the rest it is said that the lesson has not begun', async ({ page }) => {
  // A lesson takes entries from an hour before its time on.
  const { classes } = await deskOf(page)
  const soon = new Date(Date.now() + 20 * 60_000).toISOString()
  await page.goto(`/classes/${classes[0].id}`)
  await page.getByRole('button', { name: 'Plan one' }).click()
  await page.getByLabel('What it is about').fill('By the lighthouse')
  await page.getByLabel('Day').fill(soon.slice(0, 10))
  await page.getByLabel('Starts').fill(soon.slice(11, 16))
  await page.getByRole('button', { name: 'Plan it' }).click()
  const line = page.getByRole('listitem').filter({ hasText: 'By the lighthouse' })
  const lesson = /lessons\/([^/]+)/.exec((await line.getByRole('link').first().getAttribute('href'))!)![1]
  await page.goto(`/lessons/${lesson}/live`)
  const live = new LiveWindow(page)
  await expect(live.sheet.getByRole('listitem').first()).toBeVisible()
  const key = (await live.sheet.locator('.who kbd').first().getAttribute('data-key'))!
  await live.press(key, '4')
  await expect(live.line.getByRole('listitem')).toHaveCount(1)
  await live.press(key, '6')
  await expect(live.side.getByText('The lesson has not begun.')).toBeVisible()
  await live.press('Escape', 'F2', 'Enter')
  await expect(live.last).toContainText('roll call')
  await live.stored()
  // Here already, and there for nothing of a lesson that is still to come.
  await expect(live.sheet.getByText('missing')).toHaveCount(0)
  await expect(live.sheet.locator('line.there')).toHaveCount(0)
  // What says so covers no row.
  const [note, last] = [page.getByText('This lesson has not begun.'), live.sheet.getByRole('listitem').last()]
  await last.scrollIntoViewIfNeeded()
  expect((await last.boundingBox())!.y + 20).toBeLessThan((await note.boundingBox())!.y)
  await live.press(key, '6')
  await expect(live.side.getByText('The lesson has not begun.')).toBeVisible()
  await page.getByRole('button', { name: 'Start it now' }).click()
  await expect(live.side.getByText('The lesson has not begun.')).toBeHidden()
})

test('lesson 13 is settled by keys alone from the drop to the register, and nothing is focused by hand', async ({ page, demoFile }) => {
  const { toSettle } = await deskOf(page)
  await page.goto(`/lessons/${toSettle[0].lesson.id}/settle`)
  const files = ['attendance-lesson-13.csv', 'chat-lesson-13.txt', 'answers-lesson-13.csv', 'captions-lesson-13.vtt', 'people-lesson-13.png']
  await page.locator('input[type=file]').setInputFiles(await Promise.all(files.map((name) => demoFile(name))))
  // A picture is read with the letters of all scripts in the class, which takes its time on a busy machine.
  for (const name of files) await expect(page.getByRole('button', { name: `Take out ${name}` })).toBeVisible({ timeout: 90_000 })
  const questions = page.getByRole('region', { name: /things? only you can know/ }).getByRole('listitem')
  await expect(questions.first()).toBeVisible()
  for (let left = await questions.count(); left > 0; left--) {
    const line = questions.and(page.locator(':focus'))
    await expect(line).toHaveCount(1)
    // What nothing is proposed for is answered by the first answer.
    await page.keyboard.press((await line.locator('.proposed').count()) ? 'Enter' : '1')
    await expect(questions).toHaveCount(left - 1)
  }
  await expect(page.getByRole('button', { name: 'Confirm and hand in' })).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(page.getByText('The register is handed in')).toBeVisible()
})
