/**
 * The service worker of this site; null where the browser has none, or lets none be registered, and on the pages of staff,
 * who need none without a network. Its scope is all the site: a worker of the desk is looked for by its own address.
 */
export const serviceWorker: Promise<ServiceWorkerRegistration | null> =
  import.meta.env.PROD && 'serviceWorker' in navigator && location.pathname.startsWith('/i/')
    ? navigator.serviceWorker.register('/service-worker.js').then(
        // Where a browser or its owner forbids it, some browsers give nothing instead of an error.
        (registered: ServiceWorkerRegistration | undefined) => registered ?? null,
        () => null,
      )
    : Promise.resolve(null);
