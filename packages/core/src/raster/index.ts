export * from './moments.ts'
export * from './polygon.ts'
export * from './shapeOf.ts'
export * from './silhouette.ts'
