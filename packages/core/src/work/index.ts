export * from './counting.ts'
