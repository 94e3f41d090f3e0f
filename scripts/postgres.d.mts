export interface Cluster {
  readonly port: number
  url(database: string): string
  ownUrl(): string
  createDatabase(name: string): void
  ask(sql: string, database?: string): string
  stop(): void
  remove(): void
}
export function startCluster(wish: { folder: string; throwAway?: boolean }): Promise<Cluster>
export function takeFolder(folder: string): void
export function temporaryFolder(): string
export function postgresPrograms(): string | null
