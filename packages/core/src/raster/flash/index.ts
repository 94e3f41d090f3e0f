export * from './cells.ts'
export * from './flashes.ts'
