import { expect, type Fixtures, type Locator, type Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { LiveWindow } from './live-window'
import { type AtHand, deskOf, liveLesson, prepare, test as schools, withProgram as programs } from './school'
import { serious } from './serious'
import { cutLine, slowLine } from './slow-line'

// Questions to the class, and the page on which students answer them: a teacher, a board, and students on devices of their own.
const passes = Object.fromEntries(
  readFileSync(new URL('../../demo/passes.csv', import.meta.url), 'utf8').trim().split('\n').slice(1).map((line) => line.split(',').slice(0, 2)),
)
const [juno, birkir, ify] = [passes.S1020, passes.S1002, passes.S1001]

const phone = { viewport: { width: 360, height: 740 } }
async function comeIn(page: Page, code: string, pass: string) {
  await page.goto(`/p/${code}`)
  await page.getByLabel('Your pass').fill(pass)
  await page.getByRole('button', { name: 'Come in' }).click()
  await expect(page.getByRole('heading', { name: 'Why the wind backs' })).toBeVisible()
}

interface Class {
  /** The code that the class comes in by. */
  code: string
  /** The page of Birkir, who has come in. */
  student: Page
}
const inClass: Fixtures<Class, object, Pick<AtHand, 'elsewhere'> & { page: Page }> = {
  code: async ({ page }, use) => use((await (await page.request.get(`/api/lessons/${await liveLesson(page)}/way-in`)).json()).code),
  student: async ({ elsewhere, code }, use) => {
    const page = await elsewhere(phone)
    await comeIn(page, code, birkir!)
    await use(page)
  },
}
const test = schools.extend<Class>(inClass)
const withProgram = programs.extend<Class>(inClass)
for (const one of [test, withProgram]) one.use({ contextOptions: { reducedMotion: 'reduce' } })

/** The questions of a lesson to come. */
async function prepared(page: Page) {
  const { coming } = await deskOf(page)
  const id = coming.find((l: { title: string }) => l.title === 'Fog and haar').id
  return (await (await page.request.get(`/api/lessons/${id}/plan`)).json()).plan.questions
}

/** Opens a prepared question, has it answered on a page, and closes it. */
async function ask({ questions, press }: LiveWindow, page: Page, question: string, answer: (on: Locator) => Promise<unknown>, said: string) {
  // The one that is looked at is opened, not the first that waits.
  await questions.getByRole('button', { name: question }).first().click()
  await press('F7')
  const asked = page.locator('article.open').filter({ hasText: question })
  await answer(asked)
  await asked.getByRole('button', { name: 'Answer', exact: true }).click()
  await expect(page.getByRole('article').filter({ hasText: question })).toContainText(new RegExp(`Answered: .*${said}`))
  await expect(questions.getByText('1 answered', { exact: true })).toBeVisible()
  await press('F7')
  await expect(questions.getByRole('button', { name: 'Ask again, as a copy' })).toBeVisible()
}

test('the way in is copied as a sentence and goes on the board with a code for a camera', async ({ live: { page: teacher, path }, code, served, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  await teacher.getByRole('button', { name: 'Student page' }).click()
  const panel = teacher.getByRole('region', { name: 'Student page' })
  await panel.getByRole('button', { name: 'Copy for the chat' }).click()
  const sentence = await teacher.evaluate(() => navigator.clipboard.readText())
  expect(sentence).toContain(`${served.address}/p/${code}`)
  await panel.getByRole('button', { name: 'on the board' }).click()
  const board = await context.newPage()
  await board.goto(path.replace('/live', '/board'))
  await expect(board.getByText(code)).toBeVisible()
  await expect(board.getByAltText('The address as a code for a camera')).toBeVisible()
})

test('a student comes in, by keyboard alone, and raises a hand that stands in the line', async ({ live: { line }, code, elsewhere }) => {
  const student = await elsewhere(phone)
  await student.goto(`/p/${code}`)
  await student.getByLabel('Your pass').waitFor()
  expect(await serious(student)).toEqual([])
  await student.keyboard.press('Tab')
  await student.keyboard.type('no such pass')
  await student.keyboard.press('Enter')
  await expect(student.getByRole('alert')).toContainText('does not open this lesson')
  await student.getByLabel('Your pass').focus()
  await student.keyboard.type(birkir!)
  await student.keyboard.press('Enter')
  await expect(student.getByText('Birkir')).toBeVisible()
  await student.getByRole('button', { name: 'Raise your hand' }).focus()
  await student.keyboard.press('Enter')
  await expect(student.getByText(/Your hand is up:\s+\d\w\w\s+of\s+\d/)).toBeVisible()
  await expect(line).toContainText('Birkir')
  await student.keyboard.press('Tab')
  await student.getByRole('button', { name: 'Take it down' }).press('Enter')
  await expect(line).not.toContainText('Birkir')
})

test('whoever has the word hands on to another, if the class allows it', async ({ live: { page: teacher, sheet }, student }) => {
  await sheet.getByText('Birkir', { exact: true }).click()
  await teacher.keyboard.press('5')
  await expect(student.getByText('It is your turn.')).toBeVisible()
  const next = (await student.getByLabel('Hand on to').locator('option').allTextContents()).at(-1)!
  await student.getByLabel('Hand on to').selectOption(next)
  await student.getByRole('button', { name: 'Hand on' }).click()
  await expect(student.getByText('It is your turn.')).toBeHidden()
  await expect(teacher.locator('section.turn')).toContainText(next.split(' ')[0]!)
})

test('one key opens the next question, its blanks filled in first; the answer is a stroke; one key closes it', async ({ live: { page: teacher, questions }, student }) => {
  await teacher.keyboard.press('F7')
  await teacher.getByLabel('island', { exact: true }).fill('Nort')
  await teacher.getByLabel('other island').fill('Westing')
  await teacher.keyboard.press('Enter')
  const asked = student.getByRole('article').filter({ hasText: 'Nort or Westing' })
  // By keyboard: into the choices, down by one, and on.
  await asked.getByLabel('Nort', { exact: true }).focus()
  await student.keyboard.press('Space')
  await student.keyboard.press('ArrowDown')
  await student.keyboard.press('Enter')
  await expect(asked.getByText('Answered: Westing.')).toBeVisible()
  await expect(questions.getByText('1 answered', { exact: true })).toBeVisible()
  expect(await serious(student)).toEqual([])
  expect(await serious(teacher)).toEqual([])
  await teacher.keyboard.press('F7')
  await expect(questions.getByRole('button', { name: 'Ask again, as a copy' })).toBeVisible()
  await expect(student.getByRole('region', { name: 'Questions before' })).toContainText('Nort or Westing')
  await teacher.keyboard.press('F6')
  await expect(teacher.getByRole('listitem').filter({ hasText: 'Birkir' }).getByRole('img', { name: 'questions 1.5' })).toBeVisible()
})

test('results are on the board when they were put there, and a name only if it was chosen', async ({ live, student, context }) => {
  const { page: teacher, questions } = live
  await prepare(teacher, live.lesson, { questions: await prepared(teacher) })
  await teacher.keyboard.press('F6')
  await ask(live, student, 'Fog is a cloud.', (on) => on.getByLabel('true').check(), 'true')
  const board = await context.newPage()
  await board.goto(live.path.replace('/live', '/board'))
  await teacher.bringToFront()
  await expect(board.getByText('The board is empty.')).toBeVisible()
  await questions.getByRole('button', { name: 'Put on the board' }).click()
  await expect(board.getByText('Fog is a cloud.')).toBeVisible()
  await expect(board.getByText('Birkir')).toHaveCount(0)
  // A name that is chosen while taking them off is still on its way must not put them up again.
  const mendLine = await cutLine(teacher)
  await questions.getByRole('button', { name: 'Take off the board' }).click()
  await questions.getByRole('button', { name: 'with a name' }).click()
  await questions.getByLabel('Show the answer of Birkir with their name').check()
  await mendLine()
  await expect(board.getByText('The board is empty.')).toBeVisible()
  await questions.getByRole('button', { name: 'Put on the board' }).click()
  await expect(board.getByText('Birkir')).toBeVisible()
})

test('a nod is before the class by one press more, for a moment, and on one’s own page at once', async ({ live: { page: teacher, press, keyOf, path }, student, context }) => {
  const board = await context.newPage()
  await board.goto(path.replace('/live', '/board'))
  const nods = board.getByRole('region', { name: 'Nods' })
  await teacher.bringToFront()
  await press(await keyOf('Birkir'), '0')
  await expect(student.getByText('A nod for you: helped someone.')).toBeVisible()
  await expect(nods).toBeHidden()
  await teacher.getByRole('button', { name: /^Show the class/ }).click()
  await expect(nods).toHaveText('Birkir helped someone')
  await expect(teacher.getByRole('button', { name: /^Show the class/ })).toBeHidden()
  await expect(nods).toBeHidden({ timeout: 20_000 })
  // By keys, and taken back again.
  await press(await keyOf('Saga'), '+', '&')
  await expect(nods).toHaveText('Saga kept going')
  await expect(student.getByText('Saga')).toBeHidden()
  await press('Backspace')
  await expect(nods).toBeHidden({ timeout: 4000 })
})

test('a question made on the spot is open in seconds; who cannot answer says so', async ({ live: { page: teacher, questions }, student }) => {
  await teacher.keyboard.press('F6')
  await teacher.keyboard.press('0')
  await teacher.keyboard.type('Did the ferry sail?')
  await teacher.keyboard.press('Enter')
  const asked = student.getByRole('article').filter({ hasText: 'Did the ferry sail?' })
  await asked.getByRole('button', { name: /can.t do this on my device/ }).click()
  await expect(asked.getByText('It does not count for you')).toBeVisible()
  await expect(questions.getByText('1 cannot', { exact: true })).toBeVisible()
})

test('without a connection what a student does is kept, and goes out by itself', async ({ live: { line }, student }) => {
  await student.context().setOffline(true)
  await student.getByRole('button', { name: 'Raise your hand' }).click()
  await expect(student.getByText('What you do is kept')).toBeVisible()
  await expect(student.getByText('Your hand goes up…')).toBeVisible()
  await student.getByLabel('Write to your teacher').fill('the ferry sails')
  await student.getByRole('button', { name: 'Send' }).click()
  await expect(student.getByText('question, on its way')).toBeVisible()
  await student.context().setOffline(false)
  await expect(line).toContainText('Birkir', { timeout: 15_000 })
  await expect(student.getByText(/Your hand is up/)).toBeVisible()
  await expect(student.getByText('question, between you two')).toBeVisible()
  await expect(student.getByText('on its way')).toBeHidden()
})

test('whoever asks not to be called is proposed as such, whatever kind they chose, and is off the call by one press', async ({ live: { page: teacher, row, press }, student }) => {
  await student.getByLabel('Write to your teacher').fill('please do not call me today, my voice is gone')
  await student.getByRole('button', { name: 'Send' }).click()
  await expect(student.getByText('between you two')).toBeVisible()
  await press('F9')
  const chat = teacher.getByRole('region', { name: 'Sweep the chat' })
  const message = chat.getByRole('listitem').filter({ hasText: 'my voice is gone' })
  await expect(message).toContainText('cannot speak?')
  // It is none of those that are taken by one press.
  await press('+')
  await expect(message).toBeVisible()
  await message.click()
  await press('Enter')
  await expect(message).toBeHidden()
  await press('Escape')
  await expect(row('Birkir')).toContainText('cannot speak')
})

test('a message is between two until the teacher shows it', async ({ live: { page: teacher }, student, code, elsewhere }) => {
  const other = await elsewhere({ viewport: { width: 640, height: 740 } })
  await comeIn(other, code, ify!)
  await student.getByLabel('Write to your teacher').fill('Is backing turning back?')
  await student.getByRole('button', { name: 'Send' }).click()
  await expect(student.getByText('between you two')).toBeVisible()
  await teacher.keyboard.press('F9')
  const chat = teacher.getByRole('region', { name: 'Sweep the chat' })
  await chat.getByText('Is backing turning back?').first().click()
  await teacher.keyboard.press('6')
  await expect(other.getByRole('region', { name: 'Said in class' })).toContainText('Is backing turning back?')
})

test('every kind of question is answered on the page, and what came of it is drawn', async ({ live, student }) => {
  await prepare(live.page, live.lesson, { questions: await prepared(live.page) })
  await live.press('F6')
  const answers: [question: string, answer: (on: Locator) => Promise<unknown>, said: string][] = [
    ['What does haar need?', async (on) => { await on.getByRole('checkbox').nth(0).check(); await on.getByRole('checkbox').nth(1).check() }, /, /.source],
    ['Fog is a cloud.', (on) => on.getByLabel('true').check(), 'true'],
    ['How sure are you that there will be haar', (on) => on.getByLabel('4').check(), '4'],
    ['how many degrees apart', (on) => on.getByLabel('A number').fill('1,5'), '1.5'],
    ['What do we call sea fog', (on) => on.getByLabel('A few words').fill('the haar'), 'the haar'],
    ['Put these in order', (on) => on.getByRole('button', { name: /up$/ }).nth(1).press('Enter'), ' then '],
    ['Words for weather', async (on) => { await on.getByLabel(/^Word 1/).fill('haar'); await on.getByLabel(/^Word 2/).fill('sea fog') }, 'haar, sea fog'],
    ['Which of these could lie', (on) => on.getByRole('radio').nth(1).check(), 'B'],
  ]
  for (const [question, answer, said] of answers) await ask(live, student, question, answer, said)
  expect(await serious(student)).toEqual([])
})

test('a key is corrected, and what changed is said; asked again, before stands beside after', async ({ live, student }) => {
  const { page: teacher, questions, press } = live
  await prepare(teacher, live.lesson, { questions: await prepared(teacher) })
  await press('F6')
  await ask(live, student, 'Fog is a cloud.', (on) => on.getByLabel('true').check(), 'true')
  await questions.getByRole('button', { name: 'correct the key' }).click()
  await questions.getByRole('radio', { name: 'false' }).check()
  await questions.getByRole('button', { name: 'Mark anew' }).click()
  await expect(questions.getByText('Birkir 1 → 0')).toBeVisible()
  await questions.getByRole('button', { name: 'Ask again, as a copy' }).click()
  await expect(questions.getByText('Before', { exact: true })).toBeVisible()
  await expect(questions.getByText('After', { exact: true })).toBeVisible()
  expect(await serious(teacher)).toEqual([])
})

withProgram('a server that was killed loses no answer, and the page goes on by itself', async ({ live: { page: teacher, questions }, student, program }) => {
  await teacher.keyboard.press('F6')
  await teacher.keyboard.press('0')
  await teacher.keyboard.type('Is it raining where you are?')
  await teacher.keyboard.press('Enter')
  const asked = student.getByRole('article').filter({ hasText: 'Is it raining' })
  await asked.getByLabel('yes').check()
  await asked.getByRole('button', { name: 'Answer', exact: true }).click()
  await expect(asked.getByText('Answered: yes.')).toBeVisible()
  await program.kill()
  await program.start()
  await expect(questions.getByText('1 answered', { exact: true })).toBeVisible()
  await asked.getByRole('button', { name: 'change it' }).click()
  await asked.getByLabel('no', { exact: true }).check()
  await asked.getByRole('button', { name: 'Answer', exact: true }).click()
  await expect(asked.getByText('Answered: no.')).toBeVisible()
})

withProgram('an answer without a name that a killed server forgot is sent again by the page that gave it, and counts when the question closes', async ({ live: { page: teacher, questions, lesson }, student, program }) => {
  const fog = (await prepared(teacher)).find((q: { text: string }) => q.text.includes('Fog is a cloud'))
  const options = fog.options.map((o: { text: string }) => ({ id: crypto.randomUUID(), text: o.text }))
  await prepare(teacher, lesson, { questions: [{ id: crypto.randomUUID(), kind: fog.kind, purpose: 'poll', text: 'Did you sleep well?', options, anonymous: true }] })
  await teacher.keyboard.press('F6')
  await questions.getByRole('button', { name: 'Did you sleep well?' }).first().click()
  await teacher.keyboard.press('F7')
  const asked = student.getByRole('article').filter({ hasText: 'Did you sleep well?' })
  const state = questions.getByRole('article', { name: 'Did you sleep well?' }).getByRole('status')
  await asked.getByLabel('true').check()
  await asked.getByRole('button', { name: 'Answer', exact: true }).click()
  await expect(asked.getByText('counted when the question closes')).toBeVisible()
  await expect(state).toContainText('Open, poll, anonymous. 1 answer')
  await program.kill()
  await program.start()
  await expect(asked.getByText('On its way')).toBeHidden({ timeout: 30_000 })
  await expect(state).toContainText('Open, poll, anonymous. 1 answer', { timeout: 30_000 })
  await teacher.keyboard.press('F7')
  await expect(state).toContainText('Closed, poll, anonymous. 1 answer')
  await expect(asked.getByText(/^Answered/)).toBeVisible()
})

test('the page weighs under 100 kB and works on a line with 400 ms of delay that loses a twentieth', async ({ code, served, elsewhere }) => {
  const line = await slowLine(served.address, 400, 0.05)
  const page = await elsewhere({ ...phone, baseURL: line.address })
  const network = await page.context().newCDPSession(page)
  await network.send('Network.enable')
  let bytes = 0
  let fonts = 0
  network.on('Network.loadingFinished', (e) => (bytes += e.encodedDataLength))
  network.on('Network.responseReceived', (e) => (fonts += e.type === 'Font' ? 1 : 0))
  await comeIn(page, code, juno!)
  expect(bytes).toBeGreaterThan(20_000)
  expect(bytes).toBeLessThan(100_000)
  expect(fonts).toBe(0)
  await page.getByRole('button', { name: 'Take it down' }).click()
  await expect(page.getByRole('button', { name: 'Raise your hand' })).toBeVisible()
  await page.getByRole('button', { name: 'Raise your hand' }).click()
  await expect(page.getByText(/Your hand is up/)).toBeVisible()
  await page.emulateMedia({ colorScheme: 'dark' })
  expect(await serious(page)).toEqual([])
  await page.context().close()
  line.close()
})

test('on a line that breaks off while the page is loaded, it comes all the same', async ({ code, served, elsewhere }) => {
  test.setTimeout(400_000)
  const line = await slowLine(served.address, 10, 0, 0.2)
  const load = async (number: number) => {
    const page = await elsewhere({ ...phone, baseURL: line.address })
    // A browser shows a page of its own if it gets nothing at all: whoever is there loads again.
    await expect(() => page.goto(`/p/${code}`)).toPass()
    await expect(page.getByLabel('Your pass'), `load ${number}`).toBeVisible({ timeout: 60_000 })
    await page.context().close()
  }
  for (let first = 0; first < 50; first += 5) await Promise.all([0, 1, 2, 3, 4].map((i) => load(first + i)))
  line.close()
})

test('the window of the teacher comes on such a line too', async ({ served, elsewhere }) => {
  test.setTimeout(200_000)
  const line = await slowLine(served.address, 10, 0, 0.2)
  for (let load = 0; load < 10; load++) {
    const page = await elsewhere({ baseURL: line.address })
    await expect(() => page.goto('/sign-in')).toPass()
    await expect(page.getByRole('button', { name: /Look around/ }), `load ${load}`).toBeVisible({ timeout: 60_000 })
  }
  line.close()
})

test('a page that the teacher ended asks for the pass again', async ({ live: { page: teacher }, student }) => {
  await teacher.keyboard.press('F6')
  await teacher.getByRole('button', { name: /^Student page/ }).click()
  await teacher.getByRole('button', { name: /^End the page of Birkir/ }).click()
  await expect(student.getByRole('heading', { name: 'Come in' })).toBeVisible({ timeout: 15_000 })
})
