export * from './known.ts'
export { isMail, isPhone } from './mail.ts'
export * from './person.ts'
export * from './reply.ts'
