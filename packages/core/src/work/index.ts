export * from './budget.ts'
export * from './counting.ts'
export * from './seen.ts'
