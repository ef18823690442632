import { expect, type Page } from '@playwright/test'
import { botany, classOf, done, prepare, say, test, weather, withProgram } from './school'

// A lesson to come, prepared: its plan, its questions, two windows on it, the word ahead.
test.use({ school: 'account' })
withProgram.use({ school: 'account' })

const stored = (page: Page) => expect(page.getByRole('status').filter({ hasText: 'all stored' })).toBeVisible()

/** Plans a lesson of a new class, 38 minutes long, and opens its plan. */
async function openPlan(page: Page, stages = ['Arriving', 'Looking back', 'Readings'], name = weather) {
  const id = await classOf(page, name)
  const day = new Date(Date.now() + 3 * 86_400_000).toISOString().slice(0, 10)
  const lesson = await done<{ id: string }>(page, 'POST', `/api/classes/${id}/lessons/planned`, {
    title: name.split(',')[0], day, time: '10:00', minutes: 38, dropIn: false, meetingLink: null, cancelled: false,
  })
  await prepare(page, lesson.id, { stages: stages.map((stage) => ({ id: crypto.randomUUID(), name: stage, minutes: 10, directions: '' })) })
  await page.goto(`/lessons/${lesson.id}/plan`)
  await expect(page.getByText('Is it ready?')).toBeVisible()
}

test('a plan is written, reordered by keys and by dragging, and says what is missing', async ({ page }) => {
  await openPlan(page, [])
  for (const name of ['Arriving', 'Readings', 'Looking back']) {
    await page.getByRole('button', { name: 'Add a stage' }).click()
    await page.keyboard.type(name)
  }
  await stored(page)
  const names = () => page.getByLabel(/^Name of stage/).evaluateAll((inputs) => inputs.map((i) => (i as HTMLInputElement).value))
  await page.getByRole('button', { name: /^Move stage 3/ }).focus()
  await page.keyboard.press('Alt+ArrowUp')
  expect(await names()).toEqual(['Arriving', 'Looking back', 'Readings'])
  await page.getByRole('button', { name: /^Move stage 3/ }).dragTo(page.getByRole('button', { name: /^Move stage 1/ }), { targetPosition: { x: 5, y: 2 } })
  await expect.poll(names).toEqual(['Readings', 'Arriving', 'Looking back'])
  await stored(page)
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect.poll(names).toEqual(['Arriving', 'Looking back', 'Readings'])

  await page.getByLabel('Minutes of stage 1').fill('60')
  await expect(page.getByText('22 too many', { exact: false }).or(page.getByText('too many')).first()).toBeVisible()
  await page.getByLabel('Minutes of stage 1').fill('10')
  await page.getByRole('button', { name: 'add directions' }).first().click()
  await page.getByLabel('Directions of stage 1').fill('Read the dial **twice**')
  await expect(page.locator('.prose strong')).toHaveText('twice')
  await stored(page)
})

test('questions are prepared as a student will see them', async ({ page }) => {
  await openPlan(page, [])
  await page.getByRole('button', { name: 'Add a question' }).click()
  await page.getByLabel('Question 1', { exact: true }).fill('Which reading do you trust more?')
  await page.getByLabel('Option 1', { exact: true }).fill('{the first reading}')
  const card = page.getByRole('group', { name: 'As a student sees it' })
  await expect(card.locator('.blank')).toHaveText('the first reading')
  await page.getByRole('combobox', { name: 'Purpose' }).selectOption('quiz')
  await expect(page.getByText('Question 1: an option is empty.')).toBeVisible()
  await page.getByLabel('Option 2', { exact: true }).fill('neither')
  await expect(page.getByText('Question 1: exactly one option must be marked as right.')).toBeVisible()
  await page.getByLabel('right', { exact: true }).first().check()
  await expect(page.getByText('Question 1: exactly one')).toHaveCount(0)

  await page.getByRole('combobox', { name: 'Kind' }).selectOption('picture choice')
  await page.getByLabel('Picture of option 1').setInputFiles({ name: 'cloud.png', mimeType: 'image/png', buffer: Buffer.from('not a picture') })
  await expect(page.getByRole('alert')).toContainText('not a picture')
  const png = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==', 'base64')
  for (const n of [1, 2]) {
    await page.getByLabel(`Picture of option ${n}`).setInputFiles({ name: 'cloud.png', mimeType: 'image/png', buffer: png })
    await page.getByLabel(`What picture ${n} shows`).fill(`cloud ${n}`)
  }
  await expect(card.getByRole('img', { name: 'cloud 2' })).toBeVisible()
  await page.getByRole('combobox', { name: 'Kind' }).selectOption('single choice')
  await page.getByRole('button', { name: 'Keep question 1 on the shelf' }).click()
  await say(page, 'on your shelf')
  await page.getByRole('button', { name: 'From the shelf' }).click()
  await page.getByRole('button', { name: 'use it' }).click()
  await expect(page.getByRole('list', { name: 'Questions' }).getByRole('listitem').filter({ hasText: 'single choice' })).toHaveCount(2)
  await stored(page)
})

test('of two windows the second is told, and neither loses anything', async ({ page, context }) => {
  await openPlan(page)
  const second = await context.newPage()
  await second.goto(page.url())
  await expect(second.getByLabel('Name of stage 1')).toHaveValue('Arriving')
  await page.getByLabel('Name of stage 1').fill('Coming in')
  await stored(page)
  await second.getByLabel('Name of stage 2').fill('What stays')
  await expect(second.getByText('Another window changed this plan meanwhile')).toBeVisible()
  await expect(second.getByLabel('Name of stage 1')).toHaveValue('Coming in')
  await second.getByLabel('Name of stage 1').fill('Hello')
  await stored(second)
  await page.getByLabel('Name of stage 1').fill('Good morning')
  await expect(page.getByText('yours stands, and the other is here')).toBeVisible()
  await expect(page.getByText('“Hello”')).toBeVisible()
  await expect(page.getByLabel('Name of stage 2')).toHaveValue('What stays')
})

test('what is typed while a change is on its way stays when it is brought together with another', async ({ page, context }) => {
  await openPlan(page)
  const second = await context.newPage()
  await second.goto(page.url())
  await second.getByLabel('Minutes of stage 2').fill('12')
  await stored(second)
  let release = () => {}
  const held = new Promise<void>((done) => (release = done))
  await page.route('**/plan', async (route) => (await held, route.continue()), { times: 1 })
  const sent = page.waitForRequest((r) => r.method() === 'PUT')
  await page.getByLabel('Name of stage 1').fill('Good evening')
  await sent
  await page.getByLabel('Name of stage 1').fill('Good evening, all')
  release()
  await stored(page)
  await page.reload()
  await expect(page.getByLabel('Name of stage 1')).toHaveValue('Good evening, all')
  await expect(page.getByLabel('Minutes of stage 2')).toHaveValue('12')
})

withProgram('with the server gone what is written is kept, through a closed tab', async ({ page, context, program }) => {
  await openPlan(page)
  await program.kill()
  await page.getByLabel('Name of stage 3').fill('Readings, twice')
  await expect(page.getByText('no connection: kept here')).toBeVisible()
  const address = page.url()
  await page.close()
  await program.start()
  const again = await context.newPage()
  await again.goto(address)
  await expect(again.getByLabel('Name of stage 3')).toHaveValue('Readings, twice')
  await stored(again)
  await again.reload()
  await expect(again.getByLabel('Name of stage 3')).toHaveValue('Readings, twice')
})

test('word ahead is seen beforehand, sent, and lies in the outbox', async ({ page }) => {
  await openPlan(page)
  await page.getByRole('button', { name: 'How it reads' }).click()
  await page.getByRole('complementary').getByRole('combobox', { name: 'For' }).selectOption({ label: 'Pip Farrow' })
  await expect(page.getByText('Hello Pip,')).toBeVisible()
  await page.getByRole('button', { name: 'Send it now' }).click()
  await expect(page.getByText('Went to 28 students.')).toBeVisible()
  await page.getByRole('link', { name: 'Outbox', exact: true }).click()
  await expect(page.getByRole('listitem')).toHaveCount(28)
  await page.getByRole('button', { name: /Weather and Tides/ }).first().click()
  await expect(page.getByText('See you there,')).toBeVisible()
})

test('the plan is copied to another class and taken along as a file', async ({ page }) => {
  await openPlan(page)
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Take it as a file' }).click()])
  const file = await download.path()
  await openPlan(page, [], botany)
  await page.getByRole('button', { name: 'Copy the plan of another lesson' }).click()
  await page.getByLabel('Class to copy from').selectOption('Weather and Tides, year 8')
  await page.getByRole('button', { name: 'copy', exact: true }).click()
  await say(page, 'is copied here')
  await expect(page.getByLabel('Name of stage 3')).toHaveValue('Readings')
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click()
  await expect(page.getByLabel(/^Name of stage/)).toHaveCount(0)
  await page.getByLabel('Bring in a plan file').setInputFiles(file)
  await say(page, 'is brought in')
  await expect(page.getByLabel('Name of stage 3')).toHaveValue('Readings')
  await page.getByLabel('Bring in a plan file').setInputFiles({ name: 'x.json', mimeType: 'application/json', buffer: Buffer.from('{"format":') })
  await expect(page.getByRole('alert')).toContainText('not a plan file')
  await expect(page.getByLabel('Name of stage 3')).toHaveValue('Readings')
})
