const PATIENCE_MS = 8000;

/**
 * Asks the service worker to keep everything the desk is made of, so that loading it again works without the network.
 * Waits until it is kept, but not for ever: a browser that cannot do this can still sit the test.
 */
export async function keepForOffline(): Promise<void> {
  if (!import.meta.env.PROD || !('serviceWorker' in navigator)) return;
  const kept = new Promise<void>((resolve) => {
    const channel = new MessageChannel();
    channel.port1.onmessage = () => resolve();
    void navigator.serviceWorker.ready.then(({ active }) => active?.postMessage('keep', [channel.port2]));
  });
  await Promise.race([kept, new Promise((resolve) => setTimeout(resolve, PATIENCE_MS))]);
}
