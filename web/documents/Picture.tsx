import { createContext, useCallback, useContext, type ReactNode } from 'react';
import type { Media } from '../../core/papers/candidatePaper';
import type { PictureNode } from '../../core/documents/document';
import { words } from '../words';

const t = words('documents', { picture: 'Picture' });

/** Where the bytes of a file are on this device, by their hash; null where they are not. */
export const FileAddress = createContext<(hash: string) => string | null>(() => null);

/** Texts whose pictures came with them. */
export function WithMedia({ media, children }: { readonly media?: Media; readonly children: ReactNode }) {
  const address = useCallback((hash: string) => media?.[hash] ?? null, [media]);
  return <FileAddress value={address}>{children}</FileAddress>;
}

/** A picture; where it is not here, what it shows in words. */
export function Picture({ file, description, caption }: PictureNode) {
  const address = useContext(FileAddress)(file);
  return (
    <figure className="mb-3 last:mb-0">
      {address === null ? (
        <div className="rounded-control border border-line bg-shade px-4 py-3 font-sans text-[0.92em]">
          <span className="font-semibold">{t('picture')}: </span>
          {description}
        </div>
      ) : (
        <img src={address} alt={description} className="max-w-full rounded-control border border-line" />
      )}
      {caption && <figcaption className="mt-1 text-[0.88em] text-soft">{caption}</figcaption>}
    </figure>
  );
}
