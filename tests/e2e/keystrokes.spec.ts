import { expect } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { LiveWindow } from './live-window'
import { lessonNow, roster, test as schools } from './school'

// The table of keystrokes in docs/interface.md, counted: keys that go down, presses of the pointer, and how far it travels.
const docs = readFileSync(new URL('../../docs/interface.md', import.meta.url), 'utf8')

interface Counted { keys: number; presses: number; travel: number }

/** A lesson of thirty (the demo class with two who joined late), in a window that counts. */
const test = schools.extend<{ lesson: LiveWindow }>({
  lesson: async ({ page }, use) => {
    const live = await lessonNow(page, `${roster}\nS1029,Hammer,Maren,,,,,\nS1030,Joensen,Bogi,,,,,`)
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
    await use(live)
  },
})
test.use({ school: 'account', contextOptions: { reducedMotion: 'reduce' } })

/** What an act costs, from the pointer resting on the name of a student in the middle of the sheet. */
async function cost({ page, row }: LiveWindow, act: () => Promise<unknown>): Promise<Counted> {
  const rest = (await row('Sipho').locator('.name').boundingBox())!
  await page.mouse.move(rest.x + 10, rest.y + rest.height / 2)
  await page.evaluate(() => Object.assign((window as unknown as { counted: Counted }).counted, { keys: 0, presses: 0, travel: 0 }))
  await act()
  return page.evaluate(() => ({ ...(window as unknown as { counted: Counted }).counted }))
}

/** The figures of one line of the table: keys, presses, travel. */
function tabled(act: string) {
  const line = docs.split('\n').find((l) => l.startsWith(`| ${act} |`))
  expect(line, `docs/interface.md has no line “${act}”`).toBeTruthy()
  const [, , , keys, presses, travel] = line!.split('|').map((c) => c.trim())
  return { keys: Number(keys), presses: Number(presses), travel: Number(travel) }
}

// Each act: by keyboard, by pointer, and how it is seen.
const onRow = (label: string) => async ({ row }: LiveWindow) => {
  await row('Sipho').hover({ position: { x: 30, y: 10 } })
  await row('Sipho').getByRole('button', { name: label, exact: true }).click()
}
const sipho = (...keys: string[]) => async ({ keyOf }: LiveWindow) => [await keyOf('Sipho'), ...keys]
const isSpeaking = ({ row }: LiveWindow) => expect(row('Sipho').getByRole('img', { name: 'speaking 1' })).toBeVisible()
interface Measured {
  act: string
  /** Keys that make the lesson ready for it, and that clear it away again. */
  before?: (lesson: LiveWindow) => Promise<string[]>
  after?: string[]
  keys: (lesson: LiveWindow) => Promise<string[]>
  pointer: (lesson: LiveWindow) => Promise<unknown>
  seen: (lesson: LiveWindow) => Promise<unknown>
}
const acts: Measured[] = [
  { act: 'here', keys: sipho('1'), pointer: onRow('here'), seen: ({ row }) => expect(row('Sipho').getByRole('button', { name: /, here,/ })).toBeVisible() },
  { act: 'left', keys: sipho('3'), pointer: onRow('left'), seen: ({ row }) => expect(row('Sipho').getByRole('button', { name: /, left,/ })).toBeVisible() },
  { act: 'hand up', keys: sipho('4'), pointer: onRow('hand'), seen: ({ row }) => expect(row('Sipho').getByRole('img', { name: 'hand up' })).toBeVisible() },
  {
    act: 'call the next in line', before: sipho('4'), after: ['Backspace', 'Backspace'], keys: async () => ['Enter'],
    pointer: ({ side }) => side.getByRole('button', { name: /^call next/ }).click(),
    seen: ({ page }) => expect(page.getByRole('heading', { name: 'Sipho Mbeki-Thorne' })).toBeVisible(),
  },
  {
    act: 'how the turn went: full', before: sipho('5'), after: ['Backspace', 'Backspace'], keys: async () => ['6'],
    pointer: ({ side }) => side.getByRole('button', { name: /^full/ }).click(), seen: isSpeaking,
  },
  { act: 'a whole turn of anybody', keys: sipho('6'), pointer: onRow('full'), seen: isSpeaking },
  { act: 'chat: question', keys: sipho(','), pointer: onRow('asks, question'), seen: ({ row }) => expect(row('Sipho').getByRole('img', { name: 'chat 1' })).toBeVisible() },
  { act: 'nod', keys: sipho('0'), pointer: onRow('nod, helped someone'), seen: ({ row }) => expect(row('Sipho').getByRole('img', { name: 'nods 1' })).toBeVisible() },
  {
    act: 'draw a name', before: sipho('1'), after: ['Backspace', 'Backspace'], keys: async () => ['\\'],
    pointer: ({ side }) => side.getByRole('button', { name: 'Draw a name' }).click(), seen: ({ side }) => expect(side.getByText('Drawn:')).toBeVisible(),
  },
  {
    act: 'undo', before: sipho('0'), after: [], keys: async () => ['Backspace'],
    pointer: ({ page }) => page.getByRole('button', { name: /^Undo/ }).click(), seen: ({ row }) => expect(row('Sipho').getByRole('img', { name: 'nods 0' })).toBeVisible(),
  },
]

for (const { act, before, after, keys, pointer, seen } of acts)
  test(`${act}: keys, presses and travel are as the table says`, async ({ lesson }) => {
    const { press } = lesson
    const told = tabled(act)
    await press(...((await before?.(lesson)) ?? []))
    const pressed = await keys(lesson)
    const byKeys = await cost(lesson, () => press(...pressed))
    await seen(lesson)
    expect(byKeys.keys).toBe(told.keys)
    await press(...(after ?? ['Backspace']))

    await press(...((await before?.(lesson)) ?? []))
    const byPointer = await cost(lesson, () => pointer(lesson))
    await seen(lesson)
    expect(byPointer.presses).toBe(told.presses)
    expect.soft(Math.abs(byPointer.travel - told.travel), `${act}: ${Math.round(byPointer.travel)} px, the table says ${told.travel}`).toBeLessThanOrEqual(25)
  })

test('everyone here but one, and a signal round of the whole class but one: three acts', async ({ lesson }) => {
  const { page, press, keyOf } = lesson
  const wojtek = await keyOf('Wojtek')
  const roll = await cost(lesson, () => press('F2', wojtek, 'Enter'))
  await expect(page.getByText('29 of 30 here')).toBeVisible()
  expect(roll.keys).toBe(tabled('everyone here but one').keys)
  expect(roll.keys).toBeLessThanOrEqual(3)

  await press('F4')
  await page.getByLabel('Statement').fill('A backing wind turns against the clock.')
  await page.getByRole('button', { name: /^As agreed/ }).click()
  await press(await keyOf('Juno'), 'Enter')
  await expect(page.getByText('signal round, 28 of 29')).toBeVisible()
})

test('in a class of thirty at least nine in ten students take two keys an act', async ({ lesson: { page, sheet, press } }) => {
  const names = await sheet.locator('.who').evaluateAll((buttons) => buttons.map((b) => b.getAttribute('aria-label')!))
  const nods = (i: number) => sheet.getByRole('listitem').nth(i).getByRole('img', { name: /^nods/ })
  const count = async (i: number) => ((await nods(i).count()) ? Number((await nods(i).getAttribute('aria-label'))!.split(' ')[1]) : 0)
  let two = 0
  // All of them are seen at once.
  expect(await page.locator('.sheet').evaluate((e) => e.scrollHeight - e.clientHeight)).toBe(0)
  for (let i = 0; i < names.length; i++) {
    const before = await count(i)
    await press(/key (\S)/.exec(names[i]!)![1]!, '+')
    if ((await count(i)) === before + 1) two++
  }
  expect(two / names.length).toBeGreaterThanOrEqual(0.9)
})
