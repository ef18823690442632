import { expect, type Locator } from '@playwright/test'
import { deskOf, prepare, test } from './school'
import { serious } from './serious'

// Questions as a teacher in a hurry asks them: to whom they go, blanks, what keeps one from opening, and what is on the board.
test.use({ contextOptions: { reducedMotion: 'reduce' } })

const openIt = (questions: Locator) => questions.getByRole('button', { name: /^Open it (F7|Enter)$/ })

test('what was typed into a blank outlives Esc, and the key on the button opens it from inside the field', async ({ live: { page, questions, press } }) => {
  await press('F7')
  await page.getByLabel('island', { exact: true }).fill('Nort')
  await press('Escape', 'Escape')
  await expect(questions).toHaveCount(0)
  await press('F7')
  await expect(page.getByLabel('island', { exact: true })).toHaveValue('Nort')
  await expect(page.getByLabel('other island')).toBeFocused()
  await page.keyboard.type('Westing')
  await press('F7')
  await expect(questions.getByRole('article', { name: /Nort or Westing/ })).toContainText('Open')
  await press('F7')
  await expect(questions.getByRole('button', { name: 'Ask again, as a copy' })).toBeVisible()
})

test('on the spot goes to the whole class, and says so, whatever group was asked last', async ({ live: { page, questions, press, makeGroups } }) => {
  await makeGroups()
  await press('Escape', 'F6')
  await questions.getByPlaceholder('Ask something').fill('Is it raining?')
  await questions.getByRole('combobox', { name: /on the spot/ }).selectOption('Group 2')
  await expect(questions.getByRole('button', { name: 'open it to Group 2' })).toBeVisible()
  await page.getByPlaceholder('Ask something').press('Enter')
  await expect(questions.getByRole('article', { name: 'Is it raining?' })).toContainText('Group 2')
  await press('0')
  await page.keyboard.type('Is it windy?')
  await expect(questions.getByRole('button', { name: 'open it to the whole class' })).toBeVisible()
  await press('Enter')
  await expect(questions.getByRole('article', { name: 'Is it windy?' })).toBeVisible()
  await expect(questions.getByRole('article', { name: 'Is it windy?' })).not.toContainText('Group')
})

test('a question prepared in another window is here at once; one for groups asks for which', async ({ live }) => {
  const { page, questions, press, makeGroups } = live
  await makeGroups()
  await press('Escape', 'F6')
  await prepare(page, live.lesson, { questions: [{ id: crypto.randomUUID(), kind: 'shortText', text: 'What will your island do?', audience: 'group' }] })
  await questions.getByRole('button', { name: 'What will your island do?' }).click()
  await press('Enter')
  const to = questions.getByRole('combobox', { name: 'To whom it goes' })
  await expect(to).toBeFocused()
  await expect(to).toHaveValue('ask')
  await to.selectOption('Group 1')
  await openIt(questions).click()
  await expect(questions.getByRole('article', { name: 'What will your island do?' })).toContainText('Group 1')
  // The others are still to get it: all of them by one press.
  await questions.getByRole('button', { name: /^What will your island do\?$/ }).click()
  await questions.getByRole('combobox', { name: 'To whom it goes' }).selectOption('each group')
  await openIt(questions).click()
  await expect(questions.getByRole('button', { name: /^What will your island do\?$/ })).toHaveCount(0)
  expect(await serious(page)).toEqual([])
})

test('why a question cannot be opened stands beside the button, and the words for a picture are written there', async ({ live }) => {
  const { page, questions, press } = live
  await press('F6')
  const { coming } = await deskOf(page)
  const fog = coming.find((l: { title: string }) => l.title === 'Fog and haar').id
  const { plan } = await (await page.request.get(`/api/lessons/${fog}/plan`)).json()
  const pictures = plan.questions.find((q: { kind: string }) => q.kind === 'pictureChoice')
  const options = pictures.options.map((o: object, i: number) => (i ? o : { ...o, id: crypto.randomUUID(), alternativeText: '' }))
  await prepare(page, live.lesson, { questions: [{ ...pictures, id: crypto.randomUUID(), text: 'Which cloud is it?', options }] })
  await questions.getByRole('button', { name: /^Which cloud is it\?/ }).click()
  await expect(openIt(questions)).toBeDisabled()
  await expect(questions.getByText('It cannot be opened yet: a picture has no words for those who cannot see it.')).toBeVisible()
  await expect(questions.locator('img').first()).toBeVisible()
  await questions.getByLabel('What picture 1 shows').fill('a flat grey bank over the pier')
  await press('Tab')
  await expect(openIt(questions)).toBeEnabled()
  await openIt(questions).click()
  await expect(questions.getByRole('article', { name: 'Which cloud is it?' })).toContainText('Open')
})

test('what is up on the board follows what is chosen; a timer is up as soon as it runs, unless it was unticked', async ({ live, context }) => {
  const { page, questions, press } = live
  const board = await context.newPage()
  await board.goto(`/lessons/${live.lesson}/board`)
  await page.bringToFront()
  await press('F6', '0')
  await page.keyboard.type('Is it windy?')
  await press('Enter', 'F7')
  await questions.getByRole('button', { name: 'Put on the board' }).click()
  await expect(board.getByText('Is it windy?')).toBeVisible()
  const state = async () => {
    const { askings } = await (await page.request.get(`/api/lessons/${live.lesson}/questions`)).json()
    return askings.find((a: { onBoard: object | null }) => a.onBoard)?.onBoard.holdBackFew
  }
  expect(await state()).toBe(false)
  await questions.getByLabel('counts under 3 held back').check()
  await expect.poll(state).toBe(true)
  await questions.getByRole('button', { name: 'Take off the board' }).click()

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
