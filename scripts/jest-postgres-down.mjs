export default async function () {
  const cluster = globalThis.__testCluster
  cluster?.stop()
  cluster?.remove()
}
