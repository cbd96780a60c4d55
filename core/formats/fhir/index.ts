export * from './read.ts'
export * from './response.ts'
export { toFhir } from './write.ts'
