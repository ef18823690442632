import { expect, test, type BrowserContext, type Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { Program } from './program'

// The table of keystrokes in docs/interface.md, counted: keys that go down, presses of the pointer, and how far it travels.
const docs = readFileSync(new URL('../../docs/interface.md', import.meta.url), 'utf8')
const program = new Program(['--empty'])
let context: BrowserContext
let page: Page

test.describe.configure({ mode: 'serial' })
test.beforeAll(async ({ browser }) => {
  await program.start()
  context = await browser.newContext({ baseURL: program.address, viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' })
  page = await context.newPage()
  await page.goto('/')
  await page.getByLabel('Your name').fill('Tamsin Vale')
  await page.getByLabel('School', { exact: true }).fill('Skerry Sound Online School')
  await page.getByLabel('E-mail address').fill('tamsin@skerrysound.example')
  await page.getByLabel('Password, ten characters').fill('rule of twelfths')
  await page.getByRole('button', { name: 'Make the account' }).click()
  await expect(page.getByText('No class yet')).toBeVisible()
  // The demo class with two who joined late: thirty.
  const roster = readFileSync(new URL('../../demo/roster-weather-and-tides.csv', import.meta.url), 'utf8').trim()
  await page.goto('/classes')
  await page.getByLabel('A new class').fill('Weather and Tides')
  await page.getByRole('button', { name: 'Make it' }).click()
  await page.locator('input[type=file]').setInputFiles({
    name: 'roster.csv', mimeType: 'text/csv', buffer: Buffer.from(`${roster}\nS1029,Hammer,Maren,,,,,\nS1030,Joensen,Bogi,,,,,\n`),
  })
  await page.getByRole('button', { name: 'Bring in 30 students' }).click()
  await page.getByLabel('A lesson now').fill('Why the wind backs')
  await page.getByRole('button', { name: 'Start it' }).click()
  await expect(page.getByRole('list', { name: 'Sheet' }).getByRole('listitem')).toHaveCount(30)
  await page.evaluate(() => {
    const counted = { keys: 0, presses: 0, travel: 0 }
    let last: [number, number] | undefined
    window.addEventListener('keydown', () => counted.keys++, true)
    window.addEventListener('pointerdown', () => counted.presses++, true)
    window.addEventListener('pointermove', (e) => {
      if (last) counted.travel += Math.hypot(e.clientX - last[0], e.clientY - last[1])
      last = [e.clientX, e.clientY]
    }, true)
    Object.assign(window, { counted })
  })
})
test.afterAll(() => program.remove())

interface Counted { keys: number; presses: number; travel: number }
const sheet = () => page.getByRole('list', { name: 'Sheet' })
const row = (name: string) => sheet().getByRole('listitem').filter({ hasText: name })
const keyOf = async (name: string) => (await row(name).locator('kbd').first().getAttribute('data-key'))!
const side = () => page.getByRole('complementary', { name: 'Turn and hand line' })

/** What an act costs, from the pointer resting on the name of a student in the middle of the sheet. */
async function cost(act: () => Promise<unknown>): Promise<Counted> {
  const rest = (await row('Sipho').locator('.name').boundingBox())!
  await page.mouse.move(rest.x + 10, rest.y + rest.height / 2)
  await page.evaluate(() => Object.assign((window as unknown as { counted: Counted }).counted, { keys: 0, presses: 0, travel: 0 }))
  await act()
  return page.evaluate(() => ({ ...(window as unknown as { counted: Counted }).counted }))
}
const press = (...keys: string[]) => async () => { for (const key of keys) await page.keyboard.press(key) }

/** The figures of one line of the table: keys, presses, travel. */
function tabled(act: string) {
  const line = docs.split('\n').find((l) => l.startsWith(`| ${act} |`))
  expect(line, `docs/interface.md has no line “${act}”`).toBeTruthy()
  const [, , , keys, presses, travel] = line!.split('|').map((c) => c.trim())
  return { keys: Number(keys), presses: Number(presses), travel: Number(travel) }
}

// Each act: by keyboard, by pointer, and how it is seen.
const onRow = (label: string) => async () => {
  await row('Sipho').hover({ position: { x: 30, y: 10 } })
  await row('Sipho').getByRole('button', { name: label, exact: true }).click()
}
const sipho = async (...keys: string[]) => [await keyOf('Sipho'), ...keys]
const isSpeaking = () => expect(row('Sipho').getByRole('img', { name: 'speaking 1' })).toBeVisible()
interface Measured {
  act: string
  /** Keys that make the lesson ready for it, and that clear it away again. */
  before?: () => Promise<string[]>
  after?: string[]
  keys: () => Promise<string[]>
  pointer: () => Promise<unknown>
  seen: () => Promise<unknown>
}
const acts: Measured[] = [
  { act: 'here', keys: () => sipho('1'), pointer: onRow('here'), seen: () => expect(row('Sipho').getByRole('button', { name: /, here,/ })).toBeVisible() },
  { act: 'left', keys: () => sipho('3'), pointer: onRow('left'), seen: () => expect(row('Sipho').getByRole('button', { name: /, left,/ })).toBeVisible() },
  { act: 'hand up', keys: () => sipho('4'), pointer: onRow('hand'), seen: () => expect(row('Sipho').getByRole('img', { name: 'hand up' })).toBeVisible() },
  {
    act: 'call the next in line', before: () => sipho('4'), after: ['Backspace', 'Backspace'], keys: async () => ['Enter'],
    pointer: () => side().getByRole('button', { name: /^call next/ }).click(),
    seen: () => expect(page.getByRole('heading', { name: 'Sipho Mbeki-Thorne' })).toBeVisible(),
  },
  {
    act: 'how the turn went: full', before: () => sipho('5'), after: ['Backspace', 'Backspace'], keys: async () => ['6'],
    pointer: () => side().getByRole('button', { name: /^full/ }).click(), seen: isSpeaking,
  },
  { act: 'a whole turn of anybody', keys: () => sipho('6'), pointer: onRow('full'), seen: isSpeaking },
  { act: 'chat: question', keys: () => sipho(','), pointer: onRow('asks, question'), seen: () => expect(row('Sipho').getByRole('img', { name: 'chat 1' })).toBeVisible() },
  { act: 'nod', keys: () => sipho('0'), pointer: onRow('nod, helped someone'), seen: () => expect(row('Sipho').getByRole('img', { name: 'nods 1' })).toBeVisible() },
  {
    act: 'draw a name', before: () => sipho('1'), after: ['Backspace', 'Backspace'], keys: async () => ['\\'],
    pointer: () => side().getByRole('button', { name: 'Draw a name' }).click(), seen: () => expect(side().getByText('Drawn:')).toBeVisible(),
  },
  {
    act: 'undo', before: () => sipho('0'), after: [], keys: async () => ['Backspace'],
    pointer: () => page.getByRole('button', { name: /^Undo/ }).click(), seen: () => expect(row('Sipho').getByRole('img', { name: 'nods 0' })).toBeVisible(),
  },
]

for (const { act, before, after, keys, pointer, seen } of acts)
  test(`${act}: keys, presses and travel are as the table says`, async () => {
    const told = tabled(act)
    await press(...((await before?.()) ?? []))()
    const pressed = await keys()
    const byKeys = await cost(press(...pressed))
    await seen()
    expect(byKeys.keys).toBe(told.keys)
    await press(...(after ?? ['Backspace']))()

    await press(...((await before?.()) ?? []))()
    const byPointer = await cost(pointer)
    await seen()
    expect(byPointer.presses).toBe(told.presses)
    expect.soft(Math.abs(byPointer.travel - told.travel), `${act}: ${Math.round(byPointer.travel)} px, the table says ${told.travel}`).toBeLessThanOrEqual(25)
    await press(...(after ?? ['Backspace']))()
  })

test('everyone here but one, and a signal round of the whole class but one: three acts', async () => {
  const wojtek = await keyOf('Wojtek')
  const roll = await cost(press('F2', wojtek, 'Enter'))
  await expect(page.getByText('29 of 30 here')).toBeVisible()
  expect(roll.keys).toBe(tabled('everyone here but one').keys)
  expect(roll.keys).toBeLessThanOrEqual(3)

  await page.keyboard.press('F4')
  await page.getByLabel('Statement').fill('A backing wind turns against the clock.')
  await page.getByRole('button', { name: /^As agreed/ }).click()
  await page.keyboard.press(await keyOf('Juno'))
  await page.keyboard.press('Enter')
  await expect(page.getByText('signal round, 28 of 29')).toBeVisible()
  await page.keyboard.press('Escape')
})

test('in a class of thirty at least nine in ten students take two keys an act', async () => {
  const names = await sheet().locator('.who').evaluateAll((buttons) => buttons.map((b) => b.getAttribute('aria-label')!))
  const nods = (i: number) => sheet().getByRole('listitem').nth(i).getByRole('img', { name: /^nods/ })
  const count = async (i: number) => ((await nods(i).count()) ? Number((await nods(i).getAttribute('aria-label'))!.split(' ')[1]) : 0)
  let two = 0
  // All of them are seen at once.
  expect(await page.locator('.sheet').evaluate((e) => e.scrollHeight - e.clientHeight)).toBe(0)
  for (let i = 0; i < names.length; i++) {
    const before = await count(i)
    await page.keyboard.press(/key (\S)/.exec(names[i]!)![1]!)
    await page.keyboard.press('+')
    if ((await count(i)) === before + 1) two++
  }
  expect(two / names.length).toBeGreaterThanOrEqual(0.9)
})
