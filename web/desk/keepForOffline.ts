import type { NodeType } from '../../core/documents/everyNode';
import { serviceWorker } from './serviceWorker';

const PATIENCE_MS = 8000;

/**
 * Asks the service worker to keep everything the desk is made of, and what draws the nodes of this paper’s texts, so that loading it again works without the network.
 * Waits until it is kept, but not for ever: a browser that cannot do this can still sit the test.
 */
export async function keepForOffline(textNodes: readonly NodeType[]): Promise<void> {
  if (!(await serviceWorker)) return;
  const kept = new Promise<void>((resolve) => {
    const channel = new MessageChannel();
    channel.port1.onmessage = () => resolve();
    void navigator.serviceWorker.ready.then(({ active }) =>
      active?.postMessage({ keep: ['desk', ...textNodes] }, [channel.port2]),
    );
  });
  await Promise.race([kept, new Promise((resolve) => setTimeout(resolve, PATIENCE_MS))]);
}
