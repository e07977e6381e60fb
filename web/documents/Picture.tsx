import { Maximize2 } from 'lucide-react';
import { Suspense, useState } from 'react';
import type { PictureNode } from '../../core/documents/document';
import { useFile } from '../media/fileSource';
import { lazily } from '../ui/later';
import { t } from './words';

const LargePicture = lazily(async () => (await import('./LargePicture')).LargePicture);

/** A picture, which opens large; where it is not here, what it shows in words. */
export function Picture({ file, description, caption }: PictureNode) {
  const found = useFile(file);
  const [large, setLarge] = useState(false);
  return (
    <figure className="mb-3 last:mb-0">
      {found.is === 'missing' && (
        <div className="rounded-control border border-line bg-shade px-4 py-3 font-sans text-[0.92em]">
          <span className="font-semibold">{t('picture')}: </span>
          {description}
        </div>
      )}
      {found.is === 'coming' && <div aria-hidden className="min-h-40" />}
      {found.is === 'here' && (
        <>
          <img
            src={found.address}
            alt={description}
            className="max-w-full rounded-control border border-line"
          />
          <button
            type="button"
            aria-label={t('enlargeName', { name: caption ?? description })}
            onClick={() => setLarge(true)}
            className="mt-1 inline-flex min-h-9 items-center gap-1.5 rounded-control px-1.5 font-sans text-[0.85em] text-slate hover:bg-shade"
          >
            <Maximize2 aria-hidden className="size-4" /> {t('enlarge')}
          </button>
        </>
      )}
      {caption && <figcaption className="mt-1 text-[0.88em] text-soft">{caption}</figcaption>}
      {large && found.is === 'here' && (
        <Suspense>
          <LargePicture
            address={found.address}
            description={description}
            title={caption ?? t('picture')}
            onClose={() => setLarge(false)}
          />
        </Suspense>
      )}
    </figure>
  );
}
