/** After so long, or as soon as the browser says that it is online again. */
export const orOnline = (ms: number): Promise<void> =>
  new Promise((resolve) => {
    const go = () => {
      clearTimeout(timer);
      window.removeEventListener('online', go);
      resolve();
    };
    const timer = setTimeout(go, ms);
    window.addEventListener('online', go);
  });
