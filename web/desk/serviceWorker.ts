/** The service worker of this site; null where the browser has none, or lets none be registered. */
export const serviceWorker: Promise<ServiceWorkerRegistration | null> =
  import.meta.env.PROD && 'serviceWorker' in navigator
    ? navigator.serviceWorker.register('/service-worker.js').then(
        // Where a browser or its owner forbids it, some browsers give nothing instead of an error.
        (registered: ServiceWorkerRegistration | undefined) => registered ?? null,
        () => null,
      )
    : Promise.resolve(null);
