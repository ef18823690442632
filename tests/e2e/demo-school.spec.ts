import { expect } from '@playwright/test'
import { classOf, deskOf, liveLesson, test, weather } from './school'
import { serious } from './serious'

test('the lesson that is live now is one press away', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('link', { name: 'Go to it' }).click()
  await expect(page.getByRole('heading', { name: 'Meenu Iyengar' })).toBeVisible()
  await expect(page.getByRole('region', { name: 'Hand line' }).getByRole('listitem')).toHaveCount(5)
  await expect(page.getByRole('region', { name: 'Hand line' })).toContainText('lapsed')
})

for (const scheme of ['light', 'dark'] as const)
  test(`nothing serious is found on any view, ${scheme}`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: scheme, reducedMotion: 'reduce' })
    test.setTimeout(240_000)
    const { today, toSettle, classes, coming } = await deskOf(page)
    const planned = coming.find((l: { title: string }) => l.title === 'Fog and haar')
    const live = today.find((l: { stage: string }) => l.stage === 'live')
    for (const [path, ready] of [
      ['/', 'Waits on you'],
      ['/classes', 'A new class'],
      [`/classes/${classes[0].id}`, '28 students'],
      [`/classes/${classes[0].id}/roster`, 'Drop a roster here'],
      [`/classes/${classes[0].id}/scores`, 'Press any number'],
      [`/classes/${classes[0].id}/scheme`, 'Before and after'],
      [`/classes/${classes[0].id}/report`, 'Take as CSV'],
      [`/lessons/${toSettle[0].lesson.id}/settle`, 'Confirm and hand in'],
      [`/lessons/${live.id}/live`, 'on the roster'],
      ['/calendar', 'In other calendars'],
      ['/calendar/file', 'Drop a calendar here'],
      ['/terms', 'Sheep gathering'],
      [`/classes/${classes[0].id}/rules`, 'Late after'],
      [`/classes/${classes[0].id}/rubric`, 'Agreed signals'],
      [`/classes/${classes[0].id}/passes`, 'New ones for the ticked'],
      [`/lessons/${planned.id}/plan`, 'Is it ready?'],
      [`/lessons/${planned.id}/rules`, 'Late after'],
      ['/shelf', 'Which reading do you trust more?'],
      ['/outbox', 'Nothing has gone out'],
      ['/specimen', 'Everything a view is made of'],
    ] as const) {
      await page.goto(path)
      await expect(page.getByText(ready).first()).toBeVisible()
      // What stays at the foot of a page covers what is behind it until that is scrolled to.
      if (path.endsWith('/settle')) await page.evaluate(() => window.scrollTo(0, document.body.scrollHeight))
      expect(await serious(page, scheme === 'dark'), path).toEqual([])
    }
  })

test('on a narrow window nothing runs out of the page', async ({ page }) => {
  const { classes, toSettle, coming } = await deskOf(page)
  await page.setViewportSize({ width: 400, height: 800 })
  for (const path of ['/', `/classes/${classes[0].id}`, `/classes/${classes[0].id}/report`, `/lessons/${toSettle[0].lesson.id}/settle`, `/lessons/${await liveLesson(page)}/live`,
    '/calendar', '/classes', '/shelf', '/terms', `/classes/${classes[0].id}/rules`, `/classes/${classes[0].id}/roster`, `/lessons/${coming[0].id}/plan`]) {
    await page.goto(path)
    await expect(page.getByRole('heading').first()).toBeVisible()
    expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(400)
  }
})

test('in half a window a student is chosen and an act pressed', async ({ page }) => {
  const live = await liveLesson(page)
  await page.setViewportSize({ width: 640, height: 800 })
  await page.goto(`/lessons/${live}/live`)
  await page.getByRole('button', { name: /^Saga Eriksdotter/ }).click()
  await page.getByRole('contentinfo').getByRole('button', { name: 'question', exact: true }).click()
  await expect(page.getByRole('listitem').filter({ hasText: 'Saga' }).getByRole('img', { name: /^chat [1-9]/ })).toBeVisible()
})

test('the report prints on paper that is not dark', async ({ page }) => {
  const { classes } = await deskOf(page)
  await page.emulateMedia({ colorScheme: 'dark' })
  await page.goto(`/classes/${classes[0].id}/report`)
  await expect(page.getByText('Take as CSV')).toBeVisible()
  await page.emulateMedia({ media: 'print', colorScheme: 'dark' })
  expect(await page.evaluate(() => getComputedStyle(document.documentElement).backgroundColor)).toBe('rgb(255, 255, 255)')
  await expect(page.getByText('Take as CSV')).toBeHidden()
})

test('Han letters in a name fetch the small faces that hold them, and a page without any fetches none', async ({ page }) => {
  const faces: string[] = []
  page.on('request', (r) => /noto-sans|han-faces/.test(r.url()) && faces.push(r.url()))
  await page.goto('/calendar')
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await page.waitForLoadState('networkidle')
  expect(faces).toEqual([])
  await page.goto(`/classes/${await classOf(page, weather)}`)
  await expect(page.getByText('渡辺').first()).toBeVisible()
  await expect.poll(() => faces.filter((f) => f.endsWith('.woff2')).length).toBeGreaterThanOrEqual(2)
  await page.evaluate(() => document.fonts.ready)
  // Of more than a hundred: one for each letter, and one for a sign that the other faces lack.
  expect(faces.length).toBeLessThan(6)
  expect(await page.evaluate(() => document.fonts.check('16px "Noto Sans JP"', '渡辺'))).toBe(true)
})
