import { expect, type Page } from '@playwright/test'
import { deskOf, test } from './school'

// After a lesson: what other programs saved is dropped, only what they cannot agree on is asked, and the register goes to the school.

const questions = (page: Page) => page.getByRole('region', { name: /things? only you can know/ })

/** The page on which lesson 13 is settled, with its files dropped together. */
async function dropped(page: Page, files: { name: string; mimeType: string; buffer: Buffer }[]) {
  const { toSettle } = await deskOf(page)
  await page.goto(`/lessons/${toSettle[0].lesson.id}/settle`)
  await page.locator('input[type=file]').setInputFiles(files)
  // A picture is read with the letters of all scripts in the class, which takes its time on a busy machine.
  for (const { name } of files)
    await expect(page.getByRole('button', { name: `Take out ${name}` })).toBeVisible({ timeout: 90_000 })
}

const five = ['attendance-lesson-13.csv', 'chat-lesson-13.txt', 'answers-lesson-13.csv', 'captions-lesson-13.vtt', 'people-lesson-13.png']

test('lesson 13 is settled by keys alone with the five files that wait for it, and handed in', async ({ page, demoFile }) => {
  await dropped(page, await Promise.all(five.map((name) => demoFile(name))))
  await expect(page.getByText('clock 40 s ahead, by 23 joins')).toBeVisible()
  await expect(page.getByText('clock right, by 9 messages')).toBeVisible()
  await expect(page.getByText(/clock 1 min 5\d s behind, by \d+ turns/)).toBeVisible()
  await expect(page.getByText('9 known already', { exact: true })).toBeVisible()
  // What was answered on the page stands in the form as well.
  await expect(page.getByText('23 known already')).toBeVisible()
  await expect(page.getByText('29 names, 09:55')).toBeVisible()

  let presses = 0
  const press = async (key: string, left: number) => {
    presses++
    await page.keyboard.press(key)
    await expect(questions(page).getByRole('listitem')).toHaveCount(left)
  }
  const asked = (about: string) => questions(page).getByRole('listitem', { name: about })
  // Names that the picture has a little otherwise are of people whom the list has there: nothing is asked of them.
  await expect(questions(page).getByRole('listitem')).toHaveCount(7)
  await asked('Guest 4417').focus()
  await press('1', 6)
  await asked('Odhran Pike').focus()
  await press('1', 5)
  await expect(asked('Birkir')).toContainText('you: present')
  await asked('Birkir').focus()
  await press('Enter', 4)
  await expect(page.getByRole('row', { name: /^Birkir/ })).toContainText('8 min late')
  await expect(asked('Juno')).toContainText('spoke for 41 s')
  await questions(page).getByRole('button', { name: 'take all 2 proposals of turns' }).focus()
  await press('Enter', 2)
  await expect(asked('Dewi Suharto')).toContainText('the file: about twelve and a half hours')
  await asked('Dewi Suharto').focus()
  await press('Enter', 1)
  await asked('messages').focus()
  await press('Enter', 0)
  await expect(page.getByText('28 on the roster · 25 present · 2 late · 1 excused')).toBeVisible()
  await page.getByRole('button', { name: 'Confirm and hand in' }).press('Enter')
  presses++
  await expect(page.getByText('The register is handed in')).toBeVisible()
  expect(presses, 'docs/interface.md says so').toBe(7)
})

test('a file taken out leaves nothing behind and comes back by one press; a clock is set by hand', async ({ page, demoFile }) => {
  await dropped(page, [await demoFile('attendance-lesson-13.csv')])
  const asked = questions(page).getByRole('listitem', { name: 'Birkir' })
  await expect(asked).toContainText('late, 8 min')
  await page.getByRole('button', { name: 'Take out attendance-lesson-13.csv' }).click()
  await expect(page.getByText('taken out: it counts for nothing')).toBeVisible()
  await expect(questions(page)).toHaveCount(0)
  await page.getByRole('button', { name: 'Put back attendance-lesson-13.csv' }).click()
  await expect(asked).toContainText('late, 8 min')

  await page.getByRole('button', { name: 'Set the clock of attendance-lesson-13.csv' }).click()
  await page.getByLabel('Seconds ahead of the lesson').fill('-60')
  await page.getByRole('button', { name: 'Set', exact: true }).click()
  await expect(page.getByText('clock 1 min behind, set by you')).toBeVisible()
  await page.getByRole('button', { name: 'take back', exact: true }).click()
  await expect(page.getByText('clock 40 s ahead, by 23 joins')).toBeVisible()
})

test('a register from taps alone is one press; put right later it is handed in again with the reason', async ({ page }) => {
  const { toSettle } = await deskOf(page)
  await page.goto(`/lessons/${toSettle[0].lesson.id}/settle`)
  await expect(page.getByText(/register (due by|overdue since)/)).toBeVisible()
  await page.getByRole('button', { name: 'Confirm and hand in' }).click()
  await expect(page.getByText('The register is handed in')).toBeVisible()

  await page.getByRole('button', { name: 'open it again' }).click()
  await page.getByRole('row', { name: /^Birkir/ }).getByRole('button', { name: /late/ }).click()
  await expect(page.getByRole('row', { name: /^Birkir/ })).toContainText('late')
  await page.getByRole('button', { name: 'Confirm the register' }).click()
  await expect(page.getByText('1 change since:')).toContainText('Birkir Árnason: late')
  const amend = page.getByRole('button', { name: 'Hand in the amendment' })
  await expect(amend).toBeDisabled()
  await page.getByLabel('Why it is amended').fill('he came with the second boat')
  await amend.click()
  await expect(page.getByText('1 change since:')).toHaveCount(0)
  await expect(page.getByText('The register is handed in')).toBeVisible()
})

test('a lesson that was held without the sheet is settled from files alone', async ({ page }) => {
  const { classes } = await deskOf(page)
  const day = new Date(Date.now() - 2 * 86_400_000).toISOString().slice(0, 10)
  await page.goto(`/classes/${classes[0].id}`)
  await page.getByRole('button', { name: 'Plan one' }).click()
  await page.getByLabel('What it is about').fill('By the lighthouse')
  await page.getByLabel('Day').fill(day)
  await page.getByLabel('Starts').fill('13:30')
  await page.getByRole('button', { name: 'Plan it' }).click()
  const line = page.getByRole('listitem').filter({ hasText: 'By the lighthouse' })
  await expect(line).toContainText('not begun')
  await line.getByRole('link').click()
  await page.getByRole('button', { name: 'It was held, 13:30 to 14:20' }).click()

  const file = (name: string, text: string) => ({ name, mimeType: 'text/plain', buffer: Buffer.from(text) })
  await page.locator('input[type=file]').setInputFiles([
    file('list.csv', `Name,Joined,Left\nJuno Quillfeather,${day} 13:29:00,${day} 13:41:00\nJuno Quillfeather,${day} 13:52:00,${day} 14:21:00\nEino Rautio,${day} 13:31:00,${day} 14:20:00\n`),
    file('chat.txt', '13:33:10  Eino Rautio to Everyone: what is a neap tide?\n13:42:55  Juno Quillfeather to Everyone: when sun and moon stand crosswise\n13:55:00  Eino Rautio to Everyone: thanks\n'),
  ])
  const asked = questions(page).getByRole('listitem', { name: 'Juno Quillfeather' })
  await expect(asked).toContainText('the list: away from 13:41 to 13:52')
  await asked.focus()
  await page.keyboard.press('1')
  await expect(asked).toHaveCount(0)
  await expect(page.getByRole('row', { name: /^Juno/ })).toContainText('present for 39 of 50 min')
  await page.getByRole('button', { name: 'take back' }).click()
  await asked.focus()
  await page.keyboard.press('2')
  await expect(page.getByRole('row', { name: /^Juno/ })).not.toContainText('dropout')
  await page.getByRole('button', { name: 'Confirm and hand in' }).click()
  await expect(page.getByText('The register is handed in')).toBeVisible()
})

test('the files in a mail are brought in, and nothing else of the mail', async ({ page, demoFile }) => {
  const { toSettle } = await deskOf(page)
  const { name, buffer } = await demoFile('attendance-lesson-13.csv')
  const mail = (subject: string) => [
    'From: Meetings <meetings@skerrysound.example>',
    'To: Tamsin Vale <tamsin@skerrysound.example>',
    `Subject: ${subject}`,
    'MIME-Version: 1.0',
    'Content-Type: multipart/mixed; boundary=tide',
    '',
    '--tide',
    'Content-Type: text/plain',
    '',
    'Here is the list of today.',
    '--tide',
    `Content-Type: text/csv; name=${name}`,
    `Content-Disposition: attachment; filename=${name}`,
    'Content-Transfer-Encoding: base64',
    '',
    buffer.toString('base64').replace(/.{76}/g, '$&\r\n'),
    '--tide--',
  ]
  await page.goto(`/lessons/${toSettle[0].lesson.id}/settle`)
  await page.locator('input[type=file]').setInputFiles([
    { name: 'list.eml', mimeType: 'message/rfc822', buffer: Buffer.from(mail('Tides in the sound').join('\r\n')) },
    { name: 'older.eml', mimeType: 'message/rfc822', buffer: Buffer.from(mail('High and low pressure').join('\r\n')) },
    { name: 'empty.zip', mimeType: 'application/zip', buffer: Buffer.from('PK\x05\x06' + '\0'.repeat(18), 'latin1') },
  ])
  await expect(page.getByRole('button', { name: `Take out ${name}` })).toBeVisible()
  await expect(page.getByText('No files are in this mail or archive.')).toBeVisible()
  await expect(page.getByText('list.eml')).toHaveCount(0)
  // The subject of the other is the title of the lesson before: what is in it waits for a word.
  await expect(page.getByText('older.eml seems to be about lesson 12 of Weather and Tides')).toBeVisible()
  await page.getByRole('button', { name: 'Bring in here' }).click()
  await expect(page.getByText('is in already, and all of it is known')).toBeVisible()
})

test('a file that is in already is said to be known', async ({ page, demoFile }) => {
  const list = await demoFile('attendance-lesson-13.csv')
  await dropped(page, [list])
  await page.locator('input[type=file]').setInputFiles({ ...list, name: 'the same again.csv' })
  const known = page.getByText('the same again.csv is in already, and all of it is known.')
  await expect(known).toBeVisible()
  await page.getByRole('button', { name: 'Leave it' }).click()
  await expect(known).toHaveCount(0)
})

test('of a file that nobody knows one line is marked by hand, and the others are read like that one', async ({ page }) => {
  await dropped(page, [])
  const text = 'Tide diary, Monday\n7 ~ Juno Quillfeather ~ swell\n8 ~ Pip Farrow ~ ebb\n11 ~ Saga Eriksdotter ~ flood\n'
  await page.locator('input[type=file]').setInputFiles({ name: 'diary.txt', mimeType: 'text/plain', buffer: Buffer.from(text) })
  await expect(page.getByText('What this file tells is not known')).toBeVisible()
  const lines = page.getByRole('textbox', { name: /Select the name/ })
  const mark = async (part: string, as: string) => {
    await lines.evaluate((area: HTMLTextAreaElement, part) => {
      const at = area.value.indexOf(part)
      area.setSelectionRange(at, at + part.length)
    }, part)
    await page.getByRole('button', { name: as, exact: true }).click()
  }
  await mark('diary, Monday\n7', 'Name')
  await expect(page.getByText('Select a part of one line first.')).toBeVisible()
  await mark('Juno Quillfeather', 'Name')
  await mark('swell', 'Answer')
  await page.getByRole('button', { name: 'Read the file like this' }).click()
  await expect(page.getByText('diary.txt: answers, 3 rows')).toBeVisible()
  await page.getByRole('button', { name: 'Bring it in so' }).click()
  await expect(page.getByRole('button', { name: 'Take out diary.txt' })).toBeVisible()

  // The next one of this layout is read like this one, until that is forgotten.
  const next = { name: 'next.txt', mimeType: 'text/plain', buffer: Buffer.from('1 ~ Pip Farrow ~ neap tide\n2 ~ Juno Quillfeather ~ ebb\n') }
  await page.locator('input[type=file]').setInputFiles(next)
  await expect(page.getByText('next.txt: answers, 2 rows')).toBeVisible()
  await expect(page.getByText(/Read like “diary.txt” of/)).toBeVisible()
  await page.getByRole('button', { name: 'Read anew' }).click()
  await expect(page.getByText('What this file tells is not known')).toBeVisible()
  await page.getByRole('button', { name: 'Leave it' }).click()
  await page.getByRole('link', { name: 'Weather and Tides, year 8' }).click()
  await page.getByRole('button', { name: 'Forget the layout of diary.txt' }).click()
  await expect(page.getByText('A file like “diary.txt” is asked about again.')).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Known layouts' })).toHaveCount(0)
})

test('a file of another lesson is said with the lesson that it fits, and nothing of it is stored', async ({ page }) => {
  const { toSettle } = await deskOf(page)
  await page.goto(`/lessons/${toSettle[0].lesson.id}/settle`)
  const buffer = Buffer.from('Name,Joined,Left\nJuno Quillfeather,2019-03-04 09:30:00,2019-03-04 10:20:00\n')
  await page.locator('input[type=file]').setInputFiles({ name: 'other.csv', mimeType: 'text/csv', buffer })
  await expect(page.getByText('None of its times lie in this lesson')).toBeVisible()
  await page.getByRole('button', { name: 'Leave it' }).click()
  await expect(page.getByText('other.csv')).toHaveCount(0)
  await expect(page.getByRole('button', { name: /^Take out/ })).toHaveCount(0)
})

test('whoever is missing is called and excused; names that are pasted are a roll call of the moment that is said', async ({ page }) => {
  const { toSettle } = await deskOf(page)
  await page.goto(`/lessons/${toSettle[0].lesson.id}/settle`)
  const missing = page.getByRole('region', { name: 'To be reached' })
  await expect(missing.getByRole('listitem')).toHaveCount(1)
  await missing.getByRole('button', { name: 'Note what came of it with Eino Rautio' }).click()
  await missing.getByLabel('What was said').fill('his line is down')
  await missing.getByText('call:').getByRole('button', { name: 'no answer' }).click()
  await expect(missing).toContainText('call, no answer his line is down')

  await page.getByText('or paste it').click()
  await page.getByRole('textbox', { name: 'A chat, a list of names' }).fill('People (3)\nEino Rautio\nAnahit Petrosyan\nBirkir Árnason\n')
  await page.getByRole('button', { name: 'Take it', exact: true }).click()
  await page.getByLabel('at', { exact: true }).fill('09:50')
  await page.getByRole('button', { name: 'It was then' }).click()
  await expect(page.getByText('3 names, 09:50')).toBeVisible()
  await expect(page.getByRole('row', { name: /^Eino/ })).not.toContainText('nothing was noted')
  // He came after all, and what was tried stays.
  await expect(missing).toContainText('came after all')
})

test('what two sources tell is parted and joined by hand, and taken back', async ({ page, demoFile }) => {
  await dropped(page, [await demoFile('chat-lesson-13.txt')])
  await expect(page.getByText('9 known already', { exact: true })).toBeVisible()
  await page.getByText('what several sources tell').click()
  await expect(page.getByText('9 acts told more than once, counted once')).toBeVisible()
  await page.getByRole('button', { name: /^they are two/ }).first().click()
  await expect(page.getByText('8 acts told more than once, counted once')).toBeVisible()
  await expect(page.getByText('1 pair too far apart to be taken for one')).toBeVisible()
  await page.getByRole('button', { name: /^they are one/ }).click()
  await expect(page.getByText('9 acts told more than once, counted once')).toBeVisible()
  await page.getByRole('button', { name: 'take back', exact: true }).click()
  await expect(page.getByText('8 acts told more than once, counted once')).toBeVisible()
})

test('a question that the plan has not is asked about, and has the key that is chosen', async ({ page }) => {
  const { toSettle } = await deskOf(page)
  await page.goto(`/lessons/${toSettle[0].lesson.id}/settle`)
  const buffer = Buffer.from('Your name,Is the sound deep?\nJuno Quillfeather,yes\nBirkir Árnason,no\nKensa Tremayne,yes\n')
  await page.locator('input[type=file]').setInputFiles({ name: 'deep.csv', mimeType: 'text/csv', buffer })
  await expect(page.getByText('is like no question of the plan')).toBeVisible()
  await page.getByLabel('What is right in “Is the sound deep?”').selectOption('yes')
  await page.getByRole('button', { name: 'Bring it in so' }).click()
  await expect(page.getByRole('button', { name: 'Take out deep.csv' })).toBeVisible()
  await expect(page.getByText('3 rows', { exact: false }).first()).toBeVisible()
})

test('while settling, students are judged by the rubric with two keys, several at once, and the last press is taken back', async ({ page }) => {
  const { toSettle } = await deskOf(page)
  await page.goto(`/lessons/${toSettle[0].lesson.id}/settle`)
  await page.getByText('Judge by the rubric').click()
  const level = (who: string, name: string) => page.getByRole('button', { name: `${who}: ${name}` })
  // The first press is still on its way when the second comes.
  let arrive!: () => void
  const held = new Promise<void>((done) => (arrive = done))
  await page.route('**/entries', async (route) => (await held, route.continue()), { times: 1 })
  await page.getByRole('checkbox', { name: 'Ify' }).focus()
  await page.keyboard.press('1')
  // The next one is on already; what is ticked goes before it.
  await expect(page.getByRole('checkbox', { name: 'Birkir' })).toBeFocused()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press(' ')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press(' ')
  await page.keyboard.press('3')
  arrive()
  await expect(level('Ify', 'and says whose it was')).toHaveAttribute('aria-pressed', 'true')
  await expect(level('Cormac', 'not yet')).toHaveAttribute('aria-pressed', 'true')
  await expect(level('Rowan B', 'not yet')).toHaveAttribute('aria-pressed', 'true')
  await page.getByRole('button', { name: 'take back', exact: true }).click()
  await expect(level('Cormac', 'not yet')).toHaveAttribute('aria-pressed', 'false')
  await expect(level('Ify', 'and says whose it was')).toHaveAttribute('aria-pressed', 'true')
})
