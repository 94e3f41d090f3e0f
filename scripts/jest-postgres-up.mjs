import { startCluster, temporaryFolder } from './postgres.mjs'

export default async function () {
  const cluster = await startCluster({ folder: temporaryFolder(), throwAway: true })
  globalThis.__testCluster = cluster
  process.env.TEST_CLUSTER_URL = cluster.url('postgres')
}
