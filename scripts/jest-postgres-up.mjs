import { startCluster, temporaryFolder } from './postgres.mjs'

/** `npm test` brings its own cluster; Jest alone makes one. */
export default async function () {
  if (process.env.TEST_CLUSTER_URL) return
  const cluster = await startCluster({ folder: temporaryFolder(), throwAway: true })
  globalThis.__testCluster = cluster
  process.env.TEST_CLUSTER_URL = cluster.url('postgres')
}
