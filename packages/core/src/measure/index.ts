export * from './crosses.ts'
export * from './planted.ts'
export * from './volume.ts'
export * from './way.ts'
