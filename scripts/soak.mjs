import { spawnSync } from 'node:child_process'
import { build, installChromium, installDebian, installPackages, root } from './install.mjs'

/**
 * What takes longer than the suite may: many more histories, many more ends in the midst of things, many more malformed
 * requests, a mail server as practices have one, what libical says of calendars, and a proxy with TLS before both names.
 */
installPackages()
installChromium()
installDebian({
  '/usr/sbin/smtpd': 'opensmtpd',
  '/usr/sbin/dovecot': 'dovecot-imapd',
  '/usr/sbin/nginx': 'nginx-light',
  '/usr/share/doc/libical3': 'libical3',
  '/usr/bin/python3': 'python3',
})
build()
const HISTORIES = process.env.HISTORIES ?? '100000'
const KILLS = process.env.KILLS ?? '1000'
const ORACLE_RUNS = process.env.ORACLE_RUNS ?? '20000'
const MALFORMED = process.env.MALFORMED ?? '100000'
const { status } = spawnSync(
  'node_modules/.bin/vitest',
  [
    ...[
      'run',
      'relay/tests/real-host.test.ts',
      'relay/tests/libical.test.ts',
      'relay/tests/histories.test.ts',
      'relay/tests/crash.test.ts',
      'core/openings/openings.test.ts',
      'relay/tests/malformed.test.ts',
      'scripts/published-schema.test.ts',
    ],
    '--testTimeout=7200000',
  ],
  {
    cwd: root,
    stdio: 'inherit',
    env: {
      ...process.env,
      HISTORIES,
      KILLS,
      ORACLE_RUNS,
      MALFORMED,
      REAL_HOST: '1',
      LIBICAL: '1',
      EVERY_CHANGE: '1',
    },
  },
)
const behind = spawnSync(
  'node_modules/.bin/vitest',
  ['run', '--config', 'e2e/vitest.config.ts', 'e2e/behind-proxy.test.ts'],
  { cwd: root, stdio: 'inherit', env: { ...process.env, BEHIND_PROXY: '1' } },
)
process.exitCode = (status ?? 1) || (behind.status ?? 1)
