import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { build, installPackages, root } from './install.mjs'

installPackages()
const dev = process.argv.includes('--dev')
const children = []
const start = (args, cwd = root) => {
  const child = spawn(process.execPath, args, { cwd, stdio: 'inherit' })
  children.push(child)
  child.on('exit', (code) => {
    for (const other of children) other.kill()
    process.exitCode = code ?? 0
  })
}
const rest = process.argv.slice(2).filter((arg) => arg !== '--dev')
if (dev) {
  // Pages come from Vite and are renewed as they are edited; the relay starts again when it changes.
  const vite = join(root, 'node_modules', 'vite', 'bin', 'vite.js')
  for (const name of ['door', 'desk'])
    start([vite, '--config', `vite.${name}.ts`, '--logLevel', 'warn'], join(root, 'web'))
  start(['--watch', '--import', 'tsx', 'relay/main.ts', '--demo', '--dev', ...rest])
} else {
  build()
  start(['--import', 'tsx', 'relay/main.ts', '--demo', ...rest])
}
for (const signal of ['SIGINT', 'SIGTERM']) {
  process.on(signal, () => {
    for (const child of children) child.kill(signal)
  })
}
