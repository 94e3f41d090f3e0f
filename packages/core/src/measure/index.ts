export * from './crosses.ts'
export * from './volume.ts'
export * from './way.ts'
