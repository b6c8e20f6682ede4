/** From the first visit of the bench on the page opens without a network, too. */
export function useBenchWorker(): void {
  if (!import.meta.env.PROD || !('serviceWorker' in navigator)) return
  // A browser that refuses it (a private window) still has the bench, with a network.
  void navigator.serviceWorker.register('/bench-worker.js').catch(() => undefined)
}
