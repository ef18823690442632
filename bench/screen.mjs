// From the key to the stroke on screen, and to the stroke in a second window, with the feed running.
//   node bench/screen.mjs [students] [minutes the feed runs before and while it is measured] [events a second, 20]
// Prints medians and 95ths of 100 taps, and what the first window and the program hold in memory at the beginning and at the end.
import { spawn } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { createRequire } from 'node:module'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const root = new URL('..', import.meta.url).pathname
const { chromium } = createRequire(join(root, 'tests/e2e/package.json'))('@playwright/test')
const students = Number(process.argv[2] ?? 28)
const minutes = Number(process.argv[3] ?? 0.5)
const perSecond = Number(process.argv[4] ?? 20)
const taps = 100
const eventsAtOnce = 5

const folder = mkdtempSync(join(tmpdir(), 'polite-tally-screen-'))
const program = spawn('dotnet', [join(root, 'src/PoliteTally.Web/bin/Release/net10.0/PoliteTally.Web.dll'), '--data', folder, '--port', '0', '--empty'], {
  stdio: ['ignore', 'pipe', 'inherit'],
})
const address = await new Promise((ready) => program.stdout.on('data', (part) => {
  const found = /ready at (\S+)/.exec(String(part))
  if (found) ready(found[1])
}))
// Two browsers, so that neither window is behind the other and without frames.
const launch = () => chromium.launch({
  executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--enable-precise-memory-info', '--js-flags=--expose-gc'],
})
const [browser, another] = [await launch(), await launch()]
try {
  const context = await browser.newContext({ baseURL: address, viewport: { width: 1280, height: 800 } })
  const page = await context.newPage()
  await page.goto('/sign-in')
  const call = (method, path, body, file) => page.evaluate(async ([method, path, body, file]) => {
    const form = file && new FormData()
    form?.set('file', new File([file], 'roster.csv'))
    const response = await fetch(path, { method, body: form ?? JSON.stringify(body), headers: form ? {} : { 'Content-Type': 'application/json' } })
    if (!response.ok) throw new Error(`${path}: ${await response.text()}`)
    return response.status === 204 ? undefined : response.json()
  }, [method, path, body, file])
  await call('POST', '/api/accounts', { email: 'tamsin@skerrysound.example', password: 'rule of twelfths', name: 'Tamsin Vale', school: 'Skerry Sound', timeZone: 'Atlantic/Faroe' })
  await page.goto('/')
  const made = await call('POST', '/api/classes', { name: 'Weather and Tides' })
  await call('POST', `/api/classes/${made.id}/roster`, undefined, `Given name,Family name\n${Array.from({ length: students }, (_, i) => `Student${i + 1},Sound${i + 1}\n`).join('')}`)
  const lesson = await call('POST', `/api/classes/${made.id}/lessons`, { title: 'Why the wind backs', minutes: 50 })
  const { key } = await call('POST', `/api/lessons/${lesson.id}/keys`, { name: 'Feed', feed: true, sweep: false, handLine: false })

  await page.goto(`/lessons/${lesson.id}/live`)
  const second = await (await another.newContext({ viewport: { width: 1280, height: 800 }, storageState: await context.storageState() })).newPage()
  await second.goto(page.url())
  for (const p of [page, second]) {
    await p.getByText(`${students} on the roster`).waitFor()
    await p.evaluate(() => {
      const row = document.querySelector('[role=listitem]')
      const nods = () => Number(/nods (\d+)/.exec(row.innerHTML)?.[1] ?? 0)
      const seen = []
      let before = nods()
      let pressed
      window.addEventListener('keydown', (e) => e.key === '+' && (pressed = performance.timeOrigin + e.timeStamp), true)
      new MutationObserver(() => {
        if (nods() <= before) return
        before = nods()
        const strokes = before
        // The frame that shows it is on screen when the next one begins.
        requestAnimationFrame(() => seen.push({ strokes, pressed, at: performance.timeOrigin + performance.now() }))
      }).observe(row, { subtree: true, childList: true, attributes: true })
      Object.assign(window, { seen })
    })
  }
  const memory = async () => {
    await page.evaluate(() => globalThis.gc?.())
    return page.evaluate(() => performance.memory.usedJSHeapSize / 1e6)
  }

  const resident = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${program.pid}/status`, 'utf8'))[1]) / 1000

  let number = 0
  const random = (n) => Math.floor(Math.random() * n)
  const feed = setInterval(() => {
    const events = Array.from({ length: eventsAtOnce }, () => {
      const student = number < students ? number + 1 : 1 + random(students)
      const kind = number < students ? 'joined' : ['left', 'joined', 'hand-raised', 'hand-raised', 'hand-lowered', 'reaction', 'message', 'message'][random(8)]
      return { specversion: '1.0', id: String(number++), source: 'urn:screen', type: `polite-tally.${kind}`, data: { name: `Student${student} Sound${student}`, device: 'laptop', text: `reading ${number}`, reaction: 'clap' } }
    })
    void fetch(`${address}/api/feed`, { method: 'POST', headers: { Authorization: `Bearer ${key}`, 'Content-Type': 'application/cloudevents-batch+json' }, body: JSON.stringify(events) })
  }, (1000 * eventsAtOnce) / perSecond)

  await new Promise((done) => setTimeout(done, 5000))
  const [atFirst, programAtFirst] = [await memory(), resident()]
  await page.bringToFront()
  await page.locator('body').click({ position: { x: 700, y: 8 } })
  const letter = await page.locator('[role=listitem] kbd').first().textContent()
  const until = Date.now() + minutes * 60_000
  const pause = Math.max(150, (minutes * 60_000) / taps)
  for (let i = 0; i < taps; i++) {
    await page.keyboard.press(letter)
    await page.keyboard.press('+')
    await new Promise((done) => setTimeout(done, pause))
  }
  while (Date.now() < until) await new Promise((done) => setTimeout(done, 500))
  await new Promise((done) => setTimeout(done, 1500))
  clearInterval(feed)
  const first = await page.evaluate(() => window.seen)
  const other = await second.evaluate(() => window.seen)
  const percentile = (times, p) => [...times].sort((a, b) => a - b)[Math.floor(times.length * p)].toFixed(0)
  const own = first.map((s) => s.at - s.pressed)
  const across = first.map((s) => other.find((o) => o.strokes >= s.strokes).at - s.pressed)
  console.log(`${students} students, ${number} events, ${first.length} taps`)
  console.log(`key to stroke: median ${percentile(own, 0.5)} ms, 95th ${percentile(own, 0.95)} ms`)
  console.log(`key to the second window: median ${percentile(across, 0.5)} ms, 95th ${percentile(across, 0.95)} ms`)
  console.log(`memory of the first window: ${atFirst.toFixed(1)} MB at first, ${(await memory()).toFixed(1)} MB at the end`)
  console.log(`memory of the program: ${programAtFirst.toFixed(0)} MB at first, ${resident().toFixed(0)} MB at the end`)
} finally {
  await Promise.all([browser.close(), another.close()])
  program.kill()
  rmSync(folder, { recursive: true })
}
