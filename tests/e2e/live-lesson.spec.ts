import { expect, test, type BrowserContext, type Page } from '@playwright/test'
import { Program } from './program'
import { serious } from './serious'

// A lesson of the demo school taught with everything that stands beside the sheet.
const program = new Program()
let context: BrowserContext
let page: Page
let live = ''

test.describe.configure({ mode: 'serial' })
test.beforeAll(async ({ browser }) => {
  await program.start()
  context = await browser.newContext({ baseURL: program.address, viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce', permissions: ['clipboard-read', 'clipboard-write'] })
  page = await context.newPage()
  await page.goto('/sign-in')
  await page.getByRole('button', { name: /Look around/ }).click()
  await page.getByRole('link', { name: 'Go to it' }).click()
  await expect(page.getByRole('heading', { name: 'Meenu Iyengar' })).toBeVisible()
  live = new URL(page.url()).pathname
})
test.afterAll(() => program.remove())

const row = (name: string, p = page) => p.getByRole('list', { name: 'Sheet' }).getByRole('listitem').filter({ hasText: name })
const keyOf = async (name: string) => (await row(name).locator('kbd').first().getAttribute('data-key'))!
const side = () => page.getByRole('complementary', { name: 'Turn and hand line' })
const line = () => page.getByRole('region', { name: 'Hand line' })
const stored = (p = page) => expect(p.getByText('all stored')).toBeVisible()
const press = async (...keys: string[]) => { for (const key of keys) await page.keyboard.press(key) }

test('the stage that is on, its time and its drift; the next by one key, more time by one press', async () => {
  const head = page.getByRole('banner')
  await expect(head).toContainText('From the line')
  await expect(head).toContainText(/\d+ min left, \d min behind/)
  const left = Number(/(\d+) min left,/.exec((await head.textContent())!)![1])
  await page.getByRole('button', { name: '+2 min for this stage' }).click()
  await expect(head).toContainText(`${left + 2} min left`)
  await press('F8')
  await expect(head).toContainText('Looking back')
  await press('Backspace', 'Backspace')
  await expect(head).toContainText('From the line')
})

test('points to cover are ticked in the turn by a digit and stand with the student', async () => {
  await press('1')
  await expect(side().getByRole('button', { name: 'Where the wind came from' })).toHaveAttribute('aria-pressed', 'true')
  await press('6', await keyOf('Meenu'), '!')
  await expect(side()).toContainText('covered: Where the wind came from')
  await expect(side()).toContainText('not yet: Where it comes from now')
  await press('Escape', 'Escape')
})

test('a name is drawn, and the draw says why; who cannot speak today is never drawn', async () => {
  await press(await keyOf('Saga'), '~')
  await expect(row('Saga')).toContainText('cannot speak')
  await press('\\')
  await expect(side()).toContainText(/Drawn: (not heard yet today|heard \d times?, )/)
  await expect(side().getByRole('heading', { level: 2 }).first()).not.toHaveText('Saga Eriksdotter')
  await press('9')
})

test('handing on gives the word to whom a student names', async () => {
  const first = (await line().getByRole('button', { name: /^Call / }).first().textContent())!.trim()
  await press('Enter')
  await expect(side().getByRole('heading', { name: first })).toBeVisible()
  const before = (await row(first).first().getByRole('img', { name: /^speaking/ }).getAttribute('aria-label'))!
  await press(await keyOf('Tiago'), '>')
  await expect(side()).toContainText('Turn, handed on')
  await expect(side().getByRole('heading', { name: 'Tiago' })).toBeVisible()
  await expect(row(first).first().getByRole('img', { name: /^speaking/ })).not.toHaveAttribute('aria-label', before)
  await press('6')
  await stored()
})

test('a name at the door is settled by one press and by undo', async () => {
  await press('`')
  await expect(side()).toContainText('galaxy tab 7')
  await side().getByRole('combobox').fill('Tiag')
  await page.getByRole('option', { name: /Tiago/ }).click()
  await expect(side()).toContainText('Everybody in the meeting is known')
  await page.locator('body').click({ position: { x: 640, y: 20 } })
  await press('Backspace')
  await expect(side()).toContainText('galaxy tab 7')
  await side().getByRole('button', { name: 'not a student' }).click()
  await expect(side()).toContainText('Everybody in the meeting is known')
  await press('Escape')
})

test('the missing are written to, and attempts noted', async () => {
  await press('PageUp')
  await expect(side()).toContainText('Wojtek Grzelak')
  await expect(side()).toContainText(/reached, \d+ \w+ sent/)
  await expect(side()).toContainText('not seen in this lesson')
  // It is seen before it goes, and lying in the outbox is not sent.
  await side().getByRole('button', { name: 'write', exact: true }).first().click()
  await expect(side().getByRole('textbox', { name: 'Message' })).toHaveValue(/we miss you/)
  await side().getByRole('button', { name: 'Send it' }).click()
  await expect(side()).toContainText('e-mail, in the outbox')
  await side().getByRole('button', { name: 'note an attempt' }).first().click()
  await side().getByRole('button', { name: 'reached' }).first().click()
  await expect(side()).toContainText('call, reached')
  const outbox = await (await page.request.get('/api/outbox')).json()
  expect(outbox.filter((m: { text: string }) => m.text.includes('has begun'))).toHaveLength(1)
  await press('Escape')
})

test('the chat is swept by keyboard, and what is hidden is gone', async () => {
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

test('groups: at random, moved by keys and by dragging, a sit-in, a latecomer placed, dissolved and brought back', async () => {
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
  await press('Escape')
  await stored()

  async function keyOfInGroups(called: string) {
    return (await groups.locator('.member').filter({ hasText: called }).locator('kbd').first().getAttribute('data-key'))!
  }
})

test('a member is given the word before the class and is in their group afterwards', async () => {
  await press('PageDown')
  // Saga cannot speak today, and that is what stands beside her; of Ximena turns are counted later.
  const member = page.getByRole('region', { name: 'Groups' }).locator('.member').filter({ hasNotText: /Saga|Rowan|Ximena/ }).first()
  const called = (await member.locator('.who').textContent())!.trim()
  await member.hover()
  await member.getByRole('button', { name: /the word before the class/ }).click()
  await expect(side()).toContainText('Gulls')
  await press('Escape', '6')
  // Not over a row, which would show its acts instead.
  await page.mouse.move(640, 795)
  await expect(row(called).first()).toContainText('Gulls')
})

test('a signal round: everyone as agreed, except', async () => {
  await press('F4')
  await side().getByLabel('Statement').fill('Fog is a cloud.')
  await side().getByRole('button', { name: /^As agreed/ }).click()
  await press(await keyOf('Tiago'))
  await expect(row('Tiago')).toContainText('no answer')
  await press('Enter')
  await expect(page.getByRole('contentinfo')).toContainText(/signal round, 24 of 25: Fog is a cloud\./)
})

test('the class board shows what is put up, in a window of its own and small in Live, and comes down by one press', async () => {
  const board = await context.newPage()
  await board.goto(live.replace('/live', '/board'))
  await expect(board.getByText('The board is empty.')).toBeVisible()
  await page.bringToFront()
  // Who still waits depends on who was drawn and who came first in a group made at random.
  await press(await keyOf('Eino'), '4')
  await press('End')
  for (const part of ['Stage and its time', 'Directions', 'Hand line']) await side().getByRole('button', { name: part }).click()
  await expect(board.getByText('Your island, your wind')).toBeVisible()
  await expect(board.getByText('Eino')).toBeVisible()
  await expect(board.getByText('Wojtek')).toHaveCount(0)
  await expect(board.getByRole('button')).toHaveCount(0)
  await expect(board.getByRole('link')).toHaveCount(0)
  await expect(page.getByRole('img', { name: 'The class board as the class sees it' })).toContainText('Your island')
  expect(await serious(board)).toEqual([])
  await side().getByRole('button', { name: 'Take everything down' }).click()
  await expect(board.getByText('The board is empty.')).toBeVisible()
  await board.close()
  await press('Escape')
})

test('time for a task runs on the board', async () => {
  await press('Insert')
  await side().getByRole('textbox', { name: 'Task' }).fill('Read your glass')
  await side().getByRole('button', { name: '3 min', exact: true }).click()
  await expect(side().getByRole('timer')).toContainText(/2:5\d|3:00/)
  const board = await context.newPage()
  await board.goto(live.replace('/live', '/board'))
  await expect(board.getByText('Read your glass')).toBeVisible()
  await board.close()
  await side().getByRole('button', { name: 'end it' }).click()
  await press('Escape')
})

test('an aside is noted without leaving the sheet', async () => {
  await press(await keyOf('Eino'), '#')
  await page.keyboard.type('spoke up by himself, say so')
  await press('Enter')
  await press(await keyOf('Eino'), '!')
  await expect(side()).toContainText('spoke up by himself, say so')
  await press('Escape', 'Escape')
})

test('a key can be changed, is kept by the account, and one that is taken is said', async () => {
  await press('?')
  await side().getByRole('button', { name: 'Another key for next stage' }).click()
  await press('F9')
  await expect(side().getByRole('alert')).toContainText('sweep the chat')
  await side().getByRole('button', { name: 'Another key for next stage' }).click()
  await press('F10')
  const key = page.getByRole('banner').locator('kbd').last()
  await expect(key).toHaveAttribute('data-key', 'F10')
  await page.reload()
  await expect(key).toHaveAttribute('data-key', 'F10')
  await press('?')
  await side().getByRole('button', { name: 'All as they were' }).click()
  await expect(key).toHaveAttribute('data-key', 'F8')
  await press('Escape')
})

test('a helper keeps the line and sweeps by a link, beside the teacher, and the link ends with being taken back', async ({ browser }) => {
  await side().getByRole('button', { name: 'Helpers and meeting' }).click()
  await side().getByLabel('A link for a helper named').fill('Odhran')
  await side().getByRole('checkbox', { name: 'the hand line' }).check()
  await side().getByRole('button', { name: 'Make the link' }).click()
  const link = await side().getByLabel('Link', { exact: true }).inputValue()
  const elsewhere = await browser.newContext({ viewport: { width: 1000, height: 800 } })
  const helper = await elsewhere.newPage()
  await helper.goto(link)
  await expect(helper.getByText('You help as Odhran')).toBeVisible()
  expect(await serious(helper)).toEqual([])
  await helper.getByRole('button', { name: /Çağla/ }).click()
  await expect(helper.getByRole('region', { name: 'Hand line' })).toContainText('Çağla')
  await press('Escape')
  await expect(line()).toContainText('Çağla')
  await expect(page.getByRole('contentinfo')).toContainText('Çağla, hand up, Odhran')
  await line().getByRole('button', { name: 'Set down the hand of Çağla' }).click()
  await expect(helper.getByRole('region', { name: 'Hand line' })).not.toContainText('Çağla')
  await side().getByRole('button', { name: 'Helpers and meeting' }).click()
  await side().getByRole('button', { name: 'Take back the key of Odhran' }).click()
  await expect(side().getByRole('button', { name: 'Take back the key of Odhran' })).toHaveCount(0)
  await helper.reload()
  await expect(helper.getByRole('alert')).toContainText('Thank you for helping')
  await elsewhere.close()
  await press('Escape')
})

test('the gauge shows a level only while asked for', async () => {
  await side().getByRole('button', { name: 'gauge' }).click()
  await expect(side().getByRole('meter')).toHaveCount(0)
  await side().getByRole('button', { name: 'simulated' }).click()
  await expect.poll(async () => Number(await side().getByRole('meter').getAttribute('aria-valuenow'))).toBeGreaterThan(3)
  await side().getByRole('button', { name: 'off', exact: true }).click()
  await expect(side().getByRole('meter')).toHaveCount(0)
  await press('Escape')
})

test('with the network gone for a while everything goes on in pencil and is inked later', async () => {
  const cdp = await context.newCDPSession(page)
  await cdp.send('Network.enable')
  await cdp.send('Network.emulateNetworkConditions', { offline: true, latency: 0, downloadThroughput: -1, uploadThroughput: -1 })
  await press(await keyOf('Ximena'), '6', 'F8')
  await expect(page.getByRole('banner')).toContainText('Looking back')
  await press('PageDown')
  await page.getByRole('region', { name: 'Groups' }).getByRole('button', { name: 'dissolve all' }).click()
  await press('Escape')
  await expect(page.getByText(/no connection, \d+ in pencil/)).toBeVisible()
  await cdp.send('Network.emulateNetworkConditions', { offline: false, latency: 0, downloadThroughput: -1, uploadThroughput: -1 })
  await stored()
  const other = await context.newPage()
  await other.goto(live)
  await expect(other.getByRole('banner')).toContainText('Looking back')
  await expect(row('Ximena', other).getByRole('img', { name: 'speaking 1' })).toBeVisible()
  await other.close()
  await page.bringToFront()
})

test('with the clock of the browser three hours wrong, entries carry the right time', async ({ browser }) => {
  const wrong = await browser.newContext({ baseURL: program.address, viewport: { width: 1280, height: 800 }, storageState: await context.storageState() })
  const p = await wrong.newPage()
  await p.addInitScript(() => {
    const real = Date.now.bind(Date)
    Date.now = () => real() - 3 * 3600_000
  })
  await p.goto(live)
  await expect(row('Birkir', p)).toBeVisible()
  await p.keyboard.type(`${(await row('Birkir', p).locator('kbd').first().getAttribute('data-key'))!}0`)
  await stored(p)
  const { head } = await (await p.request.get(`/api${live}`)).json()
  const nod = head.lastEntries.find((e: { text: string }) => e.text.startsWith('Birkir, nod'))
  expect(Math.abs(nod.at - head.now)).toBeLessThan(30_000)
  await wrong.close()
})

test('the server is killed in the middle, and nothing acknowledged is lost', async () => {
  await press(await keyOf('Barney'), '6')
  await stored()
  const before = await (await page.request.get(`/api${live}`)).json()
  await program.kill()
  await press(await keyOf('Barney'), ',')
  await expect(page.getByText(/in pencil/)).toBeVisible()
  await program.start()
  await stored()
  const after = await (await page.request.get(`/api${live}`)).json()
  expect(after.head.position).toBeGreaterThan(before.head.position)
  expect(after.head.groups).toEqual(before.head.groups)
  expect(after.rows.map((r: { speaking: unknown }) => r.speaking)).toEqual(before.rows.map((r: { speaking: unknown }) => r.speaking))
})

test('the demo meeting plays into the lesson: people, hands, messages, names at the door', async () => {
  test.setTimeout(180_000)
  await side().getByRole('button', { name: 'Helpers and meeting' }).click()
  await side().getByRole('button', { name: '20 times faster' }).click()
  await expect(side()).toContainText('Meeting last heard', { timeout: 30_000 })
  await press('Escape')
  await expect(side().getByRole('button', { name: /^Names at the door \d/ })).toBeVisible()
  await expect(side().getByRole('button', { name: /^Chat to sweep \d\d/ })).toBeVisible()
  await expect(row('Eino')).toContainText('dropout')
  // The end of the meeting: hands of the last minutes are in line, and most have left.
  await expect(page.getByRole('banner')).toContainText(/\b[0-4] of 28 here/, { timeout: 120_000 })
  await press('`')
  await expect(side()).not.toContainText('harbour-office-3')
  await press('Escape')
})

test('nothing serious is found on any part of the live screen, in the light and in the dark', async () => {
  test.setTimeout(240_000)
  for (const scheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme: scheme, reducedMotion: 'reduce' })
    for (const key of ['?', '`', 'PageUp', 'F4', 'Insert', 'End', 'F9', 'PageDown', 'F2']) {
      await press(key)
      await page.waitForLoadState('networkidle')
      expect(await serious(page, scheme === 'dark'), `${key}, ${scheme}`).toEqual([])
      await press('Escape', 'Escape')
    }
    await side().getByRole('button', { name: 'Helpers and meeting' }).click()
    expect(await serious(page, scheme === 'dark'), `helpers, ${scheme}`).toEqual([])
    await press('Escape')
  }
  await page.emulateMedia({ colorScheme: 'light' })
})

test('in half a window nothing runs out of the page, whatever is open', async () => {
  for (const width of [640, 400]) {
    await page.setViewportSize({ width, height: 800 })
    for (const key of ['F9', 'PageDown', 'PageUp', 'End', '`', '?']) {
      await press(key)
      await page.waitForLoadState('networkidle')
      expect(await page.evaluate(() => document.documentElement.scrollWidth), `${key} at ${width}`).toBeLessThanOrEqual(width)
      await press('Escape', 'Escape')
    }
  }
  await page.setViewportSize({ width: 1280, height: 800 })
})

test('what a screen reader hears on the sheet and in the line', async () => {
  await expect(row('Juno').getByRole('button').first()).toHaveAccessibleName(/^Juno Quillfeather, \w+, key \S/)
  await expect(page.getByRole('list', { name: 'Sheet' })).toBeVisible()
  await expect(page.getByRole('navigation', { name: 'More' })).toBeVisible()
  await expect(line().getByRole('button', { name: /^Call / }).first()).toBeVisible()
  await expect(line().getByRole('button', { name: /^Set down the hand of / }).first()).toBeVisible()
})
