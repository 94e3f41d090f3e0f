export * from './volume.ts'
export * from './way.ts'
