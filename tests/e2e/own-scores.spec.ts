import { readFileSync } from 'node:fs'
import { expect } from '@playwright/test'
import { deskOf, test } from './school'
import { serious } from './serious'

// A student reads their own scores on the page of a lesson, says that something is wrong, and is answered.
const passes = Object.fromEntries(
  readFileSync(new URL('../../demo/passes.csv', import.meta.url), 'utf8').trim().split('\n').slice(1).map((line) => line.split(',').slice(0, 2)),
)

test('a student says that an entry is wrong; the teacher looks at it, puts it right and answers', async ({ page, elsewhere }) => {
  const { objections } = await deskOf(page)
  const { lesson } = objections[0]
  const code = (await (await page.request.get(`/api/lessons/${lesson.id}/way-in`)).json()).code
  const student = await elsewhere({ viewport: { width: 360, height: 740 } })
  await student.goto(`/p/${code}`)
  await student.getByLabel('Your pass').fill(passes.S1002!)
  await student.getByLabel('Your pass').press('Enter')
  // By keyboard alone, from asking for the scores to telling what is wrong.
  await student.getByRole('button', { name: 'Show them to me' }).press('Enter')
  const mine = student.locator('details', { hasText: lesson.title })
  await mine.locator('summary').press('Enter')
  await expect(mine.getByText('You spoke once.')).toBeVisible()
  await expect(mine.getByText('full turn', { exact: true })).toBeVisible()
  expect(await serious(student)).toEqual([])
  await mine.locator('.noted', { hasText: 'full turn' }).getByRole('button').press('Enter')
  await mine.getByRole('textbox', { name: 'What is wrong with “full turn”?' }).fill('that was Eino')
  await mine.getByRole('button', { name: 'Tell them' }).press('Enter')
  await expect(mine.getByText('Your teacher has it')).toBeVisible()

  await page.goto('/')
  const waits = page.getByRole('listitem').filter({ hasText: 'Birkir thinks that a score is wrong' })
  await expect(waits).toContainText('Of “full turn”: that was Eino')
  await waits.getByRole('link', { name: 'look at the score' }).click()
  const why = page.getByRole('complementary')
  await expect(why.locator('.doubted')).toContainText('full turn')
  await why.getByText('Put it right by hand').click()
  await why.getByLabel('What is put right').selectOption('leave a strand out')
  await why.getByLabel('Why it is put right').fill('taken for another')
  await why.getByRole('button', { name: 'Put it right' }).click()
  await expect(why.getByText('speaking left out by hand: taken for another').first()).toBeVisible()
  await why.getByRole('button', { name: 'Answer', exact: true }).click()
  await why.getByRole('textbox', { name: 'Your answer to Birkir' }).fill('You are right, thank you.')
  await why.getByRole('textbox', { name: 'Your answer to Birkir' }).press('Control+Enter')
  await expect(why.getByText('Birkir reads your answer')).toBeVisible()

  await student.getByRole('button', { name: 'Put them away' }).click()
  await student.getByRole('button', { name: 'Show them to me' }).click()
  await mine.locator('summary').click()
  await expect(mine.getByText('Your teacher answered: You are right, thank you.')).toBeVisible()
  await expect(mine.getByText('Your teacher left this out: taken for another')).toBeVisible()
})

test('an answer from the desk can be taken back, and the desk is free of faults for those who cannot see it', async ({ page }) => {
  await page.goto('/')
  const waits = page.getByRole('listitem').filter({ hasText: 'Zainab thinks that a score is wrong' })
  await waits.getByRole('button', { name: 'Answer' }).click()
  await page.keyboard.type('I shall listen to it again.')
  expect(await serious(page)).toEqual([])
  await waits.getByRole('button', { name: 'Answer' }).click()
  await expect(page.getByText('Zainab reads your answer')).toBeVisible()
  await expect(waits).toBeHidden()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(waits).toBeVisible()
})
