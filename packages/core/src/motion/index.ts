export * from './flight.ts'
export * from './squash.ts'
