export * from './asset.ts'
export * from './table.ts'
export * from './picture.ts'
export * from './incoming.ts'
