import { expect } from '@playwright/test'
import { test, withProgram } from './school'
import { serious } from './serious'

// A lesson of the demo school taught with everything that stands beside the sheet.
test.use({ contextOptions: { reducedMotion: 'reduce' }, permissions: ['clipboard-read', 'clipboard-write'] })

test('the stage that is on, its time and its drift; the next by one key, more time by one press', async ({ live: { page, head, press } }) => {
  await expect(head).toContainText('From the line')
  await expect(head).toContainText(/\d+ min left, \d min behind/)
  const left = Number(/(\d+) min left,/.exec((await head.textContent())!)![1])
  await page.getByRole('button', { name: '+2 min for this stage' }).click()
  // A minute may end between reading and pressing.
  await expect(head).toContainText(new RegExp(`(${left + 2}|${left + 1}) min left`))
  await press('F8')
  await expect(head).toContainText('Looking back')
  await press('Backspace', 'Backspace')
  await expect(head).toContainText('From the line')
})

test('points to cover are ticked in the turn by a digit and stand with the student', async ({ live: { side, keyOf, press } }) => {
  await press('1')
  await expect(side.getByRole('button', { name: 'Where the wind came from' })).toHaveAttribute('aria-pressed', 'true')
  await press('6', await keyOf('Meenu'), '!')
  await expect(side).toContainText('covered: Where the wind came from')
  await expect(side).toContainText('not yet: Where it comes from now')
})

test('a name is drawn, and the draw says why; who cannot speak today is never drawn', async ({ live: { side, row, keyOf, press } }) => {
  await press(await keyOf('Saga'), '~')
  await expect(row('Saga')).toContainText('cannot speak')
  await press('\\')
  await expect(side).toContainText(/Drawn: (not heard yet today|heard \d times?, )/)
  await expect(side.getByRole('heading', { level: 2 }).first()).not.toHaveText('Saga Eriksdotter')
})

test('handing on gives the word to whom a student names', async ({ live: { side, line, row, keyOf, press, stored } }) => {
  await press('6')
  const first = (await line.getByRole('button', { name: /^Call / }).first().textContent())!.trim()
  await press('Enter')
  await expect(side.getByRole('heading', { name: first })).toBeVisible()
  const before = (await row(first).first().getByRole('img', { name: /^speaking/ }).getAttribute('aria-label'))!
  await press(await keyOf('Tiago'), '>')
  await expect(side).toContainText('Turn, handed on')
  await expect(side.getByRole('heading', { name: 'Tiago' })).toBeVisible()
  await expect(row(first).first().getByRole('img', { name: /^speaking/ })).not.toHaveAttribute('aria-label', before)
  await press('6')
  await stored()
})

test('a name at the door is settled by one press and by undo', async ({ live: { page, side, press } }) => {
  await press('`')
  await expect(side).toContainText('galaxy tab 7')
  await side.getByRole('combobox').fill('Tiag')
  await page.getByRole('option', { name: /Tiago/ }).click()
  await expect(side).toContainText('Everybody in the meeting is known')
  await page.locator('body').click({ position: { x: 640, y: 20 } })
  await press('Backspace')
  await expect(side).toContainText('galaxy tab 7')
  await side.getByRole('button', { name: 'not a student' }).click()
  await expect(side).toContainText('Everybody in the meeting is known')
})

test('the missing are written to, and attempts noted', async ({ live: { page, side, press } }) => {
  await press('PageUp')
  await expect(side).toContainText('Wojtek Grzelak')
  await expect(side).toContainText(/reached, \d+ \w+ sent/)
  await expect(side).toContainText('not seen in this lesson')
  // It is seen before it goes, and lying in the outbox is not sent.
  await side.getByRole('button', { name: 'write', exact: true }).first().click()
  await expect(side.getByRole('textbox', { name: 'Message' })).toHaveValue(/we miss you/)
  await side.getByRole('button', { name: 'Send it' }).click()
  await expect(side).toContainText('e-mail, in the outbox')
  await side.getByRole('button', { name: 'note an attempt' }).first().click()
  await side.getByRole('button', { name: 'reached' }).first().click()
  await expect(side).toContainText('call, reached')
  // That it goes is noted before it does.
  const outbox = async () => (await (await page.request.get('/api/outbox')).json()).filter((m: { text: string }) => m.text.includes('has begun'))
  await expect.poll(outbox).toHaveLength(1)
})

test('a message that speaks of a link the lesson lacks does not go before one is typed, and goes with it', async ({ live: { page, path, side, press } }) => {
  await page.goto(path.replace('/live', '/plan'))
  await page.getByRole('button', { name: 'change', exact: true }).click()
  await page.locator('input[type=url]').fill('')
  await page.getByRole('button', { name: 'Store', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Store', exact: true })).toBeHidden()
  await page.goto(path)
  await expect(side).toBeVisible()
  await press('PageUp')
  await side.getByRole('button', { name: 'write', exact: true }).first().click()
  await expect(side.getByText('This lesson has no link to its meeting')).toBeVisible()
  await side.getByRole('button', { name: 'Send it' }).click()
  await expect(side.getByRole('textbox', { name: 'Link to the meeting' })).toBeFocused()
  await side.getByRole('textbox', { name: 'Link to the meeting' }).fill('https://meet.skerrysound.example/fog')
  await side.getByRole('button', { name: 'Send it' }).click()
  await expect(side).toContainText('e-mail, in the outbox')
  const outbox = async () => (await (await page.request.get('/api/outbox')).json()).filter((m: { text: string }) => m.text.includes('https://meet.skerrysound.example/fog'))
  await expect.poll(outbox).toHaveLength(1)
})

test('somebody who was sent out is off the line and the draw until they are let back in, and why is an aside', async ({ live: { page, side, line, row, last, keyOf, press } }) => {
  const juno = await keyOf('Juno')
  await expect(line).toContainText('Juno')
  await press(juno, ';')
  await page.keyboard.type('played music')
  await press('Enter')
  await expect(last).toContainText('Juno, aside: played music')
  await expect(row('Juno')).toContainText('sent out')
  const outside = side.getByRole('region', { name: 'To be let back in' })
  await expect(outside).toContainText('Juno')
  await expect(line.getByRole('listitem').filter({ hasText: 'Juno' })).toContainText('gone')
  await press('Enter')
  await expect(side.getByRole('heading', { name: /Sipho/ })).toBeVisible()
  await outside.getByRole('button', { name: 'Let in' }).click()
  await expect(outside).toBeHidden()
  await expect(row('Juno')).not.toContainText('sent out')
  await expect(line.getByRole('listitem').filter({ hasText: 'Juno' })).not.toContainText('gone')
})

test('the chat is swept by keyboard, and what is hidden is gone', async ({ live: { page, row, press, stored } }) => {
  await press('F9')
  const chat = page.getByRole('region', { name: 'Sweep the chat' })
  await expect(chat.getByRole('listitem')).toHaveCount(6)
  await expect(chat.getByRole('listitem').first()).toContainText('question?')
  // All that is proposed by one press, and back by one undo.
  await chat.getByRole('button', { name: /^take all \d proposals/ }).click()
  await expect(chat.getByRole('button', { name: /^take all/ })).toHaveCount(0)
  await expect(chat.getByRole('listitem')).not.toHaveCount(6)
  await press('Backspace')
  await expect(chat.getByRole('listitem')).toHaveCount(6)
  await stored()
  await press('Enter')
  await expect(chat).toContainText('5 to sweep')
  await press('Enter')
  await press('2', '5')
  await expect(chat).toContainText('2 to sweep')
  await press('Delete')
  await expect(chat).toContainText('1 to sweep')
  await chat.getByRole('button', { name: /^all/ }).click()
  await expect(chat.getByText('lol')).toBeHidden()
  await chat.getByRole('button', { name: /open question/ }).click()
  await expect(chat.getByRole('listitem').filter({ hasText: 'so it veered' })).toHaveCount(1)
  await press('Escape')
  await expect(row('Nohea').getByRole('img', { name: 'chat 1' })).toBeVisible()
  await stored()
})

test('groups: at random, moved by keys and by dragging, a sit-in, a latecomer placed, dissolved and brought back', async ({ live: { page, press, stored } }) => {
  await press('PageDown')
  const groups = page.getByRole('region', { name: 'Groups' })
  await groups.getByLabel('How many').fill('5')
  await groups.getByRole('button', { name: 'Make at random' }).click()
  await expect(groups.getByRole('textbox', { name: /^Name of group/ })).toHaveCount(5)
  const list = (n: number) => groups.locator('.members').nth(n)
  await page.getByRole('heading', { name: 'Groups' }).click()

  const first = (await list(0).locator('.who').first().textContent())!.trim()
  await press((await list(0).locator('kbd').first().getAttribute('data-key'))!, '2')
  await expect(list(1)).toContainText(first)

  const dragged = list(2).locator('.member').first()
  const name = (await dragged.locator('.who').textContent())!.trim()
  const [from, to] = [(await dragged.boundingBox())!, (await list(3).boundingBox())!]
  await page.mouse.move(from.x + 60, from.y + 12)
  await page.mouse.down()
  await page.mouse.move(to.x + 60, to.y + 20, { steps: 12 })
  await page.mouse.move(to.x + 62, to.y + 24, { steps: 3 })
  await page.mouse.up()
  await expect(list(3)).toContainText(name)

  await groups.getByRole('button', { name: 'sit in' }).first().click()
  const member = list(0).locator('.member').first()
  await press((await member.locator('kbd').first().getAttribute('data-key'))!, '2')
  await expect(member.getByRole('button', { name: 'some' })).toHaveClass(/font-bold/)
  await groups.getByRole('button', { name: 'leave' }).click()

  await press(await keyOfInGroups('Cormac'), '0')
  await expect(groups.getByText('In no group')).toBeVisible()
  // The placing is stored, and the groups drawn anew, while a name is being typed: the typing stays.
  let letThrough = () => {}
  const typed = new Promise<void>((resolve) => (letThrough = resolve))
  await page.route('**/entries', async (route) => { await typed; await route.continue() })
  await groups.getByRole('button', { name: /^into Group/ }).first().click()
  await groups.getByRole('textbox', { name: 'Name of group 1' }).fill('Gulls')
  letThrough()
  await stored()
  await page.unroute('**/entries')
  await groups.getByRole('textbox', { name: 'Name of group 1' }).press('Enter')
  // One group more, of those who are chosen, and dissolved alone.
  await press((await list(1).locator('kbd').first().getAttribute('data-key'))!)
  await groups.getByRole('button', { name: 'another group' }).click()
  await expect(groups.getByRole('textbox', { name: /^Name of group/ })).toHaveCount(6)
  await expect(list(5).locator('.member')).toHaveCount(1)
  await groups.getByRole('button', { name: 'Take out Group 6' }).click()
  await expect(groups.getByRole('textbox', { name: /^Name of group/ })).toHaveCount(5)
  await groups.getByRole('button', { name: 'dissolve all' }).click()
  await expect(groups.getByRole('button', { name: 'Make at random' })).toBeVisible()
  await press('Backspace')
  await expect(groups.getByRole('textbox', { name: 'Name of group 1' })).toHaveValue('Gulls')
  await stored()

  async function keyOfInGroups(called: string) {
    return (await groups.locator('.member').filter({ hasText: called }).locator('kbd').first().getAttribute('data-key'))!
  }
})

test('a member is given the word before the class and is in their group afterwards', async ({ live: { page, side, row, press, makeGroups } }) => {
  const member = (await makeGroups()).locator('.member').filter({ hasNotText: /Rowan/ }).first()
  const called = (await member.locator('.who').textContent())!.trim()
  await member.hover()
  await member.getByRole('button', { name: /the word before the class/ }).click()
  await expect(side).toContainText('Group 1')
  await press('Escape', '6')
  // Not over a row, which would show its acts instead.
  await page.mouse.move(640, 795)
  await expect(row(called).first()).toContainText('Group 1')
})

test('students are judged by the rubric with a letter and a digit, several with one digit, and one press takes it back', async ({ live: { page, row, keyOf, press, last } }) => {
  await press('%')
  const panel = page.getByRole('region', { name: 'Rubric' })
  await press(await keyOf('Juno'), '1')
  await expect(panel.getByRole('button', { name: /and says whose it was/ })).toContainText('1')
  await expect(last).toContainText('Juno, a criterion marked')
  // The digit alone, with nobody chosen, is no tap of anybody's.
  await press('2')
  await expect(page.getByText('Choose somebody first')).toBeVisible()
  // How the turn went is said by the same keys as ever.
  await press('Enter', '7')
  await expect(last).toContainText('partial turn')
  await page.keyboard.press(await keyOf('Eino'))
  await page.keyboard.press(`Shift+${(await keyOf('Saga')).toUpperCase()}`)
  await press('2')
  await expect(panel).toContainText('Saga, Eino')
  await expect(row('Eino')).not.toContainText('late')
  await press('Backspace')
  await expect(panel).not.toContainText('Eino')
  await press('Escape')
  await expect(panel).toBeHidden()
})

test('a signal round: everyone as agreed, except', async ({ live: { page, side, row, keyOf, press } }) => {
  await press('F4')
  await side.getByLabel('Statement').fill('Fog is a cloud.')
  await side.getByRole('button', { name: /^As agreed/ }).click()
  await press(await keyOf('Tiago'))
  await expect(row('Tiago')).toContainText('no answer')
  await press('Enter')
  await expect(page.getByRole('contentinfo')).toContainText(/signal round, 24 of 25: Fog is a cloud\./)
})

test('the class board shows what is put up, in a window of its own and small in Live, and comes down by one press', async ({ live, context }) => {
  const { page, side, keyOf, press } = live
  const board = await context.newPage()
  await board.goto(live.path.replace('/live', '/board'))
  await expect(board.getByText('The board is empty.')).toBeVisible()
  await page.bringToFront()
  await press(await keyOf('Eino'), '4', 'End')
  for (const part of ['Stage and its time', 'Directions', 'Hand line']) await side.getByRole('button', { name: part }).click()
  await expect(board.getByText('Your island, your wind')).toBeVisible()
  await expect(board.getByText('Eino')).toBeVisible()
  await expect(board.getByText('Wojtek')).toHaveCount(0)
  await expect(board.getByRole('button')).toHaveCount(0)
  await expect(board.getByRole('link')).toHaveCount(0)
  await expect(page.getByRole('img', { name: 'The class board as the class sees it' })).toContainText('Your island')
  expect(await serious(board)).toEqual([])
  await side.getByRole('button', { name: 'Take everything down' }).click()
  await expect(board.getByText('The board is empty.')).toBeVisible()
})

test('time for a task runs on the board', async ({ live, context }) => {
  const { side, press } = live
  await press('Insert')
  await side.getByRole('textbox', { name: 'Task' }).fill('Read your glass')
  await side.getByRole('button', { name: '3 min', exact: true }).click()
  await expect(side.getByRole('timer')).toContainText(/2:5\d|3:00/)
  const board = await context.newPage()
  await board.goto(live.path.replace('/live', '/board'))
  await expect(board.getByText('Read your glass')).toBeVisible()
  await board.close()
  await side.getByRole('button', { name: 'end it' }).click()
})

test('an aside is noted without leaving the sheet', async ({ live: { page, side, keyOf, press } }) => {
  await press(await keyOf('Eino'), '#')
  await page.keyboard.type('spoke up by himself, say so')
  await press('Enter')
  await press(await keyOf('Eino'), '!')
  await expect(side).toContainText('spoke up by himself, say so')
})

test('a key can be changed, is kept by the account, and one that is taken is said', async ({ live: { page, side, head, press } }) => {
  await press('?')
  await side.getByRole('button', { name: 'Another key for next stage' }).click()
  await press('F9')
  await expect(side.getByRole('alert')).toContainText('sweep the chat')
  await side.getByRole('button', { name: 'Another key for next stage' }).click()
  await press('F10')
  const key = head.locator('kbd').last()
  await expect(key).toHaveAttribute('data-key', 'F10')
  await page.reload()
  await expect(key).toHaveAttribute('data-key', 'F10')
  await press('?')
  await side.getByRole('button', { name: 'All as they were' }).click()
  await expect(key).toHaveAttribute('data-key', 'F8')
})

test('a helper keeps the line and sweeps by a link, beside the teacher, and the link ends with being taken back', async ({ live: { page, side, line, press }, elsewhere }) => {
  await side.getByRole('button', { name: 'Helpers and meeting' }).click()
  await side.getByLabel('A link for a helper named').fill('Odhran')
  await side.getByRole('checkbox', { name: 'the hand line' }).check()
  await side.getByRole('button', { name: 'Make the link' }).click()
  const link = await side.getByLabel('Link', { exact: true }).inputValue()
  const helper = await elsewhere({ viewport: { width: 1000, height: 800 } })
  await helper.goto(link)
  await expect(helper.getByText('You help as Odhran')).toBeVisible()
  expect(await serious(helper)).toEqual([])
  await helper.getByRole('button', { name: /Çağla/ }).click()
  await expect(helper.getByRole('region', { name: 'Hand line' })).toContainText('Çağla')
  await press('Escape')
  await expect(line).toContainText('Çağla')
  await expect(page.getByRole('contentinfo')).toContainText('Çağla, hand up, Odhran')
  await line.getByRole('button', { name: 'Set down the hand of Çağla' }).click()
  await expect(helper.getByRole('region', { name: 'Hand line' })).not.toContainText('Çağla')
  await side.getByRole('button', { name: 'Helpers and meeting' }).click()
  await side.getByRole('button', { name: 'Take back the key of Odhran' }).click()
  await expect(side.getByRole('button', { name: 'Take back the key of Odhran' })).toHaveCount(0)
  await expect(helper.getByRole('alert')).toContainText('Thank you for helping')
  // A page whose link opens nothing any more asks no more, whatever goes on in the lesson.
  const asked: string[] = []
  helper.on('request', (r) => asked.push(r.url()))
  await press('Escape', 'Enter')
  await expect(page.getByText('all stored')).toBeVisible()
  await helper.evaluate(() => new Promise((frame) => requestAnimationFrame(frame)))
  expect(asked).toEqual([])
  await helper.reload()
  await expect(helper.getByRole('alert')).toContainText('Thank you for helping')
})

test('the gauge shows a level only while asked for', async ({ live: { side, press } }) => {
  await side.getByRole('button', { name: 'gauge' }).click()
  await expect(side.getByRole('meter')).toHaveCount(0)
  await side.getByRole('button', { name: 'simulated' }).click()
  await expect.poll(async () => Number(await side.getByRole('meter').getAttribute('aria-valuenow'))).toBeGreaterThan(3)
  await side.getByRole('button', { name: 'off', exact: true }).click()
  await expect(side.getByRole('meter')).toHaveCount(0)
})

// The meeting is played by a program beside it, which a process of its own finds.
withProgram('the demo meeting plays into the lesson: people, hands, messages, names at the door', async ({ live: { side, head, row, press } }) => {
  await side.getByRole('button', { name: 'Helpers and meeting' }).click()
  await side.getByRole('button', { name: '20 times faster' }).click()
  await expect(side).toContainText('Meeting last heard', { timeout: 30_000 })
  await press('Escape')
  await expect(side.getByRole('button', { name: /^Names at the door \d/ })).toBeVisible()
  await expect(side.getByRole('button', { name: /^Chat to sweep \d\d/ })).toBeVisible()
  await expect(row('Eino')).toContainText('dropout')
  // The end of the meeting: hands of the last minutes are in line, and most have left.
  await expect(head).toContainText(/\b[0-4] of 28 here/, { timeout: 120_000 })
  await press('`')
  await expect(side).not.toContainText('harbour-office-3')
})

test('nothing serious is found on any part of the live screen, in the light and in the dark', async ({ live: { page, side, press } }) => {
  test.setTimeout(240_000)
  for (const scheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme: scheme, reducedMotion: 'reduce' })
    for (const key of ['?', '`', 'PageUp', 'F4', 'Insert', 'End', 'F9', 'PageDown', 'F2']) {
      await press(key)
      await page.waitForLoadState('networkidle')
      expect(await serious(page, scheme === 'dark'), `${key}, ${scheme}`).toEqual([])
      await press('Escape', 'Escape')
    }
    await side.getByRole('button', { name: 'Helpers and meeting' }).click()
    expect(await serious(page, scheme === 'dark'), `helpers, ${scheme}`).toEqual([])
    await press('Escape')
  }
})

test('in half a window nothing runs out of the page, whatever is open', async ({ live: { page, press } }) => {
  for (const width of [640, 400]) {
    await page.setViewportSize({ width, height: 800 })
    for (const key of ['F9', 'PageDown', 'PageUp', 'End', '`', '?']) {
      await press(key)
      await page.waitForLoadState('networkidle')
      expect(await page.evaluate(() => document.documentElement.scrollWidth), `${key} at ${width}`).toBeLessThanOrEqual(width)
      await press('Escape', 'Escape')
    }
  }
})

test('what a screen reader hears on the sheet and in the line', async ({ live: { page, line, row } }) => {
  await expect(row('Juno').getByRole('button').first()).toHaveAccessibleName(/^Juno Quillfeather, \w+, key \S/)
  await expect(page.getByRole('list', { name: 'Sheet' })).toBeVisible()
  await expect(page.getByRole('navigation', { name: 'More' })).toBeVisible()
  await expect(line.getByRole('button', { name: /^Call / }).first()).toBeVisible()
  await expect(line.getByRole('button', { name: /^Set down the hand of / }).first()).toBeVisible()
})
