export * from './shift.ts'
export * from './plain.ts'
