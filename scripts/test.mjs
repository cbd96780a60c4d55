import { spawnSync } from 'node:child_process'
import { readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { build, installChromium, installPackages, root } from './install.mjs'

installPackages()
installChromium()

let passed = 0
let failed = 0
const step = (name, command, args, env = {}) => {
  console.log(`\n— ${name}`)
  const { status } = spawnSync(command, args, {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, ...env },
  })
  return status === 0
}
const count = (name, ok) => {
  if (ok) passed++
  else {
    failed++
    console.log(`✗ ${name}`)
  }
}
const failures = []
/** The tests that failed, by file and name: said once more at the end, where they are found. */
const failedIn = ({ testResults }) =>
  testResults.flatMap(({ name, message, assertionResults }) => [
    ...assertionResults
      .filter(({ status }) => status === 'failed')
      .map(({ fullName }) => `${name} > ${fullName}`),
    ...(message && assertionResults.length === 0 ? [`${name}: ${message}`] : []),
  ])
/** Adds what a runner wrote of its tests; a runner that wrote nothing has failed. */
const countReport = (name, ok, file) => {
  try {
    const report = JSON.parse(readFileSync(file, 'utf8'))
    const { numPassedTests: good, numFailedTests: bad } = report
    failures.push(...failedIn(report))
    passed += good
    failed += bad
    if (!ok && bad === 0) count(name, false)
    if (good + bad === 0) count(`${name} ran no test`, false)
  } catch {
    count(`${name} wrote no report`, false)
  }
  rmSync(file, { force: true })
}

count('types', step('types', process.execPath, ['scripts/types.mjs']))
count('lint', step('lint', 'node_modules/.bin/biome', ['check', '--error-on-warnings', '.']))
try {
  build()
  count('build', true)
} catch {
  count('build', false)
}
const unit = join(tmpdir(), `acolhida-unit-${process.pid}.json`)
countReport(
  'unit tests',
  step('unit tests', 'node_modules/.bin/vitest', [
    'run',
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${unit}`,
  ]),
  unit,
)
const e2e = join(tmpdir(), `acolhida-e2e-${process.pid}.json`)
countReport(
  'end to end',
  step('end to end', 'node_modules/.bin/vitest', [
    'run',
    '--config',
    'e2e/vitest.config.ts',
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${e2e}`,
  ]),
  e2e,
)

for (const failure of failures) console.log(`✗ ${failure}`)
console.log(`\n${passed} passed, ${failed} failed`)
process.exitCode = failed > 0 ? 1 : 0
