import { createContext, useContext, useEffect, useState } from 'react';
import type { Page } from '../../core/files/pages';
import { bytesOrNull } from './sittingPages';

/** Where whoever reads an answer gets its pages from. */
export interface PageSource {
  /** Null: the page did not come. */
  readonly load: (page: Page) => Promise<Blob | null>;
}

const at = (addressOf: (hash: string) => string): PageSource => ({
  load: async ({ hash, type }) => {
    const bytes = await bytesOrNull(addressOf(hash));
    return bytes && new Blob([bytes], { type });
  },
});

/** Of a candidate's own answers. */
export const ownPages: PageSource = at((hash) => `/sitting/pages/${hash}`);
/** Of a script that an assessor has before them. */
export const pagesOfTask = (task: number): PageSource => at((hash) => `/marking/tasks/${task}/pages/${hash}`);

/** Of a sheet that staff look at; `path` is the sheet's own address. */
export const pagesOfResult = (path: string): PageSource => at((hash) => `${path}/pages/${hash}`);

export const PageSourceContext = createContext<PageSource>({ load: () => Promise.resolve(null) });

export type LoadedPage =
  | { readonly is: 'loading' }
  | { readonly is: 'here'; readonly blob: Blob; readonly address: string }
  | { readonly is: 'missing' }
  | { readonly is: 'trouble' };

/** Loads a page, and again where `turn` changes: what was on its way may have come. */
export function useLoadedPage(source: PageSource, page: Page, turn: unknown): LoadedPage {
  const [loaded, setLoaded] = useState<LoadedPage>({ is: 'loading' });
  const { hash, type } = page;
  useEffect(() => {
    let current = true;
    let address: string | null = null;
    source
      .load({ hash, type, bytes: 0, turn: 0 })
      .then((blob) => {
        if (!current) return;
        if (!blob) return setLoaded({ is: 'missing' });
        address = URL.createObjectURL(blob);
        setLoaded({ is: 'here', blob, address });
      })
      .catch(() => current && setLoaded({ is: 'trouble' }));
    return () => {
      current = false;
      if (address) URL.revokeObjectURL(address);
    };
  }, [source, hash, type, turn]);
  return loaded;
}

export const usePageSource = (): PageSource => useContext(PageSourceContext);
