import { expect, test, type BrowserContext, type Page } from '@playwright/test'
import { Program } from './program'
import { serious } from './serious'

// Questions as a teacher in a hurry asks them: to whom they go, blanks, what keeps one from opening, and what is on the board.
const program = new Program()
let context: BrowserContext
let page: Page

test.describe.configure({ mode: 'serial' })
test.beforeAll(async ({ browser }) => {
  await program.start()
  context = await browser.newContext({ baseURL: program.address, viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' })
  page = await context.newPage()
  await page.goto('/sign-in')
  await page.getByRole('button', { name: /Look around/ }).click()
  await page.getByRole('link', { name: 'Go to it' }).click()
  await expect(page.getByRole('list', { name: 'Sheet' })).toBeVisible()
})
test.afterAll(() => program.remove())

const questions = () => page.getByRole('region', { name: 'Questions and answers' })
const openIt = () => questions().getByRole('button', { name: /^Open it (F7|Enter)$/ })
const press = async (...keys: string[]) => { for (const key of keys) await page.keyboard.press(key) }
const lesson = () => new URL(page.url()).pathname.split('/')[2]!

/** Adds questions to the plan of the lesson, as another window would. */
async function prepare(...added: object[]) {
  const path = `/api/lessons/${lesson()}/plan`
  const { plan, version } = await (await page.request.get(path)).json()
  const stored = await page.request.put(path, { data: { version, origin: plan, plan: { ...plan, questions: [...plan.questions, ...added] } } })
  expect(stored.ok(), await stored.text()).toBe(true)
}

test('what was typed into a blank outlives Esc, and the key on the button opens it from inside the field', async () => {
  await press('F7')
  await page.getByLabel('island', { exact: true }).fill('Nort')
  await press('Escape', 'Escape')
  await expect(questions()).toHaveCount(0)
  await press('F7')
  await expect(page.getByLabel('island', { exact: true })).toHaveValue('Nort')
  await expect(page.getByLabel('other island')).toBeFocused()
  await page.keyboard.type('Westing')
  await press('F7')
  await expect(questions().getByRole('article', { name: /Nort or Westing/ })).toContainText('Open')
  await press('F7')
  await expect(questions().getByRole('button', { name: 'Ask again, as a copy' })).toBeVisible()
})

test('on the spot goes to the whole class, and says so, whatever group was asked last', async () => {
  await press('Escape', 'PageDown')
  await page.getByRole('button', { name: 'At random' }).click()
  await press('Escape', 'F6')
  await questions().getByPlaceholder('Ask something').fill('Is it raining?')
  await questions().getByRole('combobox', { name: /on the spot/ }).selectOption('Group 2')
  await expect(questions().getByRole('button', { name: 'open it to Group 2' })).toBeVisible()
  await page.getByPlaceholder('Ask something').press('Enter')
  await expect(questions().getByRole('article', { name: 'Is it raining?' })).toContainText('Group 2')
  await press('0')
  await page.keyboard.type('Is it windy?')
  await expect(questions().getByRole('button', { name: 'open it to the whole class' })).toBeVisible()
  await press('Enter')
  await expect(questions().getByRole('article', { name: 'Is it windy?' })).toBeVisible()
  await expect(questions().getByRole('article', { name: 'Is it windy?' })).not.toContainText('Group')
  await press('F7', 'F7')
})

test('a question prepared in another window is here at once; one for groups asks for which', async () => {
  await prepare({ id: crypto.randomUUID(), kind: 'shortText', text: 'What will your island do?', audience: 'group' })
  await questions().getByRole('button', { name: 'What will your island do?' }).click()
  await press('Enter')
  const to = questions().getByRole('combobox', { name: 'To whom it goes' })
  await expect(to).toBeFocused()
  await expect(to).toHaveValue('ask')
  await to.selectOption('Group 1')
  await openIt().click()
  await expect(questions().getByRole('article', { name: 'What will your island do?' })).toContainText('Group 1')
  // The others are still to get it: all of them by one press.
  await questions().getByRole('button', { name: /^What will your island do\?$/ }).click()
  await questions().getByRole('combobox', { name: 'To whom it goes' }).selectOption('each group')
  await openIt().click()
  await expect(questions().getByRole('button', { name: /^What will your island do\?$/ })).toHaveCount(0)
  expect(await serious(page)).toEqual([])
})

test('why a question cannot be opened stands beside the button, and the words for a picture are written there', async () => {
  const { coming } = await (await page.request.get('/api/desk')).json()
  const fog = coming.find((l: { title: string }) => l.title === 'Fog and haar').id
  const { plan } = await (await page.request.get(`/api/lessons/${fog}/plan`)).json()
  const pictures = plan.questions.find((q: { kind: string }) => q.kind === 'pictureChoice')
  const options = pictures.options.map((o: object, i: number) => (i ? o : { ...o, id: crypto.randomUUID(), alternativeText: '' }))
  await prepare({ ...pictures, id: crypto.randomUUID(), text: 'Which cloud is it?', options })
  await questions().getByRole('button', { name: /^Which cloud is it\?/ }).click()
  await expect(openIt()).toBeDisabled()
  await expect(questions().getByText('It cannot be opened yet: a picture has no words for those who cannot see it.')).toBeVisible()
  await expect(questions().locator('img').first()).toBeVisible()
  await questions().getByLabel('What picture 1 shows').fill('a flat grey bank over the pier')
  await press('Tab')
  await expect(openIt()).toBeEnabled()
  await openIt().click()
  await expect(questions().getByRole('article', { name: 'Which cloud is it?' })).toContainText('Open')
  await press('F7')
})

test('what is up on the board follows what is chosen; a timer is up as soon as it runs, unless it was unticked', async () => {
  const board = await context.newPage()
  await board.goto(`/lessons/${lesson()}/board`)
  await page.bringToFront()
  await questions().getByRole('button', { name: /Is it windy/ }).click()
  await questions().getByRole('button', { name: 'Put on the board' }).click()
  await expect(board.getByText('Is it windy?')).toBeVisible()
  const state = async () => {
    const { askings } = await (await page.request.get(`/api/lessons/${lesson()}/questions`)).json()
    return askings.find((a: { onBoard: object | null }) => a.onBoard)?.onBoard.holdBackFew
  }
  expect(await state()).toBe(false)
  await questions().getByLabel('counts under 3 held back').check()
  await expect.poll(state).toBe(true)
  await questions().getByRole('button', { name: 'Take off the board' }).click()

  await press('Escape', 'Insert')
  await page.getByRole('button', { name: '3 min', exact: true }).click()
  await expect(board.getByText('Your task')).toBeVisible()
  await page.getByRole('button', { name: 'End it' }).click()
  await page.getByRole('button', { name: 'Undo' }).click()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(board.getByText('Your task')).toHaveCount(0)
  await page.getByLabel('on the class board').uncheck()
  await page.getByRole('button', { name: '3 min', exact: true }).click()
  await expect(page.getByRole('button', { name: 'On the board', exact: true })).toBeVisible()
})
