// What a browser fetches before the first page stands: the page, the scripts and styles it names, and one face. What the server is asked for by then is not of the page.
// Usage: node first-page-weight.mjs WWWROOT LIMIT_KB
import { readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'

const [root, limit] = process.argv.slice(2)
const page = readFileSync(join(root, 'index.html'), 'utf8')
const named = [...page.matchAll(/(?:src|href)="(\/[^"]+)"/g)].map((m) => m[1]).filter((name) => !name.startsWith('/api/'))
const face = readdirSync(join(root, 'assets')).filter((f) => /latin-wght-normal.*\.woff2$/.test(f)).map((f) => `/assets/${f}`)
let total = 0
for (const file of ['/index.html', ...named, ...face]) {
  const bytes = readFileSync(join(root, file))
  // A woff2 is compressed in itself.
  const weight = file.endsWith('.woff2') ? bytes.length : gzipSync(bytes).length
  total += weight
  console.log(`${(weight / 1000).toFixed(1).padStart(7)} kB  ${file}`)
}
console.log(`${(total / 1000).toFixed(1).padStart(7)} kB  in all, of ${limit} kB`)
process.exit(total / 1000 > Number(limit) ? 1 : 0)
