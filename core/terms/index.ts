export * from './agreement.ts'
export * from './fingerprint.ts'
export * from './types.ts'
export * from './verify.ts'
