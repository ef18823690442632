import { expect, type Locator, type Page } from '@playwright/test'

/** The window in which a lesson is taught, and the parts of it that tests speak of. */
export class LiveWindow {
  readonly sheet: Locator
  readonly side: Locator
  readonly line: Locator
  readonly head: Locator
  readonly questions: Locator
  /** The last entry, as the foot of the window has it. */
  readonly last: Locator

  constructor(readonly page: Page) {
    this.sheet = page.getByRole('list', { name: 'Sheet' })
    this.side = page.getByRole('complementary', { name: 'Turn and hand line' })
    this.line = page.getByRole('region', { name: 'Hand line' })
    this.head = page.getByRole('banner')
    this.questions = page.getByRole('region', { name: 'Questions and answers' })
    this.last = page.getByRole('list', { name: 'Last entries' }).getByRole('listitem').first()
  }

  /** Where it is: /lessons/…/live. */
  get path() {
    return new URL(this.page.url()).pathname
  }
  /** The id of the lesson. */
  get lesson() {
    return this.path.split('/')[2]!
  }

  row = (name: string) => this.sheet.getByRole('listitem').filter({ hasText: name })
  keyOf = async (name: string) => (await this.row(name).locator('kbd').first().getAttribute('data-key'))!
  press = async (...keys: string[]) => {
    for (const key of keys) await this.page.keyboard.press(key)
  }
  /** Groups at random, as many as are proposed; the panel stays open. */
  makeGroups = async () => {
    await this.press('PageDown')
    const groups = this.page.getByRole('region', { name: 'Groups' })
    await groups.getByRole('button', { name: 'Make at random' }).click()
    await expect(groups.getByRole('textbox', { name: 'Name of group 1' })).toBeVisible()
    return groups
  }
  /** Ends the lesson. */
  end = async () => {
    await this.head.getByRole('button', { name: 'End', exact: true }).click()
    await this.page.getByRole('button', { name: 'End the lesson' }).click()
  }
  stored = () => expect(this.page.getByText('all stored')).toBeVisible()
}
