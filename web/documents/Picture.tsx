import { createContext, useContext } from 'react';
import type { PictureNode } from '../../core/documents/document';
import { words } from '../words';

const t = words('documents', { picture: 'Picture' });

/** Where the bytes of a file are on this device, by their hash; null where they are not. */
export const FileAddress = createContext<(hash: string) => string | null>(() => null);

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
