import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { Noted } from './outbox'

interface DrawerFile extends DBSchema {
  noted: { key: string; value: Noted; indexes: { lesson: string } }
}

/**
 * The browser's own file, in which entries lie until they are stored. A window may have none (a private one, a full disk): then entries are in
 * memory alone, they go out all the same, and that they would not outlive the tab is said once.
 */
export class Drawer {
  private file: Promise<IDBPDatabase<DrawerFile>> | undefined
  private said = false

  constructor(private readonly missing: () => void) {}

  /** What an earlier tab left behind. */
  all = (lesson: string) => this.with<Noted[]>([], async (file) => file.getAllFromIndex('noted', 'lesson', lesson))

  /** Keeps entries, and takes others out, in one transaction that is done before the tab can close. */
  change = (keep: Noted[], takeOut: string[] = []) =>
    this.with(undefined, async (file) => {
      const write = file.transaction('noted', 'readwrite')
      const done = [
        ...keep.map((entry) => write.store.put(entry)),
        ...takeOut.map((id) => write.store.delete(id)),
      ] as Promise<unknown>[]
      // At once, not when the browser gets round to it: the tab may be closed next.
      write.commit()
      await Promise.all([...done, write.done])
    })

  private async with<T>(otherwise: T, what: (file: IDBPDatabase<DrawerFile>) => Promise<T>): Promise<T> {
    try {
      this.file ??= openDB<DrawerFile>('polite-tally', 1, {
        upgrade: (db) => db.createObjectStore('noted', { keyPath: 'id' }).createIndex('lesson', 'lesson'),
      })
      return await what(await this.file)
    } catch {
      this.file = undefined
      if (!this.said) this.missing()
      this.said = true
      return otherwise
    }
  }
}
