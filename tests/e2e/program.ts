import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

const built = join(
  dirname(fileURLToPath(import.meta.url)),
  '../../src/PoliteTally.Web/bin/Release/net10.0/PoliteTally.Web.dll',
)

/** The built application on a fresh data folder; it can be stopped and started again on the same address. */
export class Program {
  readonly folder = mkdtempSync(join(tmpdir(), 'polite-tally-e2e-'))
  address = ''
  private process: ChildProcess | undefined

  constructor(private readonly options: string[] = []) {}

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
