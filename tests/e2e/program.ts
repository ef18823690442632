import { spawn, type ChildProcess } from 'node:child_process'
import { cpSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { createInterface } from 'node:readline'
import { fileURLToPath } from 'node:url'

const root = join(dirname(fileURLToPath(import.meta.url)), '../..')
const built = join(root, 'src/PoliteTally.Web/bin/Release/net10.0/PoliteTally.Web.dll')
const standIns = join(root, 'src/PoliteTally.StandIns/bin/Release/net10.0/PoliteTally.StandIns.dll')
const host = join(root, 'tests/e2e/Host/bin/Release/net10.0/Host.dll')

/** A data folder, a copy of another if one is given. */
const folderFrom = (from?: string) => {
  const folder = mkdtempSync(join(tmpdir(), 'polite-tally-e2e-'))
  if (from) cpSync(from, folder, { recursive: true })
  return folder
}

/** The application, on a data folder of its own. */
export interface Served {
  readonly folder: string
  readonly address: string
  remove(): Promise<void>
}

/** The built program as a process of its own; it can be killed, and started again on the same address. */
export class Program implements Served {
  readonly folder: string
  address = ''
  private process: ChildProcess | undefined

  constructor(private readonly options: string[] = [], from?: string) {
    this.folder = folderFrom(from)
  }

  async start() {
    const port = this.address ? new URL(this.address).port : '0'
    this.process = spawn('dotnet', [built, '--data', this.folder, '--port', port, ...this.options], {
      stdio: ['ignore', 'pipe', 'inherit'],
    })
    this.address = await new Promise((ready, failed) => {
      let said = ''
      this.process!.stdout!.on('data', (part) => {
        said += part
        const found = /ready at (\S+)/.exec(said)
        if (found) ready(found[1]!)
      })
      this.process!.on('exit', (code) => failed(new Error(`The program ended with ${code}: ${said}`)))
    })
  }

  /** As if the plug were pulled. */
  async kill() {
    const gone = new Promise((done) => this.process!.on('exit', done))
    this.process!.kill('SIGKILL')
    await gone
  }

  async remove() {
    await this.kill()
    rmSync(this.folder, { recursive: true })
  }
}

/** A warm process in which an application is opened and closed in a moment (Host/Program.cs). */
export class Host {
  private waiting: { heard: (line: string) => void; failed: (why: Error) => void }[] = []
  private readonly process

  /** @param desk The register desk of its schools. */
  constructor(desk: Desk) {
    this.process = spawn('dotnet', [host], { stdio: ['pipe', 'pipe', 'inherit'], env: { ...process.env, ...desk.named } })
    createInterface(this.process.stdout).on('line', (line) => {
      if (line.startsWith('> ')) this.waiting.shift()?.heard(line.slice(2))
    })
    this.process.on('exit', (code) => {
      for (const { failed } of this.waiting) failed(new Error(`The host of the schools ended with ${code}.`))
    })
  }

  async open(from?: string): Promise<Served> {
    const folder = folderFrom(from)
    const address = await this.ask(`open ${folder}`)
    return {
      folder,
      address,
      remove: async () => {
        await this.ask(`close ${folder}`)
        rmSync(folder, { recursive: true })
      },
    }
  }

  end() {
    this.process.stdin.end()
  }

  private ask(line: string) {
    this.process.stdin.write(`${line}\n`)
    return new Promise<string>((heard, failed) => this.waiting.push({ heard, failed }))
  }
}

/** The stand-in for the register desk of a school. */
export class Desk {
  /** What tells a program of it. */
  named: Record<string, string> = {}
  private process: ChildProcess | undefined

  async start() {
    const token = { POLITE_TALLY_REGISTER_TOKEN: 'rule of twelfths' }
    this.process = spawn('dotnet', [standIns, 'desk', '--port', '0'], { stdio: ['ignore', 'pipe', 'inherit'], env: { ...process.env, ...token } })
    const address = await new Promise<string>((heard, failed) => {
      createInterface(this.process!.stdout!).on('line', (line) => heard(/stands in at (\S+)/.exec(line)![1]!))
      this.process!.on('exit', (code) => failed(new Error(`The register desk ended with ${code}.`)))
    })
    this.named = { ...token, POLITE_TALLY_REGISTER_DESK: address }
  }

  end() {
    this.process?.removeAllListeners('exit')
    this.process?.kill()
  }
}
