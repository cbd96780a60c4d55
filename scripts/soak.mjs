import { spawnSync } from 'node:child_process'
import { installPackages, root } from './install.mjs'

/** What takes longer than the suite may: many more histories, and many more ends in the midst of things. */
installPackages()
const HISTORIES = process.env.HISTORIES ?? '100000'
const KILLS = process.env.KILLS ?? '200'
const { status } = spawnSync(
  'node_modules/.bin/vitest',
  ['run', 'relay/tests/histories.test.ts', 'relay/tests/crash.test.ts', '--testTimeout=7200000'],
  { cwd: root, stdio: 'inherit', env: { ...process.env, HISTORIES, KILLS } },
)
process.exitCode = status ?? 1
