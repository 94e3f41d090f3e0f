export * from './shift.ts'
