import { run } from './install.mjs'

for (const project of ['core', '.', 'web']) run('node_modules/.bin/tsc', ['-p', project])
