export {
  changesState,
  type Doing,
  type Due,
  inOrder,
  judgedKey,
  keyOf,
  type Message,
  type Planner,
} from './doing.ts'
export * from './due.ts'
export type { Sealing } from './sealing.ts'
export * from './subject.ts'
