import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = resolve(dirname(fileURLToPath(import.meta.url)), '..')
const npm = process.platform === 'win32' ? 'npm.cmd' : 'npm'
export const run = (command, args, options = {}) =>
  execFileSync(command, args, { cwd: root, stdio: 'inherit', ...options })

/** Installs the packages of the lock file when they are missing or it has changed. */
export function installPackages() {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex')
  const mark = join(root, 'node_modules', '.acolhida-lock')
  if (existsSync(mark) && readFileSync(mark, 'utf8') === lock) return
  console.log('Installing packages …')
  run(npm, ['ci', '--no-audit', '--no-fund', '--loglevel=error'])
  mkdirSync(dirname(mark), { recursive: true })
  writeFileSync(mark, lock)
}

/** Builds door and desk. */
export function build() {
  run(npm, ['run', 'build', '-w', 'web', '--silent', '--', '--logLevel', 'warn'])
}

/** Debian's Chromium, for the tests that drive the real interface, and what reads PDFs back. */
export const installChromium = () =>
  installDebian({ '/usr/bin/chromium': 'chromium', '/usr/bin/pdftotext': 'poppler-utils' })

/** Debian's packages that are missing, each by a program that comes with it. */
export function installDebian(packages) {
  const missing = Object.entries(packages).flatMap(([program, name]) => (existsSync(program) ? [] : [name]))
  if (missing.length === 0) return
  console.log(`Installing ${missing.join(', ')} …`)
  const sudo = process.getuid?.() === 0 ? [] : ['sudo']
  const apt = (...args) => {
    const [command, ...rest] = [...sudo, 'apt-get', ...args]
    run(command, rest, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    })
  }
  apt('update', '-qq')
  apt('install', '-y', '-qq', '--no-install-recommends', ...missing)
}
