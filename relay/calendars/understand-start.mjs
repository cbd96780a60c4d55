import { register } from 'tsx/esm/api'

// A thread of Node.js 20 does not take over the loader of the main one: it reads TypeScript once it is told to.
register()
await import('./understand-worker.ts')
