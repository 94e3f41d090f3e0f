export * from './shift.ts'
export * from './plain.ts'
export * from './difference.ts'
