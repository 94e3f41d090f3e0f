export * from './laid.ts'
export * from './model.ts'
