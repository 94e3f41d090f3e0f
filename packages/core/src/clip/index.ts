export * from './change.ts'
export * from './laid.ts'
export * from './reading.ts'
