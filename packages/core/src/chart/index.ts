export * from './ease.ts'
export * from './halves.ts'
export * from './preset.ts'
