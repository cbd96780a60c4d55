import { run } from './install.mjs'

for (const project of ['core', '.', 'web', 'web/tsconfig.worker.json'])
  run('node_modules/.bin/tsc', ['-p', project])
