// Counts how many files a new one of each kind asks for: adds it to a copy of the code, and lets the compiler say.
import { execFileSync } from 'node:child_process'
import {
  cpSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { ADDED } from './added.ts'

const root = dirname(dirname(fileURLToPath(import.meta.url)))
const copy = mkdtempSync(join(tmpdir(), 'acolhida-adding-'))

const complaints = () => {
  const found = new Set()
  for (const project of ['core', 'web']) {
    try {
      execFileSync('npx', ['tsc', '--noEmit', '-p', project], { cwd: copy, encoding: 'utf8', stdio: 'pipe' })
    } catch (error) {
      for (const [, file] of String(error.stdout).matchAll(/^(\S+?)\(\d+,\d+\): error/gm)) found.add(file)
    }
  }
  return found
}

try {
  for (const part of ['core', 'web', 'demo', 'relay', 'package.json', 'tsconfig.base.json'])
    cpSync(join(root, part), join(copy, part), {
      recursive: true,
      filter: (path) => !/node_modules|(^|\/)dist($|\/)/.test(path.slice(root.length)),
    })
  // The libraries are those of the checkout; the workspaces are those of the copy.
  mkdirSync(join(copy, 'node_modules', '@acolhida'), { recursive: true })
  for (const name of readdirSync(join(root, 'node_modules')))
    if (name !== '@acolhida') symlinkSync(join(root, 'node_modules', name), join(copy, 'node_modules', name))
  for (const part of ['core', 'web', 'demo', 'relay'])
    symlinkSync(join(copy, part), join(copy, 'node_modules', '@acolhida', part))
  let wrong = false
  for (const [what, path, before, added, most] of ADDED) {
    const source = readFileSync(join(copy, path), 'utf8')
    if (!source.includes(before)) throw new Error(`${path} no longer reads as this script expects.`)
    const with_ = before.endsWith('\n}') ? `${before.slice(0, -1)}${added}` : `${before}${added}`
    writeFileSync(join(copy, path), source.replace(before, with_))
    const files = new Set([path, ...complaints()])
    writeFileSync(join(copy, path), source)
    console.log(`${what}: ${files.size} of at most ${most}: ${[...files].join(', ')}`)
    wrong ||= files.size > most || files.size < 1
  }
  process.exitCode = wrong ? 1 : 0
} finally {
  rmSync(copy, { recursive: true, force: true })
}
