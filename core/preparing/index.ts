export * from './course.ts'
export * from './give.ts'
export * from './path.ts'
export * from './state.ts'
