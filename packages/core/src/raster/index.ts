export * from './moments.ts'
export * from './silhouette.ts'
