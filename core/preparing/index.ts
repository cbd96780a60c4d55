export * from './course.ts'
export * from './give.ts'
export * from './state.ts'
