import { expect, request, test as plain, type APIRequestContext, type BrowserContextOptions, type Page } from '@playwright/test'
import { readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { LiveWindow } from './live-window'
import { Desk, Host, Program, type Served } from './program'

/**
 * What a test begins with: the demo school with a teacher who looks around; a teacher with an account and nothing else; or a program that nobody
 * has an account with yet.
 */
export type School = 'demo' | 'account' | 'nobody'

export const weather: string = 'Weather and Tides, year 8'
export const botany: string = 'Island Botany, year 10'
export const tamsin = { name: 'Tamsin Vale', school: 'Skerry Sound Online School', email: 'tamsin@skerrysound.example', password: 'rule of twelfths' }

/** The roster of the demo class: 28 students. */
export const roster = readFileSync(new URL('../../demo/roster-weather-and-tides.csv', import.meta.url), 'utf8').trim()

const options: Record<School, string[]> = { demo: [], account: ['--empty'], nobody: ['--empty'] }

/** Every test has a copy of a folder that was made once, so that each can run alone and leaves nothing to the next. */
class Folders {
  private readonly made = new Map<School, { folder: Promise<string>; at: number }>()
  private readonly left: Promise<string>[] = []
  // The live lesson of the demo school goes on while tests run: after a while it is another lesson.
  private readonly oldest = 120_000

  of(school: School): Promise<string> | undefined {
    if (school === 'nobody') return undefined
    const before = this.made.get(school)
    if (before && Date.now() - before.at < this.oldest) return before.folder
    // One is made however many ask at once. An older one may just be copied for a test, so it stays until all have run.
    const folder = this.make(school)
    this.left.push(folder)
    this.made.set(school, { folder, at: Date.now() })
    return folder
  }

  private async make(school: School) {
    const program = new Program(options[school])
    await program.start()
    if (school === 'account') await answered(program, '/api/accounts', { ...tamsin, timeZone: 'Etc/UTC' })
    await program.kill()
    return program.folder
  }

  async remove() {
    for (const made of await Promise.allSettled(this.left)) if (made.status === 'fulfilled') rmSync(made.value, { recursive: true })
  }
}

/** Opens applications. While a test runs, the next one of the kind is opened already. */
class Applications {
  private readonly host: Host
  private next: { school: School; opened: Promise<Opened> } | undefined

  constructor(
    private readonly folders: Folders,
    desk: Desk,
  ) {
    this.host = new Host(desk)
  }

  take(school: School) {
    const { next } = this
    const mine = next?.school === school ? next.opened : this.open(school)
    if (next && next.school !== school) void next.opened.then(({ served }) => served.remove())
    // Behind this one: the host does one thing after the other.
    this.next = { school, opened: mine.then(() => this.open(school)) }
    return mine
  }

  async end() {
    await this.next?.opened.then(({ served }) => served.remove())
    this.host.end()
  }

  private async open(school: School): Promise<Opened> {
    const served = await this.host.open(await this.folders.of(school))
    return { served, cookies: await signIn(served, school) }
  }
}

async function signIn(served: Served, school: School): Promise<Cookies> {
  if (school === 'nobody') return undefined
  const { email, password } = tamsin
  return school === 'demo' ? answered(served, '/api/session/demo') : answered(served, '/api/session', { email, password })
}

async function answered({ address }: Served, path: string, data?: object) {
  const api = await request.newContext({ baseURL: address })
  const answer = await api.post(path, { data })
  expect(answer.ok(), `${path}: ${await answer.text()}`).toBe(true)
  const state = await api.storageState()
  await api.dispose()
  return state
}

export interface AtHand {
  school: School
  opened: Opened
  /** The application, on a copy of the school. */
  served: Served
  /** The window of the lesson that is on in the demo school. */
  live: LiveWindow
  /** A page in the browser of somebody else, who is signed in nowhere. */
  elsewhere: (options?: BrowserContextOptions) => Promise<Page>
  /** A file of the demo school, to be given to a field. */
  demoFile: (name: string) => Promise<{ name: string; mimeType: string; buffer: Buffer }>
}

/** An application for every test, and a browser whose pages are signed in to it. */
export const test = plain.extend<AtHand, { folders: Folders; applications: Applications }>({
  folders: [
    async ({}, use) => {
      const folders = new Folders()
      await use(folders)
      await folders.remove()
    },
    { scope: 'worker' },
  ],
  applications: [
    async ({ folders }, use) => {
      const desk = new Desk()
      await desk.start()
      const applications = new Applications(folders, desk)
      await use(applications)
      await applications.end()
      desk.end()
    },
    { scope: 'worker' },
  ],
  school: ['demo', { option: true }],
  opened: async ({ applications, school }, use) => {
    const opened = await applications.take(school)
    await use(opened)
    await opened.served.remove()
  },
  served: async ({ opened }, use) => use(opened.served),
  baseURL: async ({ served }, use) => use(served.address),
  storageState: async ({ opened }, use) => use(opened.cookies),
  live: async ({ page }, use) => {
    await page.goto(`/lessons/${await liveLesson(page)}/live`)
    await expect(page.getByRole('heading', { name: 'Meenu Iyengar' })).toBeVisible()
    await use(new LiveWindow(page))
  },
  elsewhere: async ({ browser }, use) => {
    const pages: Page[] = []
    await use(async (options) => {
      const context = await browser.newContext({ storageState: { cookies: [], origins: [] }, ...options })
      const page = await context.newPage()
      pages.push(page)
      return page
    })
    for (const page of pages) await page.context().close()
  },
  demoFile: async ({ folders }, use) =>
    use(async (name) => ({
      name,
      mimeType: 'application/octet-stream',
      buffer: readFileSync(join((await folders.of('demo'))!, 'demo-files', name)),
    })),
})

/** For tests that pull the plug: the application is a process of its own, to be killed and started again. */
export const withProgram = test.extend<{ program: Program }>({
  program: async ({ folders, school }, use) => {
    const program = new Program(options[school], await folders.of(school))
    await program.start()
    await use(program)
    await program.remove()
  },
  opened: async ({ program, school }, use) => use({ served: program, cookies: await signIn(program, school) }),
})

/** What the desk of the teacher says. */
export const deskOf = async (page: Page) => (await page.request.get('/api/desk')).json()

/** The id of the lesson that is on. */
export const liveLesson = async (page: Page): Promise<string> =>
  (await deskOf(page)).today.find((l: { stage: string }) => l.stage === 'live').id

/** Does what a window would do, without one: what a test is not about. */
export async function done<T>(page: Page, method: 'POST' | 'PUT', path: string, data?: object): Promise<T> {
  const answer = await page.request.fetch(path, { method, data })
  expect(answer.ok(), `${path}: ${await answer.text()}`).toBe(true)
  return answer.json()
}

/** Adds questions or stages to the plan of a lesson, as another window would. */
export async function prepare(page: Page, lesson: string, { questions = [], stages = [] }: { questions?: object[]; stages?: object[] }) {
  const path = `/api/lessons/${lesson}/plan`
  const { plan, version } = await (await page.request.get(path)).json()
  const more = { questions: [...plan.questions, ...questions], stages: [...plan.stages, ...stages] }
  await done(page, 'PUT', path, { version, origin: plan, plan: { ...plan, ...more } })
}

/** A class with the students of a roster; its id. */
export async function classOf(page: Page, name: string, students = roster) {
  const { id } = await done<{ id: string }>(page, 'POST', '/api/classes', { name })
  const answer = await page.request.post(`/api/classes/${id}/roster`, {
    multipart: { file: { name: 'roster.csv', mimeType: 'text/csv', buffer: Buffer.from(students) } },
  })
  expect(answer.ok(), await answer.text()).toBe(true)
  return id
}

/** A lesson of a class of its own, just started, in its window. */
export async function lessonNow(page: Page, students = roster) {
  const id = await classOf(page, weather, students)
  const lesson = await done<{ id: string }>(page, 'POST', `/api/classes/${id}/lessons`, { title: 'Why the wind backs', minutes: 50 })
  await page.goto(`/lessons/${lesson.id}/live`)
  const live = new LiveWindow(page)
  await expect(live.sheet.getByRole('listitem')).toHaveCount(students.split('\n').length - 1)
  return live
}

/** What was done is said on the page. */
export const say = (page: Page, text: string | RegExp) => expect(page.getByRole('status').filter({ hasText: text })).toBeVisible()
